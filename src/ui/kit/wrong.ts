"use client";

import { createContext } from "react";

/** What is wrong with a field, by its name in the form. */
export interface WrongIn {
  field: string;
  message: string;
}

/** What is wrong with what was typed: with a field, or with all of it. Null where nothing is. */
export type Wrong = WrongIn | string | null;

/** Whether something was read from a form, or is wrong with a field of it. */
export const isWrongIn = <T extends object>(read: T | WrongIn): read is WrongIn => "field" in read && "message" in read;

/** What is wrong with a field of the form around it: told by the field itself. */
export const WrongField = createContext<WrongIn | null>(null);

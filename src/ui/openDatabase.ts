"use client";

import { createDatabase, type CortijoDatabase } from "@/store/database";

let database: CortijoDatabase | null = null;

/** The page's one connection to the browser's database. */
export function openDatabase(): CortijoDatabase {
  database ??= createDatabase();
  return database;
}

"use client";

import { usePathname } from "next/navigation";

/**
 * The id of the plan in the page's address. It is read there, and not handed on by the server: offline, one page serves
 * the plans of all ids.
 */
export const usePlanId = (): string => usePathname().split("/")[2] ?? "";

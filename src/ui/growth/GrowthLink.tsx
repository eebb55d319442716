"use client";

import Link from "next/link";
import { usePlanId } from "../shell/usePlanId";

/** From where one drive or one date is in question to the best way for years. */
export const GrowthLink = ({ children = "The best way to grow", part = "" }: { children?: string; part?: string }) => (
  <Link className="inline-block min-h-[24px] underline" href={`/plan/${usePlanId()}/growth${part}`}>
    {children}
  </Link>
);

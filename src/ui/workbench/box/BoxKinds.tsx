"use client";

import Link from "next/link";
import { usePathname } from "next/navigation";
import { ruleSets } from "@/core/rules/ruleSets";
import { MenuChoice, MenuChoices, MenuHeading, MenuItem, MenuLine } from "../../kit/Menu";
import { useWorkbench } from "../useWorkbench";
import type { RuleSetId } from "@/core/document/plan";

/** The ready-made sets of rules to choose from. */
export function BoxKinds() {
  const { plan, act } = useWorkbench();
  const pathname = usePathname();
  return (
    <>
      <MenuItem asChild className="font-semibold">
        <Link href={`${pathname}/box`}>What can your box do? All its rules…</Link>
      </MenuItem>
      <MenuLine />
      <MenuChoices
        value={plan.box.rules.set}
        onValueChange={(value) => act({ kind: "change-box", rules: { set: value as RuleSetId } })}
      >
        <MenuHeading>What kind of box is it?</MenuHeading>
        {ruleSets.map((set) => (
          <MenuChoice key={set.id} value={set.id} className="grid grid-cols-[1rem_1fr] gap-x-2">
            <span aria-hidden="true">{plan.box.rules.set === set.id ? "✓" : ""}</span>
            <span className="font-semibold">{set.name}</span>
          </MenuChoice>
        ))}
      </MenuChoices>
    </>
  );
}

"use client";

import type { Bytes } from "@/core/bytes/bytes";
import type { Group } from "@/core/document/plan";
import type { Drive } from "@/core/drives/drive";
import { rulesOf } from "@/core/rules/ruleSets";
import { MenuItem, MenuLine } from "../kit/Menu";
import { LayoutOptions } from "./LayoutOptions";
import { useWorkbench } from "./useWorkbench";

/** What can be done with a group: another layout, or taking it apart. */
export function GroupMenuItems({ group, drives, usableBytes }: { group: Group; drives: readonly Drive[]; usableBytes: Bytes }) {
  const { plan, act } = useWorkbench();
  return (
    <>
      <LayoutOptions drives={drives} rules={rulesOf(plan.box.rules)} present={{ layout: group.layout, usableBytes }} onChoose={(next) => act({ kind: "change-layout", group: group.id, layout: next })} />
      <MenuLine />
      <MenuItem onSelect={() => act({ kind: "take-apart", group: group.id }, true)}>Take the group apart</MenuItem>
    </>
  );
}

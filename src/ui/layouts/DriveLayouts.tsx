"use client";

import { useMemo } from "react";
import { compareDrives } from "@/core/compare/compare";
import type { LayoutId, Plan } from "@/core/document/plan";
import { rulesOf } from "@/core/rules/ruleSets";
import { NETWORKS } from "@/core/speeds/speed";
import { LayoutDialog } from "./LayoutDialog";

interface Props {
  plan: Plan;
  /** Ids of the drives on which the layouts are shown. */
  drives: readonly string[];
  first?: LayoutId | undefined;
  onClose: () => void;
}

/** Every layout that the box offers for some drives of a plan, explained on them. */
export function DriveLayouts({ plan, drives: ids, first, onClose }: Props) {
  const drives = useMemo(() => plan.drives.filter((drive) => ids.includes(drive.id)), [plan, ids]);
  const choices = useMemo(() => {
    const request = { drives, rules: rulesOf(plan.box.rules), network: NETWORKS[0].rate, splits: false };
    return compareDrives(request).choices.filter(({ groups }) => groups.length === 1);
  }, [drives, plan.box.rules]);
  return (
    <LayoutDialog
      choices={choices}
      first={choices.find(({ groups }) => groups[0]?.layout === first)?.id}
      drives={drives}
      plan={plan}
      onClose={onClose}
    />
  );
}

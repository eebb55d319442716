"use client";

import { OpenPlan } from "../shell/OpenPlan";
import { Workbench } from "./Workbench";
import { usePlanId } from "../shell/usePlanId";

/** A plan on the workbench. */
export function WorkbenchPage() {
  const id = usePlanId();
  return <OpenPlan id={id}>{(opened) => <Workbench opened={opened} />}</OpenPlan>;
}

"use client";

import { OpenPlan } from "../shell/OpenPlan";
import { Workbench } from "./Workbench";

/** A plan on the workbench. */
export function WorkbenchPage({ id }: { id: string }) {
  return <OpenPlan id={id}>{(opened) => <Workbench opened={opened} />}</OpenPlan>;
}

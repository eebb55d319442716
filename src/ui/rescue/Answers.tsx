"use client";

import { Fragment } from "react";
import { driveOf } from "@/core/box/find";
import { groupOfDrive } from "@/core/box/members";
import { isGone } from "@/core/drives/driveState";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import type { Rescue, RescueAct } from "@/core/rescue/rescue";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";
import type { PlaceProps } from "../shell/planPlace";
import { say } from "../kit/say";

interface AnswersProps {
  plan: PlaceProps["plan"];
  act: RescueAct;
  rescue: Rescue;
  tell: PlaceProps["act"];
}

/** What the owner can answer within an act: that a drive answers again, or is taken out. */
export function Answers({ plan, act, rescue, tell }: AnswersProps) {
  const [unit] = useUnit();
  if (act.what === "helper") return <TakenOut plan={plan} tell={tell} />;
  if (act.what !== "loose") return null;
  return (
    <div className="mt-2 flex flex-wrap gap-2 print:hidden">
      {rescue.condition.missing.map((id) => {
        const drive = driveOf(plan, id);
        if (!drive) return null;
        const name = nameOfDrive(drive, unit);
        const group = groupOfDrive(plan, id)?.group;
        const [first] = plan.steps;
        return (
          <Fragment key={id}>
            <Button
              className="h-auto! min-h-9 py-1 text-left whitespace-normal!"
              onClick={() => {
                const refused = tell(
                  { kind: "set-drive-state", drives: [id], state: null, since: new Date().toISOString() },
                  true,
                );
                if (!refused) say(`Said that ${name} is back.`);
              }}
            >
              It answers again: {name}
            </Button>
            {drive.state === "missing" && group && rescue.condition.redundancyLeft >= 0 && (
              <Button
                className="h-auto! min-h-9 py-1 text-left whitespace-normal!"
                onClick={() => {
                  const steps = [{ kind: "rebuild" as const, group: group.id, drive: id, by: id }];
                  const refused = tell({ kind: "insert-steps", ...(first ? { before: first.id } : {}), steps }, true);
                  if (!refused) say(`Planned to fill ${name} again.`);
                }}
              >
                It was away for longer, and is filled again: {name}
              </Button>
            )}
          </Fragment>
        );
      })}
    </div>
  );
}

/** Caches and logs that have failed, taken out of the pool at a press. */
function TakenOut({ plan, tell }: Pick<AnswersProps, "plan" | "tell">) {
  const [unit] = useUnit();
  const broken = plan.pools
    .flatMap((pool) => pool.helpers ?? [])
    .flatMap(({ drive }) => driveOf(plan, drive) ?? [])
    .filter(isGone);
  return (
    <div className="mt-2 flex flex-wrap gap-2 print:hidden">
      {broken.map((drive) => (
        <Button
          key={drive.id}
          className="h-auto! min-h-9 py-1 text-left whitespace-normal!"
          onClick={() => {
            const refused = tell({ kind: "leave-group", drives: [drive.id] }, true);
            if (!refused) say(`Taken out of the pool: ${nameOfDrive(drive, unit)}.`);
          }}
        >
          It is taken out: {nameOfDrive(drive, unit)}
        </Button>
      ))}
    </div>
  );
}

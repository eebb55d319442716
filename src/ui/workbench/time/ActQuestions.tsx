"use client";

import { groupOf } from "@/core/box/find";
import { isFree } from "@/core/box/members";
import type { BoxRules, Plan } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { inOrder } from "@/core/drives/inOrder";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { joinChoices, joinWords } from "@/core/prediction/joinChoices";
import { type Act, type ActChoices, newDrives, poolOfAct } from "@/core/steps/propose";
import { careWords } from "../../drives/DriveFace";
import { Tick, ticked } from "../../kit/Field";
import { useUnit } from "../../preferences/preferences";

interface Props {
  act: Act;
  plan: Plan;
  rules: BoxRules;
  choices: ActChoices;
  onChoices: (change: Partial<ActChoices>) => void;
  onAct: (act: Act) => void;
}

/** What matters about an act, asked in place. */
export function ActQuestions({ act, plan, rules, choices, onChoices, onAct }: Props) {
  return (
    <div className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-0.5">
      {act.kind === "replace" && (
        <>
          <Pick name="how" checked={!choices.attached} onPick={() => onChoices({ attached: false })}>
            pull the old drive first
          </Pick>
          {canStayAttached(act.by, plan, rules) && (
            <Pick name="how" checked={choices.attached} onPick={() => onChoices({ attached: true })}>
              old one still in its bay
            </Pick>
          )}
        </>
      )}
      {act.kind === "join" && (
        <>
          <Becomes act={act} plan={plan} as={choices.as} onChoices={onChoices} onAct={onAct} />
          {rules.hotSpares !== "none" && (
            <Pick name="as" checked={choices.as === "spare"} onPick={() => onChoices({ as: "spare" })}>
              hot spare
            </Pick>
          )}
          {act.drives.length > 1 && (
            <Pick name="as" checked={choices.as === "group"} onPick={() => onChoices({ as: "group" })}>
              another group
            </Pick>
          )}
        </>
      )}
      {act.kind === "level" && (
        <Joining plan={plan} drives={act.drives} onDrives={(drives) => onAct({ ...act, drives })} />
      )}
      {act.kind !== "pull" && act.kind !== "steps" && (
        <Tick checked={choices.grow} onTick={(grow) => onChoices({ grow })}>
          then use the new space
        </Tick>
      )}
      {newDrives(act).length > 0 && (
        <Tick checked={choices.test} onTick={(test) => onChoices({ test })}>
          test first
        </Tick>
      )}
      {poolOfAct(act, plan) && (
        <Tick checked={choices.backUp} onTick={(backUp) => onChoices({ backUp })}>
          back up first
        </Tick>
      )}
    </div>
  );
}

/** What the group becomes with the drives: with the layout that it has, or with another that the box makes of it. */
function Becomes({
  act,
  plan,
  as,
  onChoices,
  onAct,
}: Pick<Props, "plan" | "onChoices" | "onAct"> & { act: Extract<Act, { kind: "join" }>; as: ActChoices["as"] }) {
  const [unit] = useUnit();
  const group = groupOf(plan, act.group);
  return (group ? joinChoices(plan, group, act.drives) : []).map((choice) => (
    <Pick
      key={choice.layout}
      name="as"
      checked={choice.same && as === "member"}
      onPick={() =>
        choice.same
          ? onChoices({ as: "member" })
          : onAct({ kind: "level", group: act.group, layout: choice.layout, drives: act.drives })
      }
    >
      {joinWords(choice, unit)}
    </Pick>
  ));
}

/** Whether the old drive can stay in while the new one is written: the box can do it, and both have a bay. */
const canStayAttached = (by: string, plan: Plan, rules: BoxRules): boolean => {
  const inBays = plan.drives.filter((drive) => bayOf(drive) !== null);
  return rules.replacing === "old-attached" && (inBays.some((each) => each.id === by) || plan.box.bays > inBays.length);
};

/** So many free drives are offered: a line has room for no more. */
const OFFERED = 6;

interface JoiningProps {
  plan: Plan;
  drives: readonly string[];
  onDrives: (drives: string[]) => void;
}

/** Which of the free drives join with a change of level. */
function Joining({ plan, drives, onDrives }: JoiningProps) {
  const [unit] = useUnit();
  const free = inOrder(plan.drives.filter((drive) => isFree(plan, drive.id)));
  if (free.length === 0) return null;
  return (
    <span className="flex flex-wrap items-center gap-x-3">
      <span className="text-soft">with</span>
      {free.slice(0, OFFERED).map((drive) => (
        <Tick
          key={drive.id}
          checked={drives.includes(drive.id)}
          onTick={(on) => onDrives(ticked(drives, drive.id, on))}
        >
          {nameOfDrive(drive, unit).replace(/^the /, "")}
          {careWords(drive) && `, ${careWords(drive)}`}
        </Tick>
      ))}
    </span>
  );
}

interface PickProps {
  name: string;
  checked: boolean;
  onPick: () => void;
  children: string;
}

function Pick({ name, checked, onPick, children }: PickProps) {
  return (
    <label className="flex items-center gap-1.5">
      <input type="radio" name={name} checked={checked} onChange={onPick} className="accent-indigo" />
      {children}
    </label>
  );
}

"use client";

import { ChevronDown } from "lucide-react";
import { useEffect } from "react";
import type { Bytes } from "@/core/bytes/bytes";
import { formatBytes } from "@/core/bytes/formatBytes";
import { bayOf } from "@/core/drives/drive";
import { groupOfDrive } from "@/core/box/members";
import type { Drive, Plan } from "@/core/document/plan";
import { ownTimesOf } from "@/core/logbook/ownTimes";
import { rulesOf } from "@/core/rules/ruleSets";
import { counted, oneOrMany, plural } from "@/core/words/counted";
import { Button } from "../kit/Button";
import { MenuButton } from "../kit/MenuButton";
import { say } from "../kit/say";
import { Size } from "../kit/Size";
import { useUnit } from "../preferences/preferences";
import { StatesInShort } from "./readout/StateOfPool";
import { useWorkbench } from "./useWorkbench";
import { part } from "../kit/part";

const LayoutOptions = part(() => import("./LayoutOptions").then((module) => module.LayoutOptions), {
  needed: "this menu",
  meanwhile: "whatever is around",
});
const PoolChoices = part(() => import("./PoolChoices").then((module) => module.PoolChoices), {
  needed: "this menu",
  meanwhile: "whatever is around",
});

/** The group that all of some drives are members of, with its pool; null where they are not of one. */
function membersOfOneGroup(plan: Plan, drives: readonly Drive[]) {
  const owner = groupOfDrive(plan, drives[0]?.id ?? "");
  if (!owner || !drives.every((drive) => owner.group.drives.includes(drive.id))) return null;
  return { group: owner.group.id, pool: owner.pool.id };
}

/** Says how much is selected, and that nothing is any more. */
function useSaid(drives: number, bytes: Bytes): void {
  const [unit] = useUnit();
  const words = drives === 0 ? null : `Selected: ${counted(drives, "drive")}, ${formatBytes(bytes, unit)}.`;
  const isAny = words !== null;
  useEffect(() => {
    if (words !== null) say(words, 0);
  }, [words]);
  useEffect(() => {
    if (isAny) return () => say("No drive is selected.", 0);
  }, [isAny]);
}

/** What can be done with the drives that are selected; without any, with those that have failed in a what-if. */
export function SelectedBar() {
  const { plan, selected, clearSelected, failed, act, askSequence, explainLayouts } = useWorkbench();
  const drives = plan.drives.filter((drive) => selected.has(drive.id));
  const bytes = drives.reduce((sum, drive) => sum + drive.bytes, 0);
  useSaid(drives.length, bytes);
  if (drives.length === 0) return failed.size > 0 ? <FailedBar /> : null;
  const ids = drives.map((drive) => drive.id);
  const members = membersOfOneGroup(plan, drives);
  const rules = rulesOf(plan.box.rules);
  const holder = drives.find((drive) => drive.contents?.kind === "data");
  const done = (refused: string | null) => {
    if (!refused) clearSelected();
  };
  return (
    <div className="flex w-full flex-wrap items-center gap-2 text-ink" role="toolbar" aria-label="Selected drives">
      <span>
        {counted(drives.length, "drive")}, <Size bytes={bytes} />
      </span>
      <MenuButton
        width="w-[27rem] max-w-[calc(100vw-1rem)]"
        trigger={
          <Button look="main" small data-make-group aria-keyshortcuts="G" title="Key: G">
            Make a group <ChevronDown size={14} aria-hidden />
          </Button>
        }
      >
        <LayoutOptions
          drives={drives}
          rules={rules}
          own={ownTimesOf(plan).factors}
          present={null}
          {...(holder
            ? { onKeep: () => askSequence({ sequence: "protect-drive", wish: { drives: [holder.id] } }) }
            : {})}
          onExplain={() => explainLayouts(ids)}
          onChoose={(layout) => done(act({ kind: "make-group", drives: ids, layout, pool: null }))}
          onSplit={({ groups, layout }) => done(act({ kind: "make-groups", groups, layout }))}
        />
      </MenuButton>
      {plan.pools.length > 0 && (
        <MenuButton
          width="w-96 max-w-[calc(100vw-1rem)]"
          trigger={
            <Button small>
              Add to a pool <ChevronDown size={14} aria-hidden />
            </Button>
          }
        >
          <PoolChoices drives={ids} onDone={done} />
        </MenuButton>
      )}
      {drives.some((drive) => bayOf(drive) === null) && (
        <Button small onClick={() => done(act({ kind: "seat-drives", drives: ids }))}>
          Put in free bays
        </Button>
      )}
      {members && (
        <Button
          small
          onClick={() =>
            askSequence({
              sequence: "one-by-one",
              wish: { ...members, drives: ids },
            })
          }
        >
          Replace {plural(drives.length, "it", "these")}…
        </Button>
      )}
      <Button small onClick={() => done(act({ kind: "remove-drives", drives: ids }, true))}>
        Remove
      </Button>
      <Button small look="quiet" onClick={clearSelected}>
        Clear
      </Button>
    </div>
  );
}

/** What can be done with the drives that have failed in a what-if. */
function FailedBar() {
  const { failed, clearFailed, act, at } = useWorkbench();
  return (
    <div className="flex w-full flex-wrap items-center gap-x-3 gap-y-1">
      <span>
        What if:{" "}
        <strong className="font-semibold text-geranium">
          {oneOrMany(failed.size, "1 drive has failed", "drives have failed")}
        </strong>
        . Nothing in the plan has changed.
      </span>
      <span className="w-full md:hidden">
        <StatesInShort />
      </span>
      <Button small onClick={clearFailed}>
        Make whole again
      </Button>
      {at === 0 && (
        <Button
          small
          onClick={() => {
            const since = new Date().toISOString();
            act({ kind: "set-drive-state", drives: [...failed], state: "failed", since }, true);
            clearFailed();
          }}
        >
          {plural(failed.size, "It has really failed", "They have really failed")}
        </Button>
      )}
    </div>
  );
}

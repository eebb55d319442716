"use client";

import { checkContents } from "@/core/drives/checks/contents";
import { checkHealth } from "@/core/drives/checks/health";
import { checkJoining } from "@/core/drives/checks/joining";
import type { Group, LayoutId, Pool } from "@/core/document/plan";
import type { Finding } from "@/core/findings/finding";
import { inText } from "@/core/layouts/inText";
import { joinChoices, joinWords } from "@/core/prediction/joinChoices";
import { rulesForJoining } from "@/core/layouts/joins";
import { layoutOf } from "@/core/layouts/registry";
import { checkChosen } from "@/core/drives/checks/chosen";
import { rulesOf } from "@/core/rules/ruleSets";
import { counted } from "@/core/words/counted";
import { useUnit } from "../preferences/preferences";
import { MenuHeading, MenuItem, SubMenu } from "../kit/Menu";
import { ChosenFindings } from "./ChosenFindings";
import { useWorkbench } from "./useWorkbench";

/** Where drives can be added: to the drives of a group, or to a pool as a further group. */
export function PoolChoices({ drives, onDone }: { drives: string[]; onDone: (refused: string | null) => void }) {
  const { plan, act } = useWorkbench();
  const [unit] = useUnit();
  const rules = rulesOf(plan.box.rules);
  const chosen = plan.drives.filter((drive) => drives.includes(drive.id));
  // What speaks against these drives is said where they are about to be used.
  const warningsOn = (group: Group, layout: LayoutId) => {
    const members = plan.drives.filter((drive) => group.drives.includes(drive.id));
    const wants = rulesForJoining(layoutOf(layout), rules);
    return [
      ...checkChosen(chosen, members, rules, unit),
      ...chosen.flatMap((drive) => checkJoining(drive, members, wants, unit)),
    ];
  };
  const beside = chosen.flatMap((drive) => [...checkHealth(drive, unit), ...checkContents(drive, rules, unit)]);
  return (
    <>
      <MenuHeading>To the drives of a group</MenuHeading>
      {plan.pools.flatMap((pool) =>
        pool.groups.map((group) => (
          <Becomes
            key={group.id}
            pool={pool}
            group={group}
            drives={drives}
            warningsOn={(layout) => warningsOn(group, layout)}
            onDone={onDone}
          />
        )),
      )}
      <MenuHeading>As a hot spare, a cache or a log (no space of their own)</MenuHeading>
      {beside.length > 0 && (
        <div role="group" aria-label="About these drives" className="px-2 pb-1">
          <ChosenFindings findings={beside} />
        </div>
      )}
      {plan.pools.map((pool) => (
        <SubMenu key={pool.id} label={pool.name}>
          {(rules.hotSpares === "per-group" ? pool.groups : []).map((group, i) => (
            <MenuItem
              key={group.id}
              onSelect={() => onDone(act({ kind: "set-spare", pool: pool.id, group: group.id, drives }))}
            >
              Hot spare of {pool.groups.length > 1 ? `group ${i + 1}` : "its group"}
            </MenuItem>
          ))}
          {rules.hotSpares !== "per-group" && (
            <MenuItem onSelect={() => onDone(act({ kind: "set-spare", pool: pool.id, drives }))}>Hot spare</MenuItem>
          )}
          <MenuItem onSelect={() => onDone(act({ kind: "set-helper", pool: pool.id, drives, role: "read-cache" }))}>
            Read cache
          </MenuItem>
          <MenuItem onSelect={() => onDone(act({ kind: "set-helper", pool: pool.id, drives, role: "write-log" }))}>
            Write log
          </MenuItem>
        </SubMenu>
      ))}
      <MenuHeading>As another group of the same layout</MenuHeading>
      {plan.pools.map((pool) => (
        <MenuItem
          key={pool.id}
          onSelect={() =>
            onDone(act({ kind: "make-group", drives, layout: pool.groups[0]?.layout ?? "raid1", pool: pool.id }))
          }
        >
          Another {inText(layoutOf(pool.groups[0]?.layout ?? "raid1"))} group of {pool.name}
        </MenuItem>
      ))}
    </>
  );
}

/** What a group becomes with the drives, with its layout and with each that the box changes it to: a press each. */
function Becomes({
  pool,
  group,
  drives,
  warningsOn,
  onDone,
}: {
  pool: Pool;
  group: Group;
  drives: string[];
  warningsOn: (layout: LayoutId) => readonly Finding[];
  onDone: (refused: string | null) => void;
}) {
  const { plan, act } = useWorkbench();
  const [unit] = useUnit();
  const choices = joinChoices(plan, group, drives);
  const name = `${pool.name}, ${counted(group.drives.length, "drive")}`;
  if (choices.length === 0)
    return (
      <MenuItem
        className="flex-col items-start gap-0!"
        onSelect={() => onDone(act({ kind: "add-to-group", group: group.id, drives }))}
      >
        {name}
        <ChosenFindings findings={warningsOn(group.layout)} />
      </MenuItem>
    );
  return choices.map((choice) => (
    <MenuItem
      key={choice.layout}
      className="flex-col items-start gap-0!"
      onSelect={() =>
        onDone(
          act({ kind: "add-to-group", group: group.id, drives, ...(choice.same ? {} : { layout: choice.layout }) }),
        )
      }
    >
      {name}
      <span className="block text-[0.9rem]">becomes {joinWords(choice, unit)}</span>
      <ChosenFindings findings={warningsOn(choice.layout)} />
    </MenuItem>
  ));
}

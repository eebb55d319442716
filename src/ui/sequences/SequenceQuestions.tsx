"use client";

import { useId, useState } from "react";
import { parseSize } from "@/core/bytes/parseSize";
import { nameOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import { driveBytes } from "@/core/drives/typedDrive";
import { layoutOf } from "@/core/layouts/registry";
import { ruleSets } from "@/core/rules/ruleSets";
import { SOLD_SIZES } from "@/core/sequences/parts";
import { bestLayoutFor } from "@/core/sequences/throughBackup";
import type { Question, Sequence, SequenceSetting, Variants, Wish } from "@/core/sequences/sequence";
import { useUnit } from "../preferences/preferences";
import type { LayoutId, RuleSetId } from "@/core/document/plan";

const FIELD = "mt-0.5 h-9 w-full rounded border border-line-strong/70 bg-raised px-2";

const VARIANT_NAMES: Record<keyof Variants, string> = {
  test: "test new drives first",
  backUp: "back up first",
  spareFirst: "put in a hot spare first",
  attached: "keep the old drive attached meanwhile",
  grow: "claim the space, grow the volume and its files",
  verify: "verify at the end",
};

interface Props {
  sequence: Sequence;
  wish: Wish;
  setting: SequenceSetting;
  onChange: (wish: Wish) => void;
}

/** What a sequence asks: which group, which drives, what size, and what is to be done for safety. */
export function SequenceQuestions({ sequence, wish, setting, onChange }: Props) {
  const answers = sequence.answers(wish, setting);
  const { plan, rules } = setting;
  const change = (part: Partial<Wish>) => onChange({ ...wish, ...part });
  const variants = sequence.variants.filter(
    (id) =>
      (id !== "attached" || rules.replacing === "old-attached") && (id !== "spareFirst" || rules.hotSpares !== "none"),
  );
  const asked = (question: Question) => sequence.asks.includes(question);
  const groupName = (id: string) => {
    const pool = plan.pools.find((each) => each.groups.some((group) => group.id === id));
    const group = pool?.groups.find((each) => each.id === id);
    return `${pool?.name || "Pool"}${(pool?.groups.length ?? 0) > 1 ? `, group ${(pool?.groups.findIndex((each) => each.id === id) ?? 0) + 1}` : ""} (${group ? layoutOf(group.layout).shortName : ""})`;
  };
  return (
    <div className="space-y-3">
      <div className="grid gap-3 sm:grid-cols-2">
        {asked("group") && (answers.groups?.length ?? 0) > 1 && (
          <Select
            label="Which group"
            value={wish.group}
            options={(answers.groups ?? []).map((id) => ({ value: id, label: groupName(id) }))}
            onChange={(group) =>
              change({
                group,
                pool: plan.pools.find((pool) => pool.groups.some((each) => each.id === group))?.id ?? wish.pool,
                ...(asked("drives")
                  ? {
                      drives: plan.pools.flatMap((pool) => pool.groups).find((each) => each.id === group)?.drives ?? [],
                    }
                  : {}),
              })
            }
          />
        )}
        {asked("box") && <BoxQuestion wish={wish} setting={setting} onChange={onChange} />}
        {asked("layout") && (answers.layouts?.length ?? 0) > 0 && (
          <Select
            label="Layout"
            value={wish.layout}
            options={(answers.layouts ?? []).map((id) => ({ value: id, label: layoutOf(id).shortName }))}
            onChange={(layout) => change({ layout: layout as LayoutId })}
          />
        )}
        {asked("by") && (
          <Select
            label="With which drive"
            value={wish.by ?? ""}
            options={[
              { value: "", label: "a free one, or one to buy" },
              ...(answers.bys ?? []).map((id) => ({ value: id, label: nameById(setting, id) })),
            ]}
            onChange={(by) => change({ by: by === "" ? null : by })}
          />
        )}
        {asked("size") && wish.by === null && (
          <SizeQuestion wish={wish} least={answers.leastBytes ?? 0} onChange={(bytes) => change({ bytes })} />
        )}
        {asked("count") && (
          <Select
            label="How many drives"
            value={String(wish.count)}
            options={(answers.counts ?? []).map((count) => ({ value: String(count), label: String(count) }))}
            onChange={(count) => change({ count: Number(count) })}
          />
        )}
        {asked("years") && (
          <Select
            label="How many drives, one each year"
            value={String(wish.count)}
            options={(answers.counts ?? []).map((count) => ({
              value: String(count),
              label: `${count}, over ${count - 1 === 1 ? "a year" : `${count - 1} years`}`,
            }))}
            onChange={(count) => change({ count: Number(count) })}
          />
        )}
      </div>
      {asked("drives") && (
        <fieldset>
          <legend className="text-[0.9rem] text-soft">Which drives</legend>
          <div className="grid gap-x-4 sm:grid-cols-2">
            {(answers.drives ?? []).map((id) => (
              <label key={id} className="flex items-center gap-2 py-px">
                <input
                  type="checkbox"
                  className="accent-indigo"
                  checked={wish.drives.includes(id)}
                  onChange={(event) =>
                    change({
                      drives: event.target.checked ? [...wish.drives, id] : wish.drives.filter((each) => each !== id),
                    })
                  }
                />
                <span className="truncate">{nameById(setting, id)}</span>
              </label>
            ))}
          </div>
        </fieldset>
      )}
      {variants.length > 0 && (
        <fieldset>
          <legend className="text-[0.9rem] text-soft">For safety</legend>
          <div className="flex flex-wrap gap-x-4 gap-y-0.5">
            {variants.map((id) => (
              <label key={id} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-indigo"
                  checked={wish.variants[id]}
                  onChange={(event) => change({ variants: { ...wish.variants, [id]: event.target.checked } })}
                />
                {VARIANT_NAMES[id]}
              </label>
            ))}
          </div>
        </fieldset>
      )}
    </div>
  );
}

const nameById = ({ plan, family }: SequenceSetting, id: string): string => {
  const drive = plan.drives.find((each) => each.id === id);
  return drive ? nameOfDrive(drive, family).replace(/^the /, "") + (drive.contents ? ", holds data" : "") : id;
};

function Select({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: { value: string; label: string }[];
  onChange: (value: string) => void;
}) {
  return (
    <label className="block">
      <span className="text-[0.9rem] text-soft">{label}</span>
      <select className={FIELD} value={value} onChange={(event) => onChange(event.target.value)}>
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </label>
  );
}

/** The size of what comes, typed or one that is sold. */
function SizeQuestion({ wish, least, onChange }: { wish: Wish; least: number; onChange: (bytes: number) => void }) {
  const [unit] = useUnit();
  const [text, setText] = useState(() => shortSize({ bytes: wish.bytes }, "TB").replace("\u00a0", " "));
  const [trouble, setTrouble] = useState<string | null>(null);
  const list = useId();
  const problem = useId();
  const take = (typed: string) => {
    setText(typed);
    const parsed = parseSize(typed);
    if (!parsed.ok) return setTrouble(parsed.message);
    const bytes = driveBytes(parsed.size, "hdd");
    if (bytes < 1 || bytes > 1e15)
      return setTrouble("No drive has that size. Type it as it is sold, for instance 12 TB.");
    setTrouble(bytes < least ? `Too small: at least ${shortSize({ bytes: least }, unit)} is needed.` : null);
    onChange(bytes);
  };
  return (
    <label className="block">
      <span className="text-[0.9rem] text-soft">Size of the new {wish.count > 1 ? "drives" : "drive"}</span>
      <input
        className={FIELD}
        list={list}
        value={text}
        aria-invalid={trouble !== null}
        aria-describedby={trouble ? problem : undefined}
        onChange={(event) => take(event.target.value)}
      />
      <datalist id={list}>
        {SOLD_SIZES.filter((size) => size >= least).map((size) => (
          <option key={size} value={shortSize({ bytes: size }, "TB").replace("\u00a0", " ")} />
        ))}
      </datalist>
      {trouble && (
        <span id={problem} className="text-[0.9rem] text-geranium">
          {trouble}
        </span>
      )}
    </label>
  );
}

/** This box, or another kind of box with so many bays. */
function BoxQuestion({ wish, setting, onChange }: Omit<Props, "sequence">) {
  const { plan } = setting;
  const bays = wish.box?.bays ?? plan.box.bays;
  return (
    <>
      <Select
        label="Where to"
        value={wish.box?.rules.set ?? ""}
        options={[
          { value: "", label: "the same box" },
          ...ruleSets.map((set) => ({
            value: set.id,
            label: `another: ${set.name.charAt(0).toLowerCase()}${set.name.slice(1)}`,
          })),
        ]}
        onChange={(set) => {
          const next: Wish = {
            ...wish,
            box: set === "" ? null : { name: wish.box?.name ?? "New box", bays, rules: { set: set as RuleSetId } },
          };
          onChange({ ...next, layout: bestLayoutFor(next, setting) ?? next.layout });
        }}
      />
      {wish.box && (
        <label className="block">
          <span className="text-[0.9rem] text-soft">Its bays</span>
          <input
            className={FIELD}
            type="number"
            min={1}
            max={24}
            value={bays}
            onChange={(event) =>
              wish.box &&
              onChange({
                ...wish,
                box: { ...wish.box, bays: Math.max(1, Math.min(24, Math.round(Number(event.target.value)) || 1)) },
              })
            }
          />
        </label>
      )}
    </>
  );
}

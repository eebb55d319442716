"use client";

import { inSentence } from "@/core/words/inSentence";
import { Fragment, useId, useState, type ReactNode } from "react";
import { parseSize } from "@/core/bytes/parseSize";
import { groupOf } from "@/core/box/find";
import type { LayoutId, Plan, RuleSetId } from "@/core/document/plan";
import { nameOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import { driveBytes } from "@/core/drives/typedDrive";
import { fullName } from "@/core/layouts/inText";
import { layoutOf } from "@/core/layouts/registry";
import { ruleSets } from "@/core/rules/ruleSets";
import { SOLD_SIZES } from "@/core/sequences/parts";
import type { Answers, Question, Sequence, SequenceSetting, Variants, Wish } from "@/core/sequences/sequence";
import { bestLayoutFor } from "@/core/sequences/throughBackup";
import { oneOrMany, plural } from "@/core/words/counted";
import { careWords } from "../drives/DriveFace";
import { Choice, FIELD, Labelled, TextField, Tick, ticked } from "../kit/Field";
import type { Option } from "../kit/Select";
import { useUnit } from "../preferences/preferences";

const VARIANT_NAMES: Record<keyof Variants, string> = {
  test: "test new drives first",
  backUp: "back up first",
  spareFirst: "put in a hot spare first",
  attached: "keep the old drive in its bay meanwhile",
  together: "all at once, where enough drives may be missing",
  grow: "use the new space: grow the volume and its file system",
  verify: "check at the end",
};

interface Props {
  sequence: Sequence;
  wish: Wish;
  setting: SequenceSetting;
  onChange: (wish: Wish) => void;
}

/** What one question needs in order to be asked. */
interface Asked extends Props {
  answers: Answers;
  change: (part: Partial<Wish>) => void;
}

/** How each question is asked; one whose answer is plain by itself is not. */
const FIELDS: Record<Question, ((asked: Asked) => ReactNode) | null> = {
  group: (asked) => <GroupQuestion {...asked} />,
  box: (asked) => <BoxQuestion {...asked} />,
  layout: ({ answers: { layouts = [] }, wish, change }) =>
    layouts.length > 0 && (
      <Choice
        label="Layout"
        value={wish.layout}
        options={layouts.map((id) => ({ value: id, label: fullName(layoutOf(id)) }))}
        onPick={(layout) => change({ layout: layout as LayoutId })}
      />
    ),
  by: ({ answers: { bys = [] }, wish, setting, change }) => (
    <Choice
      label="With which drive"
      value={wish.by ?? ""}
      options={[
        { value: "", label: "a free one, or one to buy" },
        ...bys.map((id) => ({ value: id, label: nameById(setting, id) })),
      ]}
      onPick={(by) => change({ by: by === "" ? null : by })}
    />
  ),
  size: ({ sequence, answers, wish, change }) =>
    wish.by === null && (
      <SizeQuestion
        bytes={wish.bytes}
        count={sequence.asks.includes("drives") ? wish.drives.length : wish.count}
        least={answers.leastBytes ?? 0}
        onChange={(bytes) => change({ bytes })}
      />
    ),
  count: (asked) => <CountQuestion label="How many drives" words={String} {...asked} />,
  years: (asked) => (
    <CountQuestion
      label="How many drives, one each year"
      words={(count) => `${count}, over ${oneOrMany(count - 1, "a year", "years")}`}
      {...asked}
    />
  ),
  // Many at once, across the whole width, below the others.
  drives: null,
};

/** What a sequence asks: which group, which drives, what size, and what is to be done for safety. */
export function SequenceQuestions(props: Props) {
  const { sequence, wish, setting, onChange } = props;
  const asked: Asked = {
    ...props,
    answers: sequence.answers(wish, setting),
    change: (part) => onChange({ ...wish, ...part }),
  };
  return (
    <div className="space-y-3">
      <div className="grid gap-3 sm:grid-cols-2">
        {(Object.keys(FIELDS) as Question[])
          .filter((question) => sequence.asks.includes(question))
          .map((question) => (
            <Fragment key={question}>{FIELDS[question]?.(asked)}</Fragment>
          ))}
      </div>
      {sequence.asks.includes("drives") && <DrivesQuestion {...asked} />}
      <SafetyQuestion {...asked} />
    </div>
  );
}

/** Whether several drives of a group can be filled in one go, or leave at once where they hold nothing. */
function rebuildsTogether(plan: Plan, id: string): boolean {
  const group = groupOf(plan, id);
  const layout = group && layoutOf(group.layout);
  return layout?.rebuildsTogether === true || layout?.chunked === true;
}

/** Whether the box and its rules leave a choice about it. */
const isOpen = (variant: keyof Variants, wish: Wish, { plan, rules }: SequenceSetting): boolean =>
  (variant !== "attached" || rules.replacing === "old-attached") &&
  (variant !== "together" || (wish.drives.length > 1 && rebuildsTogether(plan, wish.group))) &&
  (variant !== "spareFirst" || rules.hotSpares !== "none");

/** A variant chosen or not; one that another rules out takes its place. */
function withVariant(variants: Variants, id: keyof Variants, on: boolean): Variants {
  const out = { attached: "together", together: "attached" } as const;
  const other = on && (id === "attached" || id === "together") ? { [out[id]]: false } : {};
  return { ...variants, ...other, [id]: on };
}

function SafetyQuestion({ sequence, wish, setting, change }: Asked) {
  const variants = sequence.variants.filter((id) => isOpen(id, wish, setting));
  if (variants.length === 0) return null;
  return (
    <fieldset>
      <legend className="text-[0.9rem] text-soft">For safety</legend>
      <div className="flex flex-wrap gap-x-4">
        {variants.map((id) => (
          <Tick
            key={id}
            checked={wish.variants[id]}
            onTick={(on) => change({ variants: withVariant(wish.variants, id, on) })}
          >
            {VARIANT_NAMES[id]}
          </Tick>
        ))}
      </div>
    </fieldset>
  );
}

function DrivesQuestion({ answers, wish, setting, change }: Asked) {
  return (
    <fieldset>
      <legend className="text-[0.9rem] text-soft">Which drives</legend>
      <div className="grid gap-x-4 sm:grid-cols-2">
        {(answers.drives ?? []).map((id) => (
          <Tick
            key={id}
            checked={wish.drives.includes(id)}
            onTick={(on) => change({ drives: ticked(wish.drives, id, on) })}
          >
            <span className="truncate">{nameById(setting, id)}</span>
          </Tick>
        ))}
      </div>
    </fieldset>
  );
}

/** The groups by pool, place in it and layout. */
const groupOptions = ({ plan }: SequenceSetting, ids: readonly string[]): Option[] =>
  plan.pools.flatMap((pool) =>
    pool.groups
      .map((group, i) => ({
        value: group.id,
        label:
          `${pool.name || "Pool"}${pool.groups.length > 1 ? `, group ${i + 1}` : ""} ` +
          `(${layoutOf(group.layout).shortName})`,
      }))
      .filter(({ value }) => ids.includes(value)),
  );

function GroupQuestion({ sequence, answers: { groups = [] }, wish, setting, change }: Asked) {
  if (groups.length <= 1) return null;
  const choose = (id: string) => {
    const pool = setting.plan.pools.find((each) => each.groups.some((group) => group.id === id));
    const group = pool?.groups.find((each) => each.id === id);
    change({
      group: id,
      ...(pool ? { pool: pool.id } : {}),
      ...(sequence.asks.includes("drives") ? { drives: group?.drives ?? [] } : {}),
    });
  };
  return <Choice label="Which group" value={wish.group} options={groupOptions(setting, groups)} onPick={choose} />;
}

interface CountProps extends Asked {
  label: string;
  words: (count: number) => string;
}

function CountQuestion({ label, words, answers: { counts = [] }, wish, change }: CountProps) {
  return (
    <Choice
      label={label}
      value={String(wish.count)}
      options={counts.map((count) => ({ value: String(count), label: words(count) }))}
      onPick={(count) => change({ count: Number(count) })}
    />
  );
}

const nameById = ({ plan, family }: SequenceSetting, id: string): string => {
  const drive = plan.drives.find((each) => each.id === id);
  return drive ? [nameOfDrive(drive, family).replace(/^the /, ""), careWords(drive)].filter(Boolean).join(", ") : id;
};

interface SizeProps {
  bytes: number;
  /** How many drives of the size come. */
  count: number;
  least: number;
  onChange: (bytes: number) => void;
}

/** The size of what comes, typed or one that is sold. */
function SizeQuestion({ bytes: first, count, least, onChange }: SizeProps) {
  const [unit] = useUnit();
  const [text, setText] = useState(() => shortSize({ bytes: first }, "TB").replace("\u00a0", " "));
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
    <Labelled label={`Size of the new ${plural(count, "drive")}`}>
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
    </Labelled>
  );
}

/** This box, or another kind of box with so many bays. */
function BoxQuestion({ wish, setting, onChange }: Omit<Props, "sequence">) {
  const { plan } = setting;
  const bays = wish.box?.bays ?? plan.box.bays;
  return (
    <>
      <Choice
        label="Where to"
        value={wish.box?.rules.set ?? ""}
        options={[
          { value: "", label: "the same box" },
          ...ruleSets.map((set) => ({
            value: set.id,
            label: `another: ${inSentence(set.name)}`,
          })),
        ]}
        onPick={(set) => {
          const next: Wish = {
            ...wish,
            box: set === "" ? null : { name: wish.box?.name ?? "New box", bays, rules: { set: set as RuleSetId } },
          };
          onChange({ ...next, layout: bestLayoutFor(next, setting) ?? next.layout });
        }}
      />
      {wish.box && (
        <TextField
          label="Its bays"
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
      )}
    </>
  );
}

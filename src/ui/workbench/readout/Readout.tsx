"use client";

import Link from "next/link";
import { useState } from "react";
import { formatBytes, formatChange, formatExactBytes, showBytes } from "@/core/bytes/formatBytes";
import { boxFindings } from "@/core/prediction/boxFindings";
import { boxScreen } from "@/core/prediction/boxScreen";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { storageTotal } from "@/core/prediction/storageTotal";
import { nameOfSplit } from "@/core/prediction/nameOfSplit";
import { rulesOf } from "@/core/rules/ruleSets";
import { Button } from "../../kit/Button";
import { Explained } from "../../kit/Explained";
import { NameField } from "../../kit/NameField";
import { CHANCES_AFTER, useAfter } from "../../kit/useAfter";
import { useUnit } from "../../preferences/preferences";
import type { LastChange } from "../lastChange";
import { useWorkbench } from "../useWorkbench";
import { Findings } from "./Findings";
import { Ledger } from "./Ledger";
import { Survival } from "./Survival";
import { toleranceWords } from "./words";
import { part } from "../../kit/part";
import { hasParitySchedule } from "@/core/layouts/hasParitySchedule";

const TimesDialog = part(() => import("./TimesDialog").then((module) => module.TimesDialog), {
  said: "over",
});
const OneOf = part(() => import("../../kit/OneOf").then((module) => module.OneOf));
const StepReadout = part(() => import("../time/StepReadout").then((module) => module.StepReadout));
const VolumesDialog = part(() => import("./VolumesDialog").then((module) => module.VolumesDialog), {
  said: "over",
});
const WaterfallDialog = part(() => import("./WaterfallDialog").then((module) => module.WaterfallDialog), {
  said: "over",
});

/** What the usable figure is of. */
const usableHeading = (storage: number, pools: number): string =>
  storage > 1 ? `Usable in ${storage} pools` : storage < pools ? "Usable, without the landing place" : "Usable";

/** What you get, what is survived, what is wrong, and where the bytes went. */
export function Readout({ lastChange }: { lastChange: LastChange | null }) {
  const { plan, prediction, at, failed } = useWorkbench();
  const [chosen, setChosen] = useState<string | null>(null);
  const { pools } = prediction;
  const pool = pools.find((each) => each.id === chosen) ?? pools[0] ?? null;
  return (
    <section aria-labelledby="readout-heading" className="flex flex-col gap-2.5 px-4 py-3">
      {at > 0 && <StepReadout />}
      {(failed.size > 0 || pools.some(isLacking)) && <LostPools />}
      <Usable lastChange={lastChange} />
      <Findings findings={boxFindings(plan)} />
      {!pool && (
        <p className="border-t border-line pt-4 text-soft">
          No pool yet. Select the drives that should work together and press “Make a group”; the menu says what each
          layout would hold.
        </p>
      )}
      {pools.length > 1 && pool && (
        <OneOf
          label="Pool"
          value={pool.id}
          options={pools.map((each) => ({ value: each.id, label: each.name || each.id }))}
          onChange={setChosen}
        />
      )}
      {pool && <PoolReadout key={pool.id} pool={pool} alone={pools.length === 1} />}
    </section>
  );
}

/** The usable figure, and how it has changed. */
function Usable({ lastChange }: { lastChange: LastChange | null }) {
  const { plan, prediction } = useWorkbench();
  const [unit] = useUnit();
  const { pools } = prediction;
  const total = storageTotal(plan, pools);
  const storage = plan.pools.filter((each) => each.landsFor === undefined).length;
  const shown = showBytes(total, unit);
  const other = unit === "TB" ? "TiB" : "TB";
  return (
    <div>
      <h2 id="readout-heading" className="text-soft">
        {usableHeading(storage, pools.length)}
      </h2>
      <p className="font-serif leading-none" title={formatExactBytes(total)}>
        <span className="text-[2.9rem] tracking-tight" data-testid="usable-figure">
          {shown.figure}
        </span>
        <span className="ml-1.5 text-2xl">{shown.unit}</span>
      </p>
      {total > 0 && (
        <p className="mt-1.5 text-soft">
          {formatBytes(total, other)} is the same in{" "}
          <Explained text={other === "TiB" ? "binary units" : "decimal units"} />. Your box will show “
          {boxScreen(total, rulesOf(plan.box.rules))}”.
        </p>
      )}
      <p className="mt-1">
        {lastChange && (
          <>
            {/* What is against another moment is no act's doing. */}
            <strong className="font-semibold" data-change={(!lastChange.since && lastChange.bytes) || undefined}>
              {lastChange.bytes === 0 ? "No change" : formatChange(lastChange.bytes, unit)}
            </strong>{" "}
            <span className="text-soft">
              {lastChange.since ? `against ${lastChange.since}` : `since you ${lastChange.description}`}.
            </span>
          </>
        )}
      </p>
    </div>
  );
}

const ChanceLine = part(() => import("../../chance/ChanceLine").then((module) => module.ChanceLine));
const Schedule = part(() => import("./Schedule").then((module) => module.Schedule));

/** The layout that a pool's groups share, as one would call it; null where they differ. */
function kindOfPool({ groups }: PoolPrediction): string | null {
  const [first] = groups;
  if (!first) return null;
  const alike = groups.every((group) => group.layout === first.layout && group.drives.length === first.drives.length);
  return alike ? nameOfSplit(first.layout, groups.length, first.drives.length) : null;
}

function PoolReadout({ pool, alone }: { pool: PoolPrediction; alone: boolean }) {
  const { plan, act, rescueHref } = useWorkbench();
  const own = plan.pools.find(({ id }) => id === pool.id);
  const [open, setOpen] = useState<"waterfall" | "volumes" | "times" | null>(null);
  const close = () => setOpen(null);
  const isSettled = useAfter(CHANCES_AFTER);
  const [unit] = useUnit();
  const kind = kindOfPool(pool);
  return (
    <>
      <div className="flex items-baseline justify-between gap-2 border-t border-line pt-2">
        <NameField
          label="Name of the pool"
          value={pool.name}
          onChange={(name) => act({ kind: "rename-pool", pool: pool.id, name })}
          className="-ml-1.5 flex-1 font-semibold"
        />
        {kind && <span className="text-soft">{kind}</span>}
        {!alone && <span>{formatBytes(pool.usableBytes, unit)}</span>}
      </div>
      <Protection pool={pool} />
      {isSettled && <ChanceLine pool={pool.id} />}
      {own && hasParitySchedule(own, rulesOf(plan.box.rules)) && <Schedule pool={own} />}
      {/* What state it is in stands above them. */}
      <Findings findings={pool.findings.filter(({ code }) => !STATES.has(code))} />
      <Ledger entries={pool.ledger} hasVolumes={pool.volumes.length > 0} />
      <div className="-mt-2 flex flex-wrap gap-1">
        <Button small onClick={() => setOpen("waterfall")}>
          Waterfall
        </Button>
        <Button small onClick={() => setOpen("volumes")}>
          Volumes
        </Button>
        <Button small onClick={() => setOpen("times")}>
          Times and speed
        </Button>
        <Link
          href={`${rescueHref}?pool=${pool.id}`}
          className={
            "inline-flex h-7 items-center rounded border border-line-strong/60 bg-raised px-2 text-[0.87rem] " +
            "hover:border-ink"
          }
        >
          Something is wrong…
        </Link>
      </div>
      <Survival
        survival={pool.survival}
        independent={pool.groups.every((group) => group.bands.every((band) => band.independent))}
      />
      {open === "waterfall" && <WaterfallDialog pool={pool} onClose={close} />}
      {open === "volumes" && <VolumesDialog pool={pool} onClose={close} />}
      {open === "times" && <TimesDialog pool={pool} onClose={close} />}
    </>
  );
}

const LostPools = part(() => import("./StateOfPool").then((module) => module.LostPools));
const StateOfPool = part(() => import("./StateOfPool").then((module) => module.StateOfPool));

/** Whether a pool lacks a drive in fact. */
const isLacking = (pool: PoolPrediction) => pool.condition.state !== "whole";

/**
 * The loss of how many drives is survived; where drives have failed in fact, or in a what-if, what has become of the
 * pool and of the box's own system. Which of the two it is stands above it.
 */
function Protection({ pool }: { pool: PoolPrediction }) {
  const { plan, at, failed, rescueHref } = useWorkbench();
  const lacks = isLacking(pool);
  const isWhatIf = failed.size > 0;
  const words = isWhatIf || lacks ? null : toleranceWords(plan, pool);
  const isAsked = at === 0 && (lacks || pool.findings.some(({ code }) => RESCUED.has(code)));
  return (
    <div aria-live="polite" className={FRAMES[isWhatIf ? "what-if" : lacks ? "fact" : "whole"]}>
      {isWhatIf && <p className="text-[0.87rem] font-semibold text-soft">What if</p>}
      {words ? (
        <>
          <h3 className="font-serif text-lg">{words.heading}</h3>
          <p className="mt-0.5 text-[0.95rem] text-soft">
            <Explained text={words.then} />
          </p>
        </>
      ) : (
        <StateOfPool pool={pool} />
      )}
      {isAsked && (
        <Link
          href={`${rescueHref}?pool=${pool.id}`}
          className="mt-2 inline-flex h-9 items-center rounded bg-indigo px-3 text-on-indigo hover:bg-indigo-strong"
        >
          What to do now
        </Link>
      )}
    </div>
  );
}

/** Findings that say what the read-out says above them. */
const STATES: ReadonlySet<string> = new Set(["pool-degraded", "pool-partly-lost", "pool-lost"]);

/** A what-if has a dashed frame, a fact a solid edge: they are told apart at a glance, also without colour. */
const FRAMES = {
  "what-if": "rounded border border-dashed border-line-strong px-2.5 py-1.5",
  fact: "border-l-4 border-geranium pl-2.5",
  whole: "",
};

/** Findings that lead to what to do now, where the pool lacks no drive. */
const RESCUED: ReadonlySet<string> = new Set(["drive-failing", "drive-gets-worse", "spare-gone"]);

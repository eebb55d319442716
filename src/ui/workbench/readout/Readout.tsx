"use client";

import { useState } from "react";
import { formatBytes, formatChange, formatExactBytes, showBytes } from "@/core/bytes/formatBytes";
import { fateOf } from "@/core/failures/fate";
import { boxFindings } from "@/core/prediction/boxFindings";
import { boxScreen } from "@/core/prediction/boxScreen";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { storageTotal } from "@/core/prediction/storageTotal";
import { nameOfSplit } from "@/core/prediction/splitChoices";
import { rulesOf } from "@/core/rules/ruleSets";
import { Button } from "../../kit/Button";
import { NameField } from "../../kit/NameField";
import { Segmented } from "../../kit/Segmented";
import { useUnit } from "../../preferences/preferences";
import type { LastChange } from "../lastChange";
import { useWorkbench } from "../useWorkbench";
import { Findings } from "./Findings";
import { Ledger } from "./Ledger";
import { Survival } from "./Survival";
import { fateWords, systemWords, toleranceWords } from "./words";
import { part } from "../../kit/part";

const TimesDialog = part(() => import("./TimesDialog").then((module) => module.TimesDialog), {
  needed: "this",
  said: "over",
});
const StepReadout = part(() => import("../time/StepReadout").then((module) => module.StepReadout));
const VolumesDialog = part(() => import("./VolumesDialog").then((module) => module.VolumesDialog), {
  needed: "this",
  said: "over",
});
const WaterfallDialog = part(() => import("./WaterfallDialog").then((module) => module.WaterfallDialog), {
  needed: "this",
  said: "over",
});

/** What the usable figure is of. */
const usableHeading = (storage: number, pools: number): string =>
  storage > 1 ? `Usable in ${storage} pools` : storage < pools ? "Usable, without the landing place" : "Usable";

/** What you get, what may fail, what is wrong, and where the bytes went. */
export function Readout({ lastChange }: { lastChange: LastChange | null }) {
  const { plan, prediction, at } = useWorkbench();
  const [unit] = useUnit();
  const [chosen, setChosen] = useState<string | null>(null);
  const { pools } = prediction;
  const pool = pools.find((each) => each.id === chosen) ?? pools[0] ?? null;
  const total = storageTotal(plan, pools);
  const storage = plan.pools.filter((each) => each.landsFor === undefined).length;
  const shown = showBytes(total, unit);
  const other = unit === "TB" ? "TiB" : "TB";
  return (
    <section aria-labelledby="readout-heading" className="flex flex-col gap-3 p-4">
      {at > 0 && <StepReadout />}
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
            {formatBytes(total, other)} is the same in {other === "TiB" ? "binary" : "decimal"} units. Your box will
            show “{boxScreen(total, rulesOf(plan.box.rules))}”.
          </p>
        )}
        <p aria-live="polite" className="mt-1">
          {lastChange && (
            <>
              <strong className="font-semibold">
                {lastChange.bytes === 0 ? "No change" : formatChange(lastChange.bytes, unit)}
              </strong>{" "}
              <span className="text-soft">
                {lastChange.since ? `against ${lastChange.since}` : `since you ${lastChange.description}`}.
              </span>
            </>
          )}
        </p>
      </div>
      <Findings findings={boxFindings(plan)} />
      {!pool && (
        <p className="border-t border-line pt-4 text-soft">
          No pool yet. Select the drives that should work together and press “Make a group”; the menu says what each
          layout would hold.
        </p>
      )}
      {pools.length > 1 && pool && (
        <Segmented
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

/** The layout that a pool's groups share, as one would call it; null where they differ. */
function kindOfPool({ groups }: PoolPrediction): string | null {
  const [first] = groups;
  if (!first) return null;
  const alike = groups.every((group) => group.layout === first.layout && group.drives.length === first.drives.length);
  return alike ? nameOfSplit(first.layout, groups.length, first.drives.length) : null;
}

function PoolReadout({ pool, alone }: { pool: PoolPrediction; alone: boolean }) {
  const { act } = useWorkbench();
  const [open, setOpen] = useState<"waterfall" | "volumes" | "times" | null>(null);
  const close = () => setOpen(null);
  const [unit] = useUnit();
  const kind = kindOfPool(pool);
  return (
    <>
      <div className="flex items-baseline justify-between gap-2 border-t border-line pt-3">
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
      <Findings findings={pool.findings} />
      <Ledger entries={pool.ledger} hasVolumes={pool.volumes.length > 0} />
      <div className="-mt-1 flex flex-wrap gap-1.5">
        <Button small onClick={() => setOpen("waterfall")}>
          Waterfall
        </Button>
        <Button small onClick={() => setOpen("volumes")}>
          Volumes
        </Button>
        <Button small onClick={() => setOpen("times")}>
          Times and speed
        </Button>
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

const TONES = { whole: "", degraded: "text-ochre-text", lost: "text-geranium" };

/** How many drives may fail; in a what-if, what has become of the pool and of the box's own system. */
function Protection({ pool }: { pool: PoolPrediction }) {
  const { plan, failed } = useWorkbench();
  const bands = pool.groups.flatMap((group) => group.bands);
  const isWhatIf = failed.size > 0;
  const words = isWhatIf
    ? fateWords(plan, fateOf(bands, failed))
    : { ...toleranceWords(plan, pool), tone: "whole" as const };
  const system = isWhatIf ? systemWords(plan, failed) : null;
  return (
    <div aria-live="polite">
      <h3 className={`font-serif text-lg ${TONES[words.tone]}`}>{words.heading}</h3>
      <p className="mt-0.5 text-[0.95rem] text-soft">{words.then}</p>
      {system && <p className="mt-0.5 text-[0.95rem] text-soft">{system}</p>}
    </div>
  );
}

"use client";

import { useMemo, useState } from "react";
import type { Drive, Plan } from "@/core/document/plan";
import { shortSize } from "@/core/drives/nameOfDrive";
import { conditionOf } from "@/core/box/condition";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import { SmallTerraces } from "../compare/SmallTerraces";
import { SMALL, terraceGeometry } from "../workbench/terraces/geometry";
import { stateWords } from "../workbench/readout/stateWords";
import { toleranceWords } from "../workbench/readout/words";
import { useSize } from "../kit/useSize";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";
import { stage, type Outlined } from "./stage";

const MOST_WIDTH = 360;
const HEIGHT = 150;
const TONES = { whole: "", degraded: "text-ochre-text", lost: "text-geranium" };

/** A layout on some drives, as terraces in which a press fails a drive and shows what that does. */
export function LivePicture({ choice, drives, plan }: { choice: Outlined; drives: readonly Drive[]; plan: Plan }) {
  const [unit] = useUnit();
  const [frame, size] = useSize<HTMLDivElement>();
  const width = size?.width ?? MOST_WIDTH;
  const [failed, setFailed] = useState<ReadonlySet<string>>(new Set());
  const staged = useMemo(() => stage(choice, drives, plan), [choice, drives, plan]);
  const pools = useMemo(() => [choice.pool], [choice.pool]);
  const { columns } = useMemo(
    () => terraceGeometry(staged, { pools }, { width, height: HEIGHT }, "TB", SMALL),
    [staged, pools, width],
  );
  const [pool] = staged.pools;
  const toggle = (id: string) => {
    const next = new Set(failed);
    if (!next.delete(id)) next.add(id);
    setFailed(next);
  };
  const said =
    failed.size === 0 || !pool
      ? { ...toleranceWords(staged, choice.pool), tone: "whole" as const }
      : stateWords(staged, conditionOf(staged, pool, rulesOfBox(staged), undefined, failed));
  return (
    <div className="min-w-0">
      <p id="live-hint" className="text-[0.93rem] text-soft">
        Press a drive to see what happens when it fails.
      </p>
      <div ref={frame} style={{ maxWidth: MOST_WIDTH }}>
        <div className="relative" style={{ width, height: HEIGHT }}>
          <SmallTerraces plan={staged} pools={pools} width={width} height={HEIGHT} failed={failed} />
          {columns.map(({ drive, bay, x, width: across }) =>
            drive ? (
              <button
                key={drive.id}
                type="button"
                aria-pressed={failed.has(drive.id)}
                aria-label={`Fail drive ${bay}, ${shortSize(drive, unit)}`}
                aria-describedby="live-hint"
                onClick={() => toggle(drive.id)}
                className="absolute top-0 rounded hover:bg-ink/10"
                style={{ left: x - 2, width: Math.max(24, across + 4), height: HEIGHT }}
              />
            ) : null,
          )}
        </div>
      </div>
      <div className="mt-1 min-h-20" role="status">
        <p className={`font-semibold ${TONES[said.tone]}`}>{said.heading}</p>
        <p>{said.then}</p>
      </div>
      <Button small disabled={failed.size === 0} onClick={() => setFailed(new Set())}>
        All drives work again
      </Button>
    </div>
  );
}

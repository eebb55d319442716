"use client";

import { useMemo } from "react";
import { useSize } from "../kit/useSize";
import { useUnit } from "../preferences/preferences";
import { BayRow } from "./BayRow";
import { GroupRuns } from "./GroupRuns";
import { describeBand } from "./terraces/describeBand";
import { terraceGeometry } from "./terraces/geometry";
import { Legend } from "./terraces/Legend";
import { Terraces } from "./terraces/Terraces";
import type { SwatchKind } from "../kit/Swatch";
import { useWorkbench } from "./useWorkbench";

const ORDER: readonly SwatchKind[] = ["data", "copies", "parity", "spare", "idle", "reserve"];

/** The terraces over the bays, with the groups' brackets and what the patterns mean. */
export function BoxPicture() {
  const { plan, prediction, failed, toggleFailed, lit, light } = useWorkbench();
  const [unit] = useUnit();
  const [ref, size] = useSize<HTMLDivElement>();
  const geometry = useMemo(() => (size ? terraceGeometry(plan, prediction, size, unit) : null), [plan, prediction, size, unit]);
  const kinds = ORDER.filter((kind) => geometry?.columns.some((column) => column.segments.some((segment) => segment.kind === kind)));
  const group = prediction.pools.flatMap((pool) => pool.groups).find((each) => each.id === lit?.group);
  const band = lit && group?.bands[lit.index];
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col overflow-x-auto overflow-y-hidden">
        <div ref={ref} className="relative min-h-52 flex-1">
          <div className="absolute inset-0">{geometry && <Terraces plan={plan} prediction={prediction} geometry={geometry} failed={failed} onToggleFailed={toggleFailed} lit={lit} onLight={light} />}</div>
        </div>
        {geometry && (
          <>
            <BayRow columns={geometry.columns} width={geometry.width} />
            <GroupRuns geometry={geometry} />
          </>
        )}
      </div>
      <div className="min-h-11 pt-1" aria-live="polite">
        {band && group && lit ? <p className="text-[0.93rem]">{describeBand(band, lit.index, group.bands.length, unit)}</p> : <Legend kinds={kinds} />}
      </div>
    </>
  );
}

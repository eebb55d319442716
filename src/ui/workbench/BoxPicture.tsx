"use client";

import { useMemo, useState } from "react";
import { changesBetween, type BandChange } from "@/core/walk/bandChanges";
import { useSize } from "../kit/useSize";
import { useUnit } from "../preferences/preferences";
import { BayRow } from "./BayRow";
import { GroupRuns } from "./GroupRuns";
import { describeBand } from "./terraces/describeBand";
import { terraceGeometry } from "./terraces/geometry";
import { Ghost } from "./terraces/Ghost";
import { Legend } from "./terraces/Legend";
import { hurtBands, Terraces } from "./terraces/Terraces";
import type { SwatchKind } from "../kit/Swatch";
import { useWorkbench } from "./useWorkbench";

const NONE: ReadonlyMap<string, string> = new Map();
const CHANGED: Record<BandChange["kind"], string> = {
  new: "new",
  grown: "grown",
  wider: "wider",
  moved: "changed",
  shrunk: "lower",
  gone: "",
};

const ORDER: readonly SwatchKind[] = ["data", "copies", "parity", "spare", "cache", "log", "idle", "reserve", "lost"];

/** The terraces over the bays, with the groups' brackets and what the patterns mean. */
export function BoxPicture() {
  const { plan, prediction, failed, toggleFailed, lit, light, askNextDrive, walk, at } = useWorkbench();
  const [unit] = useUnit();
  const [ref, size] = useSize<HTMLDivElement>();
  const geometry = useMemo(
    () => (size ? terraceGeometry(plan, prediction, size, unit) : null),
    [plan, prediction, size, unit],
  );
  const changes = useMemo(() => {
    const [before, moment] = [walk.moments[at - 1], walk.moments[at]];
    if (!before || !moment?.walked?.done) return NONE;
    return new Map(
      changesBetween(before.state.plan, moment.state.plan)
        .filter((change) => change.kind !== "gone")
        .map((change) => [`${change.group}/${change.index}`, CHANGED[change.kind]]),
    );
  }, [walk, at]);
  const [ghost, setGhost] = useState<string | null>(null);
  const free = geometry?.columns.find((column) => column.drive === null);
  const [pool] = plan.pools;
  const hurt = useMemo(() => hurtBands(plan, prediction, failed), [plan, prediction, failed]);
  const isLost = [...hurt.values()].includes("lost");
  const kinds = ORDER.filter(
    (kind) =>
      (kind === "lost" && isLost) ||
      geometry?.columns.some((column) => column.segments.some((segment) => segment.kind === kind)),
  );
  const group = prediction.pools.flatMap((pool) => pool.groups).find((each) => each.id === lit?.group);
  const band = lit && group?.bands[lit.index];
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col overflow-auto">
        <div ref={ref} className="relative min-h-36 flex-1">
          <div className="absolute inset-0">
            {geometry && (
              <Terraces
                plan={plan}
                prediction={prediction}
                geometry={geometry}
                failed={failed}
                hurt={hurt}
                changes={changes}
                onToggleFailed={toggleFailed}
                lit={lit}
                onLight={light}
              />
            )}
            {geometry && free && pool && (
              <Ghost plan={plan} pool={pool} column={free} geometry={geometry} onSay={setGhost} onOpen={askNextDrive} />
            )}
          </div>
        </div>
        {geometry && (
          <>
            <BayRow columns={geometry.columns} width={geometry.width} />
            <GroupRuns geometry={geometry} />
          </>
        )}
      </div>
      <div className="min-h-11 pt-1" aria-live="polite">
        {ghost ? (
          <p className="text-[0.93rem]">{ghost}</p>
        ) : band && group && lit ? (
          <p className="text-[0.93rem]">{describeBand(group.bands, lit.index, unit)}</p>
        ) : (
          <Legend kinds={kinds} />
        )}
      </div>
    </>
  );
}

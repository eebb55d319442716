"use client";

import { Pencil, Plus } from "lucide-react";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";
import type { Coverage } from "@/core/data/coverage";
import { growthWords, WORTH_WORDS } from "@/core/data/dataWords";
import type { DataSet, Plan } from "@/core/document/plan";
import { Button, IconButton } from "../kit/Button";
import { part } from "../kit/part";
import { useUnit } from "../preferences/preferences";
import { CoveragePicture } from "./CoveragePicture";

const DataSetChance = part(() => import("./DataSetChance").then((module) => module.DataSetChance));

interface Props {
  plan: Plan;
  /** The plan once all its steps are done. */
  end: Plan;
  before: readonly Coverage[];
  after: readonly Coverage[];
  /** Asks for one of them, or for a new one. */
  onEdit: (set: DataSet | null) => void;
}

/** What is stored, and what each failure would take of it. */
export function DataSets({ plan, onEdit, ...coverages }: Props) {
  const sets = plan.dataSets ?? [];
  return (
    <section aria-labelledby="sets">
      <div className="flex items-center gap-3 border-b border-line pb-1">
        <h2 id="sets" className="flex-1 font-serif text-lg">
          What is stored
        </h2>
        <Button small onClick={() => onEdit(null)}>
          <Plus size={14} aria-hidden /> Add data
        </Button>
      </div>
      {sets.length === 0 && (
        <p className="py-3 text-soft">
          Say what is on your volumes, how large it is, and whether it could be had again. Then you see here what one
          failed drive, two, a fire, or a slip of the hand would take, and when the pool is full.
        </p>
      )}
      <ul aria-label="Data sets">
        {sets.map((set) => (
          <DataSetRow key={set.id} set={set} plan={plan} onEdit={onEdit} {...coverages} />
        ))}
      </ul>
    </section>
  );
}

const driveName = (plan: Plan, id: string, unit: UnitFamily): string => {
  const drive = plan.drives.find((each) => each.id === id);
  return drive ? nameOfDrive(drive, unit) : "a drive that is gone";
};

function DataSetRow({ set, plan, end, before, after, onEdit }: Props & { set: DataSet }) {
  const [unit] = useUnit();
  const of = (coverages: readonly Coverage[]) => coverages.find((each) => each.dataSet === set.id);
  const was = of(before);
  return (
    <li className="border-b border-line py-2.5">
      <div className="flex items-start gap-2">
        <p className="min-w-0 flex-1">
          <strong className="font-semibold">{set.name}</strong> {formatBytes(set.bytes, unit)}, {growthWords(set, unit)}{" "}
          {set.drive !== undefined && <span className="text-soft">on {driveName(plan, set.drive, unit)}; </span>}
          <span className={set.worth === "precious" ? "text-ochre-text" : "text-soft"}>{WORTH_WORDS[set.worth]}</span>
        </p>
        <IconButton label={`Edit ${set.name}`} onClick={() => onEdit(set)}>
          <Pencil size={15} aria-hidden />
        </IconButton>
      </div>
      {was && (
        <CoveragePicture
          before={was}
          after={of(after) ?? was}
          plan={plan}
          end={end}
          planned={plan.steps.length > 0}
          matters={set.worth !== "replaceable"}
        />
      )}
      {set.volume !== undefined && <DataSetChance plan={plan} steps={plan.steps.length} set={set.id} />}
    </li>
  );
}

"use client";

import { inText } from "@/core/layouts/inText";
import { chunkCopiesOf } from "@/core/layouts/chunks";

import { useState } from "react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { nameOfDriveFirst } from "@/core/drives/nameOfDrive";
import type { GroupPrediction } from "@/core/prediction/predictGroup";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { layoutOf } from "@/core/layouts/registry";
import { hoursWords } from "@/core/time/hoursWords";
import { rulesOf } from "@/core/rules/ruleSets";
import { NETWORKS, type SpeedLimit, speedOf } from "@/core/speeds/speed";
import { Dialog } from "../../kit/Dialog";
import { Segmented } from "../../kit/Segmented";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";

/** How long a rebuild of each drive takes, and how fast the pool is. All of it is an estimate and says so. */
export function TimesDialog({ pool, onClose }: { pool: PoolPrediction; onClose: () => void }) {
  const [network, setNetwork] = useState<string>(NETWORKS[0].name);
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Times and speed of ${pool.name}`}
      about={
        "Estimates from the usual rates of such drives: first what is likely, then from when all goes well to " +
        "when the box is busy."
      }
    >
      {pool.groups.map((group) => (
        <GroupTimes key={group.id} group={group} />
      ))}
      <div className="mt-6 flex flex-wrap items-center gap-3">
        <h3 className="font-serif text-lg">Speed over the network</h3>
        <Segmented
          label="Network"
          value={network}
          onChange={setNetwork}
          options={NETWORKS.map(({ name }) => ({ value: name, label: name }))}
        />
      </div>
      {pool.groups.map((group) => (
        <GroupSpeed
          key={group.id}
          group={group}
          rate={NETWORKS.find(({ name }) => name === network)?.rate ?? NETWORKS[0].rate}
        />
      ))}
    </Dialog>
  );
}

function GroupTimes({ group }: { group: GroupPrediction }) {
  const { plan } = useWorkbench();
  const [unit] = useUnit();
  return (
    <>
      {group.tolerance > 0 && (
        <p className="mb-3">
          {group.firstFill
            ? `When the ${inText(layoutOf(group.layout))} group is made, its first fill takes ` +
              `${hoursWords(group.firstFill)}; until that has ended, a failed drive would lose data.`
            : `When the ${inText(layoutOf(group.layout))} group is made, nothing has to be filled: what is ` +
              "written is protected as it is written."}
        </p>
      )}
      <table className="mb-4 w-full text-[0.95rem]">
        <caption className="pb-1 text-left font-serif text-lg">
          If a drive of the {inText(layoutOf(group.layout))} group is replaced
        </caption>
        <thead>
          <tr className="border-b border-line text-left text-soft">
            <th scope="col" className="py-1 font-normal">
              Drive
            </th>
            <th scope="col" className="py-1 font-normal">
              Rebuild
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              Written
            </th>
            <th scope="col" className="py-1 pl-4 font-normal">
              Extended self-test
            </th>
          </tr>
        </thead>
        <tbody>
          {group.rebuilds.map((rebuild) => {
            const drive = plan.drives.find((each) => each.id === rebuild.drive);
            return (
              <tr key={rebuild.drive} className="border-b border-line">
                <th scope="row" className="py-1 pr-3 text-left font-normal">
                  {drive ? nameOfDriveFirst(drive, unit) : rebuild.drive}
                </th>
                <td className="py-1 pr-3 whitespace-nowrap">
                  {rebuild.hours ? hoursWords(rebuild.hours) : "cannot be rebuilt"}
                </td>
                <td className="py-1 text-right whitespace-nowrap">
                  {rebuild.hours ? formatBytes(rebuild.writes, unit) : "–"}
                </td>
                <td className="py-1 pl-4 whitespace-nowrap">{hoursWords(rebuild.selfTest)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

function GroupSpeed({ group, rate }: { group: GroupPrediction; rate: number }) {
  const { plan } = useWorkbench();
  const drives = plan.drives.filter((drive) => group.drives.includes(drive.id));
  const copies = chunkCopiesOf(layoutOf(group.layout));
  const speed = speedOf(group.bands, drives, rate, rulesOf(plan.box.rules), copies);
  if (!speed) return null;
  const words = (bytes: number, limit: SpeedLimit) => `${Math.round(bytes / 1e6)} MB/s, held back by the ${limit}`;
  return (
    <p className="mt-2">
      {layoutOf(group.layout).shortName}: long reads about {words(speed.read, speed.readLimit)}; long writes about{" "}
      {words(speed.write, speed.writeLimit)}.
    </p>
  );
}

"use client";

import { useState, type FormEvent } from "react";
import { formatBytes, formatExactBytes } from "@/core/bytes/formatBytes";
import { parseSize } from "@/core/bytes/parseSize";
import type { Bytes } from "@/core/bytes/bytes";
import { isSeparate } from "@/core/layouts/isSeparate";
import { layoutOf } from "@/core/layouts/registry";
import type { FileSystem, Plan, Volume } from "@/core/document/plan";
import { BTRFS_METADATA } from "@/core/ledger/fileSystem";
import { DEFAULT_HEADROOM } from "@/core/ledger/volumes";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { Choice, TextField } from "../../kit/Field";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";

const FILE_SYSTEMS: { value: FileSystem; label: string }[] = [
  { value: "ext4", label: "ext4" },
  { value: "xfs", label: "XFS" },
  { value: "btrfs", label: "Btrfs" },
  { value: "none", label: "none" },
];

/** The volumes of a pool: how large, which file system, what is on them, what to keep free. */
export function VolumesDialog({ pool, onClose }: { pool: PoolPrediction; onClose: () => void }) {
  const { plan, act } = useWorkbench();
  const [unit] = useUnit();
  const volumes = plan.pools.find((each) => each.id === pool.id)?.volumes ?? [];
  const given = pool.volumes.reduce((sum, volume) => sum + volume.bytes, 0);
  const rest = pool.usableBytes - given;
  const separate = separateDrives(plan, pool);
  const addEach = () => {
    for (const { name, bytes } of separate)
      act({ kind: "add-volume", pool: pool.id, volume: { name, bytes, fileSystem: "btrfs" } });
  };
  const add = () =>
    act({
      kind: "add-volume",
      pool: pool.id,
      volume: { name: `Volume ${volumes.length + 1}`, bytes: rest, fileSystem: "btrfs" },
    });
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Volumes of ${pool.name}`}
      about={`Of ${formatBytes(pool.usableBytes, unit)} usable, ${formatBytes(rest, unit)} are not given to a volume.`}
      acts={
        <Button look="main" onClick={onClose}>
          Done
        </Button>
      }
    >
      {volumes.length === 0 && (
        <p className="text-soft">
          There is no volume yet. Add one to see what its file system takes, and how much is left to fill.
        </p>
      )}
      {volumes.map((volume) => (
        <VolumeForm key={volume.id} volume={volume} most={volume.bytes + rest} pool={pool} />
      ))}
      {separate.length > 1 && volumes.length === 0 ? (
        <Button onClick={addEach} className="mt-3">
          Add a volume for each of the {separate.length} drives
        </Button>
      ) : (
        <Button onClick={add} disabled={rest <= 0} className="mt-3">
          Add a volume of the rest
        </Button>
      )}
    </Dialog>
  );
}

/** The drives of a pool of separate drives, each with the volume that it can have for itself; none of another pool. */
function separateDrives(plan: Plan, { groups }: PoolPrediction): { name: string; bytes: Bytes }[] {
  const [group] = groups;
  if (groups.length !== 1 || !group || !isSeparate(layoutOf(group.layout))) return [];
  return group.rooms.map((room, i) => {
    const drive = plan.drives.find(({ id }) => id === room.drive);
    return {
      name: drive?.label || `Volume ${i + 1}`,
      bytes: Math.min(room.length, drive?.fileSystemBytes ?? Infinity),
    };
  });
}

function VolumeForm({ volume, most, pool }: { volume: Volume; most: number; pool: PoolPrediction }) {
  const { act } = useWorkbench();
  const [unit] = useUnit();
  const [trouble, setTrouble] = useState<string | null>(null);
  const figures = pool.volumes.find((each) => each.volume === volume.id);
  const onSubmit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const text = (name: string) => String(data.get(name) ?? "").trim();
    const size = parseSize(text("size"));
    const used = text("used") === "" ? null : parseSize(text("used"));
    const share = (name: string) => Number(text(name).replace(",", ".")) / 100;
    const [free, reserved] = [share("free"), share("reserved")];
    if (!size.ok) return setTrouble(size.message);
    if (used && !used.ok) return setTrouble(used.message);
    if (!(free >= 0 && free <= 0.9)) return setTrouble("Keep between 0 and 90 % free.");
    if (!(reserved >= 0 && reserved <= 0.9)) return setTrouble("Keep between 0 and 90 % for snapshots.");
    setTrouble(
      act({
        kind: "edit-volume",
        pool: pool.id,
        volume: volume.id,
        changes: {
          name: text("name").slice(0, 120),
          bytes: size.size.bytes,
          fileSystem: text("fs") as FileSystem,
          headroomShare: free,
          reservedShare: reserved,
          ...(used?.ok ? { usedBytes: used.size.bytes } : {}),
        },
      }),
    );
  };
  return (
    <form
      onSubmit={onSubmit}
      aria-label={volume.name}
      className="mb-4 border-b border-line pb-4"
      key={`${volume.bytes}-${volume.fileSystem}`}
    >
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        <TextField label="Name" name="name" defaultValue={volume.name} />
        <TextField label="Size" name="size" defaultValue={formatExactBytes(volume.bytes)} />
        <Choice label="File system" name="fs" defaultValue={volume.fileSystem} options={FILE_SYSTEMS} />
        <TextField
          label="Used today"
          name="used"
          defaultValue={volume.usedBytes === undefined ? "" : formatExactBytes(volume.usedBytes)}
          placeholder="3.2 TB"
        />
        <TextField
          label="Keep free, %"
          name="free"
          defaultValue={Math.round((volume.headroomShare ?? DEFAULT_HEADROOM) * 100)}
          inputMode="decimal"
        />
        <TextField
          label="For snapshots or the system, %"
          name="reserved"
          defaultValue={Math.round((volume.reservedShare ?? 0) * 1000) / 10}
          inputMode="decimal"
        />
      </div>
      {trouble && (
        <p role="alert" className="mt-1 text-geranium">
          {trouble}
        </p>
      )}
      {figures && (
        <p className="mt-2 text-[0.93rem] text-soft">
          {figures.reserved > 0
            ? `For snapshots or the system ${formatBytes(figures.reserved, unit)}, file system `
            : "File system "}
          {formatBytes(figures.structures, unit)}
          {figures.notGrown > 0 ? `, not grown into yet ${formatBytes(figures.notGrown, unit)}` : ""}
          {figures.rootReserve > 0 ? `, for root ${formatBytes(figures.rootReserve, unit)}` : ""}, kept free{" "}
          {formatBytes(figures.headroom, unit)}, used {formatBytes(figures.used, unit)},{" "}
          <strong className="font-semibold text-ink">left {formatBytes(figures.left, unit)}</strong>.
          {volume.fileSystem === "btrfs" &&
            ` Its metadata is an estimate: ${BTRFS_METADATA.low * 100} to ${BTRFS_METADATA.high * 100} % of ` +
              "what is stored."}
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button small type="submit" look="main">
          Save
        </Button>
        <Button
          small
          disabled={volume.bytes === most}
          onClick={() => act({ kind: "edit-volume", pool: pool.id, volume: volume.id, changes: { bytes: most } })}
        >
          As large as fits
        </Button>
        <Button small onClick={() => act({ kind: "remove-volume", pool: pool.id, volume: volume.id })}>
          Remove
        </Button>
      </div>
    </form>
  );
}

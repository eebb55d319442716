"use client";

import { Checkbox } from "radix-ui";
import { useState } from "react";
import type { Drive, NewDrive } from "@/core/document/plan";
import { nameOfDriveFirst } from "@/core/drives/nameOfDrive";
import { counted, plural } from "@/core/words/counted";
import { listOf } from "@/core/words/listOf";
import {
  MOST_INVENTORY_CHARACTERS,
  readLsblk,
  worthTaking,
  type FoundDrive,
  type Inventory,
} from "@/exchange/inventory/readLsblk";
import { INVENTORY_COMMAND } from "@/exchange/inventory/command";
import { Tick } from "../kit/Field";
import { Size } from "../kit/Size";
import { useUnit } from "../preferences/preferences";
import { ReadDialog } from "./ReadDialog";

interface Props {
  /** Serials that are in the plan already, in small letters. */
  knownSerials: ReadonlySet<string>;
  /** The drives of the plan's pools that are taken to be there. */
  members: readonly Drive[];
  onClose: () => void;
  /** Takes new drives, and those of the plan that are not in the box. */
  onTake: (drives: NewDrive[], missing: string[]) => string | null;
}

/** The drives of the pools that the box does not list, where the list is of this box: it has others of them. */
function notListed(members: readonly Drive[], { found }: Inventory): Drive[] {
  const listed = new Set(
    found.flatMap(({ drive }) => (drive.ok && drive.value.serial ? [drive.value.serial.toLowerCase()] : [])),
  );
  const known = members.filter(({ serial }) => serial);
  const missing = known.filter(({ serial }) => !listed.has(serial?.toLowerCase() ?? ""));
  return missing.length < known.length ? missing : [];
}

/** Why a found drive cannot be taken, or null when it can. */
function obstacle(found: FoundDrive, knownSerials: ReadonlySet<string>): string | null {
  if (!found.drive.ok) return found.drive.reason;
  const serial = found.drive.value.serial?.toLowerCase();
  return serial && knownSerials.has(serial) ? "In the plan already." : null;
}

/** The others are left for the user to choose. */
const sensible = (found: FoundDrive, knownSerials: ReadonlySet<string>): boolean =>
  obstacle(found, knownSerials) === null && worthTaking(found);

/** Brings in the drives that the operating system of a box knows: paste, drop or choose, look, take. */
export function InventoryDialog({ knownSerials, members, onClose, onTake }: Props) {
  const [missing, setMissing] = useState<ReadonlySet<string>>(new Set());
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  return (
    <ReadDialog<Inventory>
      title="Bring in the drives of a box"
      aboutSource="Run this command on the box and bring its output here. It only reads."
      aboutFound="Choose the drives to put on the shelf. Nothing is sent anywhere."
      source={{
        example: INVENTORY_COMMAND,
        label: "Output of the command",
        placeholder: '{ "blockdevices": [ … ] }',
        most: MOST_INVENTORY_CHARACTERS,
      }}
      printed="devices"
      read={(text) => {
        const result = readLsblk(text);
        if (!result.ok) return result;
        setTaken(
          new Set(result.inventory.found.filter((found) => sensible(found, knownSerials)).map((found) => found.name)),
        );
        return { ok: true, found: result.inventory };
      }}
      takeLabel={taken.size > 0 || missing.size === 0 ? `Take ${counted(taken.size, "drive")}` : "Take over"}
      canTake={taken.size + missing.size > 0}
      onTake={({ found }) =>
        onTake(
          found.flatMap((each) => (taken.has(each.name) && each.drive.ok ? [each.drive.value] : [])),
          [...missing],
        )
      }
      onClose={onClose}
    >
      {(inventory) => (
        <>
          <NotListed drives={notListed(members, inventory)} missing={missing} onMissing={setMissing} />
          <FoundList inventory={inventory} knownSerials={knownSerials} taken={taken} onTaken={setTaken} />
        </>
      )}
    </ReadDialog>
  );
}

/** Drives of the pools that the box does not list: asked about, not decided. */
function NotListed({
  drives,
  missing,
  onMissing,
}: {
  drives: readonly Drive[];
  missing: ReadonlySet<string>;
  onMissing: (ids: ReadonlySet<string>) => void;
}) {
  const [unit] = useUnit();
  if (drives.length === 0) return null;
  return (
    <fieldset className="mb-3 border-l-4 border-geranium pl-3">
      <legend className="float-left w-full font-semibold">
        In your pools, and not in this list. {plural(drives.length, "Is it", "Are they")} not in the box?
      </legend>
      {drives.map((drive) => (
        <Tick
          key={drive.id}
          checked={missing.has(drive.id)}
          onTick={(on) =>
            onMissing(new Set(on ? [...missing, drive.id] : [...missing].filter((id) => id !== drive.id)))
          }
        >
          {nameOfDriveFirst(drive, unit)} is missing
        </Tick>
      ))}
    </fieldset>
  );
}

function FoundList({
  inventory,
  knownSerials,
  taken,
  onTaken,
}: {
  inventory: Inventory;
  knownSerials: ReadonlySet<string>;
  taken: ReadonlySet<string>;
  onTaken: (names: ReadonlySet<string>) => void;
}) {
  const toggle = (name: string) => {
    const next = new Set(taken);
    if (!next.delete(name)) next.add(name);
    onTaken(next);
  };
  return (
    <>
      {inventory.found.length === 0 && <p>No physical drive was found in it.</p>}
      <ul className="divide-y divide-line" aria-label="Drives found">
        {inventory.found.map((found) => (
          <FoundRow
            key={found.name}
            found={found}
            obstacle={obstacle(found, knownSerials)}
            on={taken.has(found.name)}
            onToggle={() => toggle(found.name)}
          />
        ))}
      </ul>
      {inventory.found.length > 0 && (
        <p className="mt-3 text-soft">Of all of them: {listOf(inventory.assumedOfAll)}.</p>
      )}
      {inventory.leftOut.length > 0 && (
        <p className="mt-3 text-soft">
          Left out: {listOf(inventory.leftOut.map(({ kind, count }) => counted(count, kind)))}.
        </p>
      )}
    </>
  );
}

const CONTENTS = { data: "Holds data", mounted: "In use", system: "Carries the running system" };

interface RowProps {
  found: FoundDrive;
  obstacle: string | null;
  on: boolean;
  onToggle: () => void;
}

function FoundRow({ found, obstacle, on, onToggle }: RowProps) {
  const id = `found-${found.name}`;
  return (
    <li className="flex gap-3 py-2">
      <Checkbox.Root
        id={id}
        checked={on}
        disabled={obstacle !== null}
        onCheckedChange={onToggle}
        className={
          "mt-1 flex size-[1.15rem] shrink-0 items-center justify-center rounded border border-line-strong " +
          "bg-raised data-[disabled]:opacity-40 data-[state=checked]:border-indigo " +
          "data-[state=checked]:bg-indigo data-[state=checked]:text-on-indigo"
        }
      >
        <Checkbox.Indicator>✓</Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id} className="grid min-w-0 flex-1 grid-cols-[5.5rem_1fr] gap-x-3">
        {found.drive.ok ? (
          <FoundWords name={found.name} drive={found.drive.value} />
        ) : (
          <>
            <span className="font-semibold">?</span>
            <span className="min-w-0 truncate">
              Drive <span className="text-soft">{found.name}</span>
            </span>
          </>
        )}
        {obstacle && (
          <span className={`col-start-2 text-[0.9rem] ${found.drive.ok ? "text-soft" : "text-geranium"}`}>
            {obstacle}
          </span>
        )}
        {found.assumed.length > 0 && (
          <span className="col-start-2 text-[0.85rem] text-soft">Assumed: {found.assumed.join("; ")}.</span>
        )}
      </label>
    </li>
  );
}

/** What was found of a drive: its size, its model, how it hangs on the box, and what is on it. */
function FoundWords({ name, drive }: { name: string; drive: NewDrive }) {
  const { contents } = drive;
  return (
    <>
      <span className="font-semibold">
        <Size bytes={drive.bytes} />
      </span>
      <span className="min-w-0 truncate">
        {drive.model ?? "Drive"}{" "}
        <span className="text-soft">
          {drive.serial ? `serial ${drive.serial}` : "without a serial number"}, {name}
        </span>
      </span>
      <span className="col-start-2 text-[0.9rem] text-soft">
        {drive.medium === "ssd" ? "Flash" : "Hard disk"}, {drive.bus === "nvme" ? "NVMe" : drive.bus.toUpperCase()},
        sectors {drive.logicalSector}/{drive.physicalSector} B
      </span>
      {contents && (
        <span className={`col-start-2 text-[0.9rem] ${contents.kind === "data" ? "text-ochre-text" : "text-geranium"}`}>
          {CONTENTS[contents.kind]}
          {contents.detail ? `: ${contents.detail}` : ""}
        </span>
      )}
    </>
  );
}

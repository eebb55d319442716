"use client";

import { Checkbox } from "radix-ui";
import { useState } from "react";
import type { NewDrive } from "@/core/commands/command";
import { INVENTORY_COMMAND, MOST_INVENTORY_CHARACTERS, readLsblk, type FoundDrive, type Inventory } from "@/exchange/inventory/readLsblk";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { Size } from "../kit/Size";
import { TextSource } from "./TextSource";

interface Props {
  /** Serials that are in the plan already, in small letters. */
  knownSerials: ReadonlySet<string>;
  onClose: () => void;
  onTake: (drives: NewDrive[]) => string | null;
}

const plural = (kind: string, count: number) => (count === 1 ? `1 ${kind}` : `${count} ${kind}s`).replace(/(class|copy)s$/, "$1es");

/** Why a found drive cannot be taken, or null when it can. */
function obstacle(found: FoundDrive, knownSerials: ReadonlySet<string>): string | null {
  if (!found.drive.ok) return found.drive.reason;
  const serial = found.drive.value.serial?.toLowerCase();
  return serial && knownSerials.has(serial) ? "In the plan already." : null;
}

/** Brings in the drives that the operating system of a box knows: paste, drop or choose, look, take. */
export function InventoryDialog({ knownSerials, onClose, onTake }: Props) {
  const [text, setText] = useState("");
  const [trouble, setTrouble] = useState<string | null>(null);
  const [inventory, setInventory] = useState<Inventory | null>(null);
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());

  const read = (source: string) => {
    const result = readLsblk(source);
    if (!result.ok) return setTrouble(result.message);
    setTrouble(null);
    setInventory(result.inventory);
    // What carries the system or data in use is left for the user to choose.
    setTaken(new Set(result.inventory.found.filter((found) => obstacle(found, knownSerials) === null && found.drive.ok && found.drive.value.contents?.kind !== "system" && found.drive.value.contents?.kind !== "mounted" && found.drive.value.bus !== "usb").map((found) => found.name)));
  };
  const take = () => {
    const drives = inventory?.found.flatMap((found) => (taken.has(found.name) && found.drive.ok ? [found.drive.value] : [])) ?? [];
    const refused = onTake(drives);
    if (refused) setTrouble(refused);
    else onClose();
  };

  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Bring in the drives of a box"
      about={inventory ? "Choose the drives to put on the shelf. Nothing is sent anywhere." : "Run this command on the box and bring its output here. It only reads."}
      acts={
        inventory ? (
          <>
            <Button onClick={() => setInventory(null)}>Back</Button>
            <Button look="main" disabled={taken.size === 0} onClick={take}>
              {taken.size === 1 ? "Take 1 drive" : `Take ${taken.size} drives`}
            </Button>
          </>
        ) : (
          <>
            <Button onClick={onClose}>Cancel</Button>
            <Button look="main" disabled={text.trim() === ""} onClick={() => read(text)}>
              Read
            </Button>
          </>
        )
      }
    >
      {inventory ? (
        <FoundList inventory={inventory} knownSerials={knownSerials} taken={taken} onTaken={setTaken} />
      ) : (
        <TextSource
          example={INVENTORY_COMMAND}
          label="Output of the command"
          placeholder={'{ "blockdevices": [ … ] }'}
          accept=".json,.txt,application/json,text/plain"
          value={text}
          onChange={(next) => {
            setText(next);
            setTrouble(null);
          }}
          onFiles={read}
          most={MOST_INVENTORY_CHARACTERS}
          onTrouble={setTrouble}
        />
      )}
      {trouble && (
        <p role="alert" className="mt-3 text-geranium">
          {trouble}
        </p>
      )}
    </Dialog>
  );
}

function FoundList({ inventory, knownSerials, taken, onTaken }: { inventory: Inventory; knownSerials: ReadonlySet<string>; taken: ReadonlySet<string>; onTaken: (names: ReadonlySet<string>) => void }) {
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
          <FoundRow key={found.name} found={found} obstacle={obstacle(found, knownSerials)} on={taken.has(found.name)} onToggle={() => toggle(found.name)} />
        ))}
      </ul>
      {inventory.leftOut.length > 0 && <p className="mt-3 text-soft">Left out: {new Intl.ListFormat("en").format(inventory.leftOut.map(({ kind, count }) => plural(kind, count)))}.</p>}
    </>
  );
}

const CONTENTS = { data: "Holds data", mounted: "In use", system: "Carries the running system" };

function FoundRow({ found, obstacle, on, onToggle }: { found: FoundDrive; obstacle: string | null; on: boolean; onToggle: () => void }) {
  const drive = found.drive.ok ? found.drive.value : null;
  const id = `found-${found.name}`;
  return (
    <li className="flex gap-3 py-2">
      <Checkbox.Root id={id} checked={on} disabled={obstacle !== null} onCheckedChange={onToggle} className="mt-1 flex size-[1.15rem] shrink-0 items-center justify-center rounded border border-line-strong bg-raised data-[disabled]:opacity-40 data-[state=checked]:border-indigo data-[state=checked]:bg-indigo data-[state=checked]:text-on-indigo">
        <Checkbox.Indicator>✓</Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id} className="grid min-w-0 flex-1 grid-cols-[5.5rem_1fr] gap-x-3">
        <span className="font-semibold">{drive ? <Size bytes={drive.bytes} /> : "?"}</span>
        <span className="min-w-0 truncate">
          {drive?.model ?? "Drive"} <span className="text-soft">{drive?.serial ? `serial ${drive.serial}` : "without a serial number"}, {found.name}</span>
        </span>
        <span className="col-start-2 text-[0.9rem] text-soft">
          {drive && `${drive.medium === "ssd" ? "Flash" : "Hard disk"}, ${drive.bus === "nvme" ? "NVMe" : drive.bus.toUpperCase()}, sectors ${drive.logicalSector}/${drive.physicalSector} B`}
        </span>
        {drive?.contents && (
          <span className={`col-start-2 text-[0.9rem] ${drive.contents.kind === "data" ? "text-ochre-text" : "text-geranium"}`}>
            {CONTENTS[drive.contents.kind]}
            {drive.contents.detail ? `: ${drive.contents.detail}` : ""}
          </span>
        )}
        {obstacle && <span className={`col-start-2 text-[0.9rem] ${found.drive.ok ? "text-soft" : "text-geranium"}`}>{obstacle}</span>}
        {found.assumed.length > 0 && <span className="col-start-2 text-[0.85rem] text-soft">Assumed: {found.assumed.join("; ")}.</span>}
      </label>
    </li>
  );
}

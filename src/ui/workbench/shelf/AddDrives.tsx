"use client";

import { useId, useState, type FormEvent } from "react";
import { formatExactBytes } from "@/core/bytes/formatBytes";
import { shortSize } from "@/core/drives/nameOfDrive";
import { typedDrives, type TypedDrives } from "@/core/drives/typedDrive";
import { Button } from "../../kit/Button";
import { useWorkbench } from "../useWorkbench";
import type { NewDrive } from "@/core/document/plan";

/** A typed drive as the plan keeps it: healthy, with the sectors that drives of its kind have by default. */
function asNewDrives({ count, bytes, medium, bus }: TypedDrives): NewDrive[] {
  return Array.from({ length: count }, () => ({
    label: "",
    bytes,
    medium,
    bus,
    logicalSector: 512,
    physicalSector: medium === "hdd" ? 4096 : 512,
    health: { state: "good" },
  }));
}

/** One line to type drives in: "6 × 4 TB". */
export function AddDrives() {
  const { act } = useWorkbench();
  const [text, setText] = useState("");
  const [trouble, setTrouble] = useState<string | null>(null);
  const hint = useId();
  const read = text.trim() === "" ? null : typedDrives(text);
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    const result = typedDrives(text);
    if (!result.ok) return setTrouble(result.message);
    const refused = act({ kind: "add-drives", drives: result.drives.flatMap(asNewDrives) });
    setTrouble(refused);
    if (!refused) setText("");
  };
  return (
    <form onSubmit={onSubmit} className="space-y-1">
      <div className="flex gap-2">
        <input
          aria-label="Drives to add"
          aria-describedby={hint}
          aria-invalid={trouble !== null}
          placeholder="6 × 4 TB"
          value={text}
          maxLength={300}
          onChange={(event) => {
            setText(event.target.value);
            setTrouble(null);
          }}
          className="h-9 w-full min-w-0 rounded border border-line-strong/70 bg-raised px-2 placeholder:text-soft"
        />
        <Button type="submit">Add</Button>
      </div>
      <p
        id={hint}
        role={trouble ? "alert" : undefined}
        className={`text-[0.82rem] leading-snug ${trouble ? "text-geranium" : "text-soft"}`}
      >
        {trouble ??
          (read?.ok
            ? read.drives
                .map(
                  (each) =>
                    `${each.count} × ${shortSize(each, "TB")} ${each.medium === "ssd" ? "flash" : "hard disk"}, ${formatExactBytes(each.bytes)}`,
                )
                .join("; ")
            : "Sizes as on the label; add ssd or nvme for flash.")}
      </p>
    </form>
  );
}

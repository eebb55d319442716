"use client";

import { useId, useState, type FormEvent } from "react";
import { formatExactBytes } from "@/core/bytes/formatBytes";
import { shortSize } from "@/core/drives/nameOfDrive";
import { Button } from "../../kit/Button";
import { NOT_LOADED } from "../../kit/notLoaded";
import { useLoaded } from "../../kit/useLoaded";
import { useWorkbench } from "../useWorkbench";

const load = () => import("@/core/drives/typedDrives");

/** One line to type drives in: "6 × 4 TB", "4, 4 and 8 TB". */
export function AddDrives() {
  const { act } = useWorkbench();
  const [text, setText] = useState("");
  const [trouble, setTrouble] = useState<string | null>(null);
  const hint = useId();
  // How drives are read is loaded with the first that are typed.
  const { value: reader } = useLoaded(load, text !== "");
  const read = text.trim() === "" || !reader ? null : reader.typedDrives(text);
  const add = ({ typedDrives, newDrivesOf }: Awaited<ReturnType<typeof load>>) => {
    const result = typedDrives(text);
    if (!result.ok) return setTrouble(result.message);
    const refused = act({ kind: "add-drives", drives: result.drives.flatMap(newDrivesOf) });
    setTrouble(refused);
    if (!refused) setText("");
  };
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    if (reader) add(reader);
    else load().then(add, () => setTrouble(NOT_LOADED));
  };
  return (
    <form onSubmit={onSubmit} className="space-y-1">
      <div className="flex gap-2">
        <input
          aria-label="Drives to add"
          aria-describedby={hint}
          aria-invalid={trouble !== null}
          placeholder="4, 4 and 8 TB"
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
                    `${each.count} × ${shortSize(each, "TB")} ` +
                    `${each.medium === "ssd" ? "flash" : "hard disk"}, ${formatExactBytes(each.bytes)}`,
                )
                .join("; ")
            : "Sizes as on the label; add ssd or nvme for flash.")}
      </p>
    </form>
  );
}

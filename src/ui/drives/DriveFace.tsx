"use client";

import { HardDrive, MemoryStick, TriangleAlert } from "lucide-react";
import { shortSize } from "@/core/drives/nameOfDrive";
import { useUnit } from "../preferences/preferences";
import type { Drive } from "@/core/document/plan";

/** Whether anything about a drive by itself asks for care before it is used. */
export function needsCare(drive: Drive): boolean {
  const { state, reallocatedSectors = 0, pendingSectors = 0 } = drive.health;
  return state !== "good" || reallocatedSectors > 0 || pendingSectors > 0 || drive.contents !== undefined;
}

/** Why a drive asks for care, in a few words; empty when it does not. */
export function careWords(drive: Drive): string {
  const { state, reallocatedSectors = 0, pendingSectors = 0 } = drive.health;
  const words = [
    state === "failing" ? "failing" : "",
    reallocatedSectors > 0 ? `${reallocatedSectors} reallocated sectors` : "",
    pendingSectors > 0 ? `${pendingSectors} pending sectors` : "",
    state === "watch" && reallocatedSectors + pendingSectors === 0 ? "to watch" : "",
    drive.contents ? { data: "holds data", mounted: "in use", system: "carries the system" }[drive.contents.kind] : "",
  ];
  return words.filter(Boolean).join(", ");
}

/** A drive as it is seen everywhere: size, kind, which one it is, and whether it asks for care. */
export function DriveFace({ drive, narrow = false, role }: { drive: Drive; narrow?: boolean; role?: string }) {
  const [unit] = useUnit();
  const Icon = drive.medium === "ssd" ? MemoryStick : HardDrive;
  const which = drive.label || drive.serial || drive.model || "no serial yet";
  const care = careWords(drive);
  return (
    <span className="block min-w-0 text-left leading-tight">
      <span className="flex items-center gap-1">
        {!narrow && <Icon size={14} aria-hidden className="shrink-0 text-soft group-data-[on=true]:text-inherit" />}
        <span className={`truncate font-semibold ${narrow ? "text-[0.8rem]" : ""}`}>{shortSize(drive, unit)}</span>
      </span>
      <span className="flex items-center gap-1">
        {care && (
          <TriangleAlert
            size={13}
            role="img"
            aria-label={care}
            className={`shrink-0 group-data-[on=true]:text-inherit ${drive.health.state === "failing" ? "text-geranium" : "text-ochre-text"}`}
          />
        )}
        {!narrow && (
          <span className="block truncate text-[0.8rem] text-soft group-data-[on=true]:text-inherit">
            {role ?? (drive.toBuy ? "to buy" : which)}
          </span>
        )}
      </span>
    </span>
  );
}

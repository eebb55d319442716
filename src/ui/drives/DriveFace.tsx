"use client";

import { HardDrive, MemoryStick, TriangleAlert } from "lucide-react";
import { counted } from "@/core/words/counted";
import { goneWords } from "@/core/drives/driveState";
import { markOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import { useUnit } from "../preferences/preferences";
import type { Drive } from "@/core/document/plan";

/** Whether anything about a drive by itself asks for care before it is used. */
export function needsCare(drive: Drive): boolean {
  const { state, reallocatedSectors = 0, pendingSectors = 0 } = drive.health;
  return (
    drive.state !== undefined ||
    state !== "good" ||
    reallocatedSectors > 0 ||
    pendingSectors > 0 ||
    drive.contents !== undefined
  );
}

/** Why a drive asks for care, in a few words; empty when it does not. */
export function careWords(drive: Drive): string {
  const { state, reallocatedSectors = 0, pendingSectors = 0 } = drive.health;
  const words = [
    drive.state ? goneWords(drive) : "",
    state === "failing" ? "failing" : "",
    reallocatedSectors > 0 ? counted(reallocatedSectors, "worn-out sector") : "",
    pendingSectors > 0 ? `${counted(pendingSectors, "sector")} that cannot be read` : "",
    state === "watch" && reallocatedSectors + pendingSectors === 0 ? "worn" : "",
    drive.contents ? { data: "holds data", mounted: "in use", system: "carries the system" }[drive.contents.kind] : "",
  ];
  return words.filter(Boolean).join(", ");
}

/** What tells a drive from its likes on its card. */
export const markShown = (drive: Drive): string => drive.label || drive.serial || markOfDrive(drive);

/** A drive as it is seen everywhere: size, kind, which one it is, and whether it asks for care. */
export function DriveFace({ drive, narrow = false, role }: { drive: Drive; narrow?: boolean; role?: string }) {
  const [unit] = useUnit();
  const Icon = drive.medium === "ssd" ? MemoryStick : HardDrive;
  const mark = markShown(drive);
  const care = careWords(drive);
  return (
    <span className={`block min-w-0 leading-tight ${narrow ? "text-center" : "text-left"}`}>
      <span className="flex items-center gap-1">
        {!narrow && (
          <Icon
            size={14}
            aria-hidden
            className="hidden shrink-0 text-soft group-data-[on=true]:text-inherit @min-[7.2rem]:block"
          />
        )}
        {/* A size is never cut: where it is narrow its unit stands below it. */}
        <span
          className={`font-semibold ${narrow ? "w-full text-center text-[0.75rem] leading-tight" : "whitespace-nowrap"}`}
        >
          {narrow ? shortSize(drive, unit).replace(/[\s\u00a0]/, " ") : shortSize(drive, unit)}
        </span>
      </span>
      <span className="flex items-center gap-1">
        {care && (
          <TriangleAlert
            size={13}
            role="img"
            aria-label={care}
            className={
              "shrink-0 group-data-[on=true]:text-inherit " +
              (drive.state || drive.health.state === "failing" ? "text-geranium" : "text-ochre-text")
            }
          />
        )}
        {!narrow && (
          <span className="block truncate text-[0.8rem] text-soft group-data-[on=true]:text-inherit">
            {drive.state ? (
              <span className="font-semibold text-geranium group-data-[on=true]:text-inherit">{drive.state}</span>
            ) : (
              (role ?? (drive.toBuy ? `to buy, ${mark}` : mark))
            )}
          </span>
        )}
      </span>
    </span>
  );
}

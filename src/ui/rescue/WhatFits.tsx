"use client";

import { driveOf } from "@/core/box/find";
import { formatBytes, formatExactBytes } from "@/core/bytes/formatBytes";
import type { Plan } from "@/core/document/plan";
import { nameOfDriveFirst, shortSize } from "@/core/drives/nameOfDrive";
import type { Rescue } from "@/core/rescue/rescue";
import { soldFrom } from "@/core/sequences/parts";
import { useUnit } from "../preferences/preferences";

const BUSES = { sata: "SATA", sas: "SAS", nvme: "NVMe", usb: "USB" };

/** What can take the place of a drive that is gone: what is at hand, why the rest cannot, and what to buy at least. */
export function WhatFits({ plan, rescue }: { plan: Plan; rescue: Rescue }) {
  const [unit] = useUnit();
  const nameOf = (id: string) => {
    const drive = driveOf(plan, id);
    return drive ? nameOfDriveFirst(drive, unit) : id;
  };
  const { buy, fits, fitsNot, afterwards } = rescue;
  return (
    <>
      <section aria-labelledby="fits">
        <h2 id="fits" className="font-serif text-lg">
          What can take its place
        </h2>
        {fits.map((id) => (
          <p key={id}>{nameOf(id)} fits.</p>
        ))}
        {fitsNot.map(({ drive, why }) => (
          <p key={drive} className="text-soft">
            {nameOf(drive)} does not: {why}.
          </p>
        ))}
        {fits.length + fitsNot.length === 0 && <p className="text-soft">No other drive is at hand.</p>}
        {buy && (
          <p className="mt-1">
            To buy: a {buy.medium === "hdd" ? "hard disk" : "flash drive"} with {BUSES[buy.bus]}, sold as{" "}
            {shortSize({ bytes: soldFrom(buy.leastBytes) }, "TB")} or more, with logical sectors of {buy.logicalSector}{" "}
            bytes. It must have at least {formatExactBytes(buy.leastBytes)} ({formatBytes(buy.leastBytes, unit)}).
          </p>
        )}
      </section>
      {afterwards.length > 0 && (
        <section aria-labelledby="dead">
          <h2 id="dead" className="font-serif text-lg">
            The dead drive afterwards
          </h2>
          <ul className="list-disc pl-5">
            {afterwards.map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

import Link from "next/link";
import { storageTotal } from "@/core/prediction/storageTotal";
import { predict } from "@/core/prediction/predict";
import { clinic } from "@/core/document/samples/clinic";
import { formatBytes } from "@/core/bytes/formatBytes";
import { counted, oneOrMany } from "@/core/words/counted";

const { pools } = predict(clinic);
const usable = formatBytes(storageTotal(clinic, pools), "TB");
const tolerance = Math.min(...pools.map((pool) => pool.tolerance));
const largest = Math.max(...clinic.drives.map((drive) => drive.bytes));

/** The parts of a drive that the bands of its group lie on, from the ground up. */
const bandsOf = (drive: string) =>
  pools.flatMap((pool) =>
    pool.groups.flatMap((group) => group.bands.flatMap((band) => band.members.filter((part) => part.drive === drive))),
  );

/**
 * What a first visit sees while the page itself is still on its way: the demo plan with its figures, worked out on the
 * server. Plain text and boxes, so that a slow phone has it at once.
 */
export function FirstLook() {
  return (
    <main aria-busy="true" className="mx-auto max-w-3xl px-5 py-8">
      <p className="text-[0.95rem]">
        This is an example.{" "}
        <Link href="/new" className="font-semibold text-indigo underline underline-offset-2">
          Plan your own box
        </Link>
      </p>
      <p className="mt-3 font-serif text-xl text-indigo">Cortijo</p>
      <h1 className="mt-1 font-serif text-3xl">{clinic.name}</h1>
      <p className="mt-3 text-lg leading-snug">
        An example to look at: a box with {counted(clinic.box.bays, "bay")} and {counted(clinic.drives.length, "drive")}{" "}
        of mixed sizes. Its pool holds {usable}, and survives the loss of any{" "}
        {oneOrMany(tolerance, "one drive", "drives")}. Change the drives, the layout and the order in which they are
        replaced, and see what the box would hold, survive and take, at every moment, before anything is bought or
        erased.
      </p>
      <p className="mt-5 font-serif text-4xl">
        {usable} <span className="text-lg text-soft">usable</span>
      </p>
      <div aria-hidden="true" className="mt-5 flex h-48 items-end gap-2 border-b border-line-strong">
        {clinic.drives.map((drive) => (
          <div
            key={drive.id}
            className="flex max-w-20 flex-1 flex-col-reverse overflow-hidden rounded-t-sm border border-line-strong/60"
            style={{ height: `${(drive.bytes / largest) * 100}%` }}
          >
            {bandsOf(drive.id).map(({ length }, i) => (
              <span
                key={i}
                className="border-t border-ground"
                style={{ height: `${(length / drive.bytes) * 100}%`, background: "var(--data)" }}
              />
            ))}
          </div>
        ))}
      </div>
      <p role="status" className="mt-4 text-soft">
        Opening it …
      </p>
    </main>
  );
}

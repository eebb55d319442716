import type { BoxReport } from "@/exchange/planReport/planReport";

/** The pools of a box at one moment, a line each. */
export function BoxLines({ box }: { box: BoxReport }) {
  return (
    <>
      {box.pools.map((pool) => (
        <p key={pool.name} className="mt-1 text-[0.93rem]">
          <strong className="font-semibold">{pool.name}</strong> {pool.layouts}: {pool.drives}; {pool.survives}.
          {pool.volumes.length > 0 ? ` ${pool.volumes.join("; ")}.` : ""}
        </p>
      ))}
    </>
  );
}

import type { PoolAtRest } from "@/core/chance/atRest";
import { causeWords, ofBoxes, rangeWords } from "@/core/chance/chanceWords";
import type { Ranged } from "@/core/chance/figures";
import type { Spread } from "@/core/chance/inputs";
import { mostly, OF_DRIVES } from "@/core/chance/otherCauses";
import type { Plan } from "@/core/document/plan";
import { TableHead } from "../kit/TableHead";

interface Props {
  pool: PoolAtRest;
  ranged: Ranged<PoolAtRest> | null;
  plan: Plan;
}

/** A chance, with its range under it as soon as that is known. */
export function Figure({ chance, range }: { chance: number; range: Spread | undefined }) {
  return (
    <>
      {ofBoxes(chance)}
      {range && chance > 0 && chance < 1 && <span className="block text-[0.85rem] text-soft">{rangeWords(range)}</span>}
    </>
  );
}

/** What may be lost at rest, row by row and never in one figure; deletion and theft are assumed. */
export function ChanceRows({ pool, ranged, plan }: Props) {
  const { year, tenYears } = pool;
  const rows = [
    { name: "The pool is lost: more drives fail than it survives", of: "poolLost" as const },
    { name: "Some file is damaged: a spot cannot be read when it is needed", of: "fileDamaged" as const },
  ];
  const others = [
    { name: "Theft or fire", of: "theft" as const },
    { name: "Deletion by mistake", of: "deletion" as const },
  ];
  const most = mostly(year.causes, OF_DRIVES);
  const sets = plan.dataSets ?? [];
  return (
    <section aria-labelledby="what-may-be-lost">
      <h2 id="what-may-be-lost" className="border-b border-line pb-1 font-serif text-lg">
        What may be lost, with nothing being changed
      </h2>
      <div className="overflow-x-auto" role="group" aria-labelledby="what-may-be-lost" tabIndex={0}>
        <table className="w-full text-left">
          <TableHead names={["Of boxes like this", "in a year", "in ten years"]} />
          <tbody className="align-top">
            {rows.map(({ name, of }) => (
              <tr key={of} className="border-t border-line">
                <th scope="row" className="py-1.5 pr-3 font-normal">
                  {name}
                </th>
                <td className="py-1.5 pr-3">
                  <Figure chance={year[of]} range={ranged?.year[of]} />
                </td>
                <td className="py-1.5">
                  <Figure chance={tenYears[of]} range={ranged?.tenYears[of]} />
                </td>
              </tr>
            ))}
            {others.map(({ name, of }) => (
              <tr key={of} className="border-t border-line">
                <th scope="row" className="py-1.5 pr-3 font-normal">
                  {name} <span className="text-soft">(assumed)</span>
                </th>
                <td className="py-1.5 pr-3">
                  <Figure chance={year.causes[of]} range={ranged?.year.causes[of]} />
                </td>
                <td className="py-1.5">
                  <Figure chance={tenYears.causes[of]} range={ranged?.tenYears.causes[of]} />
                </td>
              </tr>
            ))}
            {pool.dataSets.length > 0 && (
              <tr className="border-t border-line">
                <th scope="colgroup" colSpan={3} className="pt-2.5 font-semibold">
                  Lost for good, by any of these, after what backups bring back
                </th>
              </tr>
            )}
            {pool.dataSets.map(({ id, anyInYear, anyInTenYears }, i) => (
              <tr key={id} className="border-t border-line">
                <th scope="row" className="py-1.5 pr-3 font-normal">
                  {sets.find((set) => set.id === id)?.name || id}
                </th>
                <td className="py-1.5 pr-3">
                  <Figure chance={anyInYear} range={ranged?.dataSets[i]?.anyInYear} />
                </td>
                <td className="py-1.5">
                  <Figure chance={anyInTenYears} range={ranged?.dataSets[i]?.anyInTenYears} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {most && <p className="mt-1 text-soft">Of its drives, what costs most: {causeWords(most)}.</p>}
    </section>
  );
}

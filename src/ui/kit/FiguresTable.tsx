import { TableHead } from "./TableHead";

/** What a chart shows, in rows: the first cell of each says of what. */
export interface Figures {
  head: readonly string[];
  rows: readonly (readonly string[])[];
}

/** The figures of a chart as a table, to be opened under it. */
export function FiguresTable({ figures: { head, rows } }: { figures: Figures }) {
  return (
    <details>
      <summary className="min-h-[24px] cursor-pointer text-soft">As a table</summary>
      <div className="max-h-80 overflow-auto" role="region" aria-label="The figures of the chart" tabIndex={0}>
        <table className="w-full text-left">
          <TableHead names={head} />
          <tbody>
            {rows.map(([of, ...cells], i) => (
              <tr key={i} className="border-t border-line align-top">
                <th scope="row" className="py-1 pr-3 font-normal">
                  {of}
                </th>
                {cells.map((cell, j) => (
                  <td key={j} className="py-1 pr-3">
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}

/** A row of a table whose cells flow like words on a phone, where they would be too narrow side by side. */
export const STACKED_ROW = "border-t border-line max-sm:flex max-sm:flex-wrap max-sm:items-center max-sm:py-1";

/** The first cell of such a row: on a phone a line of its own. */
export const STACKED_NAME = "py-1 pr-3 font-normal max-sm:w-full max-sm:pb-0 max-sm:font-semibold";

/**
 * The head of a table: a word over each column; an empty one stands over what needs none.
 *
 * @param stacks whether its rows stack on a phone, where no word stands over a column
 */
export function TableHead({ names, stacks = false }: { names: readonly string[]; stacks?: boolean }) {
  return (
    <thead className={stacks ? "max-sm:sr-only" : ""}>
      <tr className="text-left text-soft">
        {names.map((name) =>
          name === "" ? (
            <td key={name} />
          ) : (
            <th key={name} scope="col" className="py-1 pr-3 font-normal">
              {name}
            </th>
          ),
        )}
      </tr>
    </thead>
  );
}

/** The head of a table: a word over each column; an empty one stands over what needs none. */
export function TableHead({ names }: { names: readonly string[] }) {
  return (
    <thead>
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

/** What is wrong with a text that was brought in, a line each; at most 20 of them. */
export function ProblemLines({ problems }: { problems: readonly string[] }) {
  if (problems.length === 0) return null;
  return (
    <ul role="alert" className="mt-3 space-y-1 text-geranium">
      {problems.slice(0, 20).map((problem) => (
        <li key={problem}>{problem}</li>
      ))}
      {problems.length > 20 && <li>… and {problems.length - 20} more.</li>}
    </ul>
  );
}

import type { Finding } from "@/core/findings/finding";
import { counted } from "@/core/words/counted";

/** So many warnings have room where an act is decided; the others open at a press. */
const SHOWN = 3;

interface Props {
  /** What stands against it; the first is said with what it would come to. */
  blocks: readonly Pick<Finding, "message">[];
  warnings: readonly string[];
  notes: readonly string[];
}

/** Everything that steps would be told of once they are planned, said before they are. */
export function TrialFindings({ blocks, warnings, notes }: Props) {
  const against = [...new Set(blocks.slice(1).map(({ message }) => message))];
  const more = warnings.slice(SHOWN);
  return (
    <>
      {against.length > 0 && (
        <ul aria-label="What else stands against it" className="mt-1 space-y-0.5 text-geranium">
          {against.map((message) => (
            <li key={message}>{message}</li>
          ))}
        </ul>
      )}
      {warnings.length > 0 && (
        <ul aria-label="Warnings" className="mt-1 space-y-0.5 text-ochre-text">
          {warnings.slice(0, SHOWN).map((message) => (
            <li key={message}>{message}</li>
          ))}
        </ul>
      )}
      {more.length + notes.length > 0 && (
        <details className="mt-1 text-soft">
          <summary className="cursor-pointer">
            {[
              ...(more.length > 0 ? [counted(more.length, "more warning")] : []),
              ...(notes.length > 0 ? [counted(notes.length, "note")] : []),
            ].join(", ")}
          </summary>
          <ul className="mt-0.5 space-y-0.5">
            {more.map((message) => (
              <li key={message} className="text-ochre-text">
                {message}
              </li>
            ))}
            {notes.map((message) => (
              <li key={message}>{message}</li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

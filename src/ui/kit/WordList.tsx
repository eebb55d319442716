import { Fragment } from "react";

/** Words or keys, each with what it means. */
export function WordList({ words }: { words: readonly (readonly [word: string, means: string])[] }) {
  return (
    <dl className="grid gap-x-5 gap-y-2 sm:grid-cols-[auto_minmax(0,1fr)]">
      {words.map(([word, means]) => (
        <Fragment key={word}>
          <dt className="font-semibold sm:whitespace-nowrap">{word}</dt>
          <dd>{means}</dd>
        </Fragment>
      ))}
    </dl>
  );
}

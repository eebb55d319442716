import { byWeight, type Finding, type Severity } from "@/core/findings/finding";

const WORDS: Record<Severity, { word: string; tone: string }> = {
  block: { word: "Blocked", tone: "text-geranium" },
  warn: { word: "Warning", tone: "text-ochre-text" },
  note: { word: "Note", tone: "text-soft" },
};

/** What is to be known of drives where they are chosen, before they are put to use. */
export function ChosenFindings({ findings }: { findings: readonly Finding[] }) {
  return byWeight(findings).map(({ severity, message }) => (
    <span key={message} className={`block pt-1 text-[0.87rem] leading-snug ${WORDS[severity].tone}`}>
      <span className="font-semibold">{WORDS[severity].word}.</span> {message}
    </span>
  ));
}

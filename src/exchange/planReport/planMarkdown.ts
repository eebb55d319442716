import { THREATS } from "@/core/data/coverage";
import { THREAT_NAMES } from "@/core/data/coverageWords";
import type { BoxReport, PlanReport } from "./planReport";

/** Text that Markdown would take for its own signs is written as itself; lines stay lines. */
const plain = (text: string) => text.replace(/[\\`*_[\]<>|#]/g, "\\$&").replace(/\s*\n\s*/g, " ");

const cells = (row: readonly string[]) => `| ${row.map((cell) => plain(cell)).join(" | ")} |`;
const table = (head: readonly string[], rows: readonly (readonly string[])[]) =>
  [cells(head), `|${head.map(() => " --- ").join("|")}|`, ...rows.map(cells)].join("\n");
const section = (title: string, ...parts: string[]) =>
  parts.some(Boolean) ? [`## ${title}`, ...parts.filter(Boolean)].join("\n\n") : "";
const list = (items: readonly string[]) => items.map((item) => `- ${plain(item)}`).join("\n");

const boxRows = (when: string, box: BoxReport) =>
  box.pools.map((pool) => [when, pool.name, pool.layouts, pool.drives, pool.survives, pool.volumes.join("; ")]);

const SIGNS = { block: "**Blocked:** ", warn: "**Warning:** ", note: "" };

function stateOf(step: PlanReport["steps"][number]): string {
  if (step.state === "done") return `Takes ${plain(step.takes)}. Afterwards ${plain(step.after)}.`;
  return step.state === "passed-over" ? "Skipped." : "Cannot be carried out as planned.";
}

const stepLines = (step: PlanReport["steps"][number]): string =>
  [
    `${step.number}. **${plain(step.when)}** ${plain(step.does)} ${plain(step.why)}`,
    `   ${stateOf(step)}`,
    ...step.notes.map((note) => `   - ${SIGNS[note.severity]}${plain(note.text)}`),
  ].join("\n");

const briefRows = ({ inBrief }: PlanReport) =>
  inBrief.map(({ what, steps, takes, notes }) => [what, String(steps), takes, notes > 0 ? String(notes) : ""]);

/** The steps, or where there are many what they come to; then they stand at the end. */
const stepsSection = (report: PlanReport) =>
  section(
    "Steps",
    report.inBrief.length > 0
      ? `${table(["What", "How many", "In all", "With a warning"], briefRows(report))}\n\nThe list is at the end.`
      : report.steps.map(stepLines).join("\n") || "No step is planned.",
  );

const allSteps = ({ steps, inBrief }: PlanReport) =>
  section("All steps", inBrief.length > 0 ? steps.map(stepLines).join("\n") : "");

const buyingSection = ({ shopping, total }: PlanReport) =>
  section(
    "To buy",
    shopping.length > 0
      ? table(
          ["What", "Price", "Order"],
          shopping.map((each) => [each.what, each.price, each.order]),
        )
      : "Nothing.",
    total === null ? "" : `In all: ${plain(total)}`,
  );

const dataRows = (set: PlanReport["data"][number]) => [
  [
    set.name,
    set.size,
    `${set.growth}; ${set.worth}`,
    "before",
    ...THREATS.map((threat) => set.outcomes[threat].before),
  ],
  ["", "", "", "after", ...THREATS.map((threat) => set.outcomes[threat].after)],
];

const dataSection = ({ data, backups, full }: PlanReport) =>
  section(
    "Data and what may happen to it",
    data.length > 0
      ? table(["Data", "Size", "Growth", "", ...THREATS.map((threat) => THREAT_NAMES[threat])], data.flatMap(dataRows))
      : "",
    list(backups),
    list(full),
  );

/**
 * The plan as a Markdown document.
 *
 * @example planMarkdown(report).startsWith("# ")
 */
export function planMarkdown(report: PlanReport): string {
  const parts = [
    `# ${plain(report.name)}`,
    plain(report.box),
    report.summary.map(plain).join(" "),
    section(
      "Before and after",
      table(
        ["", "Pool", "Layout", "Drives", "Survives", "Volumes"],
        [...boxRows("before", report.before), ...boxRows("after", report.after)],
      ),
      `Usable: ${plain(report.before.usable)} → ${plain(report.after.usable)}.`,
    ),
    stepsSection(report),
    section("What is erased", report.erased.length > 0 ? list(report.erased) : "Nothing that you have."),
    buyingSection(report),
    section("Drives that become free", list(report.freed)),
    dataSection(report),
    section("Chance of loss", list(report.chances)),
    section("What this rests on", list(report.assumptions)),
    allSteps(report),
  ];
  return `${parts.filter(Boolean).join("\n\n")}\n`;
}

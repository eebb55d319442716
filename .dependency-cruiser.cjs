/** Imports run one way: app → ui → store, workers, exchange → core. */
const only = (name, from, allowed) => ({
  name,
  severity: "error",
  comment: `${from} imports only ${allowed.join(", ")}`,
  from: { path: `^src/${from}/` },
  to: { path: "^src/", pathNot: [`^src/(${[from, ...allowed].join("|")})/`] },
});

/**
 * The storeys of the core, from the ground up, as docs/architecture.md shows them: a folder imports, types included,
 * only
 * from those before it. A new folder has to be given its place here.
 */
const STOREYS = [
  "records",
  "words",
  "bytes",
  "time",
  "document",
  "findings",
  "logbook",
  "rules",
  "drives",
  "bands",
  "layouts",
  "failures",
  "ledger",
  "speeds",
  "box",
  "prediction",
  "data",
  "calendar",
  "steps",
  "walk",
  "schedule",
  "chance",
  "reading",
  "carrying",
  "commands",
  "compare",
  "nextDrive",
  "sequences",
  "rescue",
  "ruleBook",
  "mends",
  "bestWay",
  "rehearsal",
];

/** A rehearsal is a plan carried out on the simulated box, which stands beside the storeys. */
const beside = (folder) => (folder === "rehearsal" ? ["simulator"] : []);

const TESTS = ["\\.test\\.tsx?$", "^src/core/testing/"];

const storeys = STOREYS.map((folder, i) => ({
  name: `storey-${folder}`,
  severity: "error",
  comment: `core/${folder} imports only from the storeys below it: ${STOREYS.slice(0, i).join(", ") || "none"}`,
  from: { path: `^src/core/${folder}/`, pathNot: TESTS },
  to: { path: "^src/core/", pathNot: [`^src/core/(${[...STOREYS.slice(0, i + 1), ...beside(folder)].join("|")})/`] },
}));

module.exports = {
  forbidden: [
    only("core-stands-alone", "core", []),
    only("exchange-below-ui", "exchange", ["core"]),
    only("store-below-ui", "store", ["core"]),
    only("workers-below-ui", "workers", ["core", "exchange"]),
    only("ui-below-app", "ui", ["core", "exchange", "store", "workers"]),
    only("offline-stands-alone", "offline", []),
    ...storeys,
    {
      name: "every-folder-has-a-storey",
      severity: "error",
      comment: "A folder of the core that is not among the storeys: give it its place in STOREYS.",
      from: {},
      to: { path: "^src/core/", pathNot: [`^src/core/(${[...STOREYS, "simulator", "testing"].join("|")})/`] },
    },
    {
      name: "simulator-stands-apart",
      severity: "error",
      comment:
        "The simulated box is held against the prediction, so it knows sizes, rates, rules and the document, and nothing that predicts.",
      from: { path: "^src/core/simulator/", pathNot: TESTS },
      to: { path: "^src/core/", pathNot: ["^src/core/(simulator|records|words|bytes|time|document|rules|drives)/"] },
    },
    {
      name: "nothing-predicts-by-the-simulator",
      severity: "error",
      comment: "No figure of the prediction comes from the simulated box. A rehearsal predicts nothing: it tries.",
      from: { path: "^src/core/", pathNot: ["^src/core/(simulator|rehearsal)/", ...TESTS] },
      to: { path: "^src/core/simulator/" },
    },
    {
      name: "core-is-pure",
      severity: "error",
      comment:
        "The core knows no interface, no storage and no machine; only Immer, Temporal (for the calendar) and Ajv's types and run time.",
      from: { path: "^src/core/", pathNot: TESTS },
      to: { dependencyTypes: ["npm", "npm-dev", "core"], pathNot: ["node_modules/(immer|ajv|temporal-polyfill)/"] },
    },
    {
      name: "tests-are-not-imported",
      severity: "error",
      comment: "Tests, and what they are made of, are imported by tests and by the commands beside them only.",
      from: { pathNot: [...TESTS, "^scripts/"] },
      to: { path: TESTS },
    },
    // Type imports count: a circle of types is still a circle in the reader's head.
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { extensions: [".ts", ".tsx", ".cjs", ".d.cts", ".json"] },
  },
};

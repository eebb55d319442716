/** Imports run one way: app → ui → store, workers, exchange → core. */
const only = (name, from, allowed) => ({
  name,
  severity: "error",
  comment: `${from} imports only ${allowed.join(", ")}`,
  from: { path: `^src/${from}/` },
  to: { path: "^src/", pathNot: [`^src/(${[from, ...allowed].join("|")})/`] },
});

module.exports = {
  forbidden: [
    only("core-stands-alone", "core", []),
    only("exchange-below-ui", "exchange", ["core"]),
    only("store-below-ui", "store", ["core"]),
    only("workers-below-ui", "workers", ["core", "exchange"]),
    only("ui-below-app", "ui", ["core", "exchange", "store", "workers"]),
    {
      name: "core-is-pure",
      severity: "error",
      comment:
        "The core knows no interface, no storage and no machine; only Immer, Temporal (for the calendar) and Ajv's types and run time.",
      from: { path: "^src/core/", pathNot: ["\\.test\\.ts$", "^src/core/testing/"] },
      to: { dependencyTypes: ["npm", "npm-dev", "core"], pathNot: ["node_modules/(immer|ajv|temporal-polyfill)/"] },
    },
    {
      name: "tests-are-not-imported",
      severity: "error",
      from: { pathNot: ["\\.test\\.tsx?$", "^src/core/testing/"] },
      to: { path: ["\\.test\\.tsx?$", "^src/core/testing/"] },
    },
    {
      name: "no-circles",
      severity: "error",
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ["type-only"] } },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { extensions: [".ts", ".tsx", ".cjs", ".d.cts", ".json"] },
  },
};

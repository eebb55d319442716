import { CAUSES } from "@/core/chance/otherCauses";
import { THREATS } from "@/core/data/coverage";
import planSchema from "@/core/document/schema/plan-1.json";
import { LEDGER_CAUSES } from "@/core/ledger/ledger";
import { MISHAPS } from "@/core/simulator/mishaps";
import { PARTS } from "@/exchange/prediction/parts";

const bytes = { type: "integer", minimum: 0, description: "bytes" };
const ids = { type: "array", items: { type: "string" } };
const list = (items: object) => ({ type: "array", items });
const object = (properties: Record<string, object>, optional: string[] = []) => ({
  type: "object",
  properties,
  required: Object.keys(properties).filter((name) => !optional.includes(name)),
});
const named = (name: string) => ({ $ref: `#/components/schemas/${name}` });
const json = (schema: object, description: string) => ({ description, content: { "application/json": { schema } } });

/** What is asked of a practice box; `exchange/practiceBox/schema` checks it. */
const practiceAsked = object(
  {
    plan: { $ref: "/schema/plan-1.json" },
    seed: { type: "integer", minimum: 0, description: "from which all that is drawn follows; 1 where nothing is said" },
    hours: { type: "number", minimum: 0, description: "on the box's clock; 0 where nothing is said" },
    mishaps: list(
      object(
        {
          at: { type: "number", minimum: 0, description: "the hour" },
          kind: { enum: MISHAPS },
          drive: { type: "string" },
          pool: { type: "string" },
          volume: { type: "string" },
          blocks: { type: "integer", description: "unreadable: of about a thousandth of the largest drive each" },
          bytes: { type: "integer", description: "short: by how much" },
          times: { type: "number", description: "slow: how many times slower" },
        },
        ["drive", "pool", "volume", "blocks", "bytes", "times"],
      ),
    ),
    choices: object(
      {
        steps: { enum: ["in-order", "none"], description: "whether the steps are begun one after the other" },
        afterAMishap: { enum: ["wait", "go-on"], description: "whether the next step waits once something went wrong" },
      },
      ["steps", "afterAMishap"],
    ),
  },
  ["seed", "hours", "mishaps", "choices"],
);

/** What is asked of the best way to grow; `exchange/bestWay/schema` checks it. */
const bestWayAsked = object({
  plan: { $ref: "/schema/plan-1.json", description: "the box grows from where its steps leave it" },
  wish: object(
    {
      months: { type: "integer", minimum: 1, maximum: 120, description: "for how long the box must last" },
      pool: { type: "string", description: "the pool that grows; the first where nothing is said" },
      demand: {
        ...list(bytes),
        description:
          "bytes of files stored in each month from now (0) on, without what is kept free; the last stays. From " +
          "the plan's data sets where nothing is said",
      },
      headroom: { type: "number", description: "the share that stays free; that of the pool's volume, or 0.2" },
      tolerance: {
        type: "integer",
        description: "how many lost drives must be survived, whichever they are; 1 where nothing is said",
      },
      layouts: { ...list(planSchema.$defs.layoutId), description: "those that may be used; the pool's own" },
      bays: { type: "integer", description: "for the pool's drives at most; all of the box that others leave" },
      prices: {
        ...list(
          object(
            {
              bytes,
              cents: { type: "integer", description: "today, in the smallest unit of the plan's currency" },
              from: { type: "integer", description: "the month from which it is sold; 0 where nothing is said" },
            },
            ["from"],
          ),
        ),
        description: "the plan's own where nothing is said, or invented examples where it has none",
      },
      fallPerYear: { type: "number", description: "what prices fall by in a year; 0.12 where nothing is said" },
      aim: { enum: ["money", "hours", "acts"], description: "what is made least, money next; money" },
      centsPerYear: { type: "integer", description: "at most so much in any twelve months; with the aim money" },
      mostActs: { type: "integer", description: "at most so many acts" },
      retireAfterYears: { type: "number", description: "drives are out by that age" },
      centsPerDriveYear: { type: "integer", description: "what one more running drive costs a year" },
      equalPairs: { type: "boolean", description: "mirrored pairs are always of equal drives" },
    },
    [
      "pool",
      "demand",
      "headroom",
      "tolerance",
      "layouts",
      "bays",
      "prices",
      "fallPerYear",
      "aim",
      "centsPerYear",
      "mostActs",
      "retireAfterYears",
      "centsPerDriveYear",
      "equalPairs",
    ],
  ),
});

const habitCents = { type: ["integer", "null"], description: "null where it does not last" };

const problem = object({
  code: { type: "string" },
  message: { type: "string" },
  pointer: { type: "string", description: "RFC 6901 JSON pointer into the plan" },
});
const finding = object(
  {
    code: { type: "string" },
    severity: { enum: ["block", "warn", "note"] },
    message: { type: "string" },
    drives: ids,
    pointer: { type: "string" },
  },
  ["drives", "pointer"],
);

const band = object(
  {
    scheme: {
      type: "object",
      description: "the kinds with parity say how many drives' worth it takes",
      properties: {
        kind: { enum: ["single", "stripe", "mirror", "striped-mirrors", "parity", "chunk-parity", "dedicated-parity"] },
        parity: { type: "integer" },
      },
      required: ["kind"],
    },
    members: list(object({ drive: { type: "string" }, offset: bytes, length: bytes })),
    independent: { type: "boolean", description: "whether its loss takes only what was on the failed drives" },
    metadata: { ...bytes, description: "bytes of metadata before the data of each drive" },
  },
  ["independent"],
);

/** Probabilities, of 1. */
const chanceRange = object({
  low: { type: "number", minimum: 0, maximum: 1 },
  expected: { type: "number", minimum: 0, maximum: 1 },
  high: { type: "number", minimum: 0, maximum: 1 },
});
const cause = { enum: [...CAUSES, null], description: "what takes most; null where nothing does" };
const twoRows = object({
  poolLost: { ...chanceRange, description: "more drives fail than some of the data bears" },
  fileDamaged: { ...chanceRange, description: "a sector cannot be read where it is needed" },
});
const byCause = object(Object.fromEntries(CAUSES.map((each) => [each, chanceRange])));

const pool = object(
  {
    id: { type: "string" },
    name: { type: "string" },
    usableBytes: bytes,
    tolerance: {
      type: "integer",
      minimum: 0,
      description: "how many drives can be lost at once, whichever they are, with nothing lost",
    },
    state: {
      enum: ["whole", "degraded", "rebuilding", "partly-lost", "lost"],
      description:
        "by the drives that have failed or are missing; rebuilding: a drive that is in the box is being filled " +
        "in the place of one",
    },
    redundancyLeft: {
      type: "integer",
      minimum: -1,
      description: "how many more drives can be lost, whichever, with nothing lost; -1 where data is lost already",
    },
    missing: { ...ids, description: "drives of its groups that have failed or are missing" },
    unreadable: { ...ids, description: "drives whose own files cannot be read until they are restored" },
    smallestFatalSet: ids,
    survival: list(object({ failed: { type: "integer" }, survived: { type: "integer" }, sets: { type: "integer" } })),
    groups: list(
      object(
        {
          id: { type: "string" },
          layout: planSchema.$defs.layoutId,
          drives: ids,
          usableBytes: bytes,
          tolerance: { type: "integer" },
          bands: list(band),
        },
        ["bands"],
      ),
    ),
    volumes: list(
      object({
        volume: { type: "string" },
        bytes,
        structures: bytes,
        notGrown: bytes,
        reserved: bytes,
        rootReserve: bytes,
        headroom: bytes,
        used: bytes,
        left: bytes,
      }),
    ),
    ledger: list(object({ cause: { enum: LEDGER_CAUSES }, bytes, drives: ids })),
    findings: list(named("Finding")),
    chance: {
      ...object({ year: twoRows, tenYears: twoRows, mostly: cause }),
      description:
        "only where it is asked for by name, and of the pools as they are now: how likely its drives cost something, " +
        "of boxes like this; backups, theft and deletion left out",
    },
    withBackups: {
      ...object({ year: byCause, tenYears: byCause, mostly: cause }),
      description: "how likely something is lost that no backup brings back, of the data set that fares worst",
    },
  },
  // Details, which are there where they are asked for.
  ["smallestFatalSet", "survival", "groups", "volumes", "ledger", "findings", "chance", "withBackups"],
);

const said = object({ message: { type: "string" } });

/** How a body is refused that is no request about a plan. */
const refusals = {
  400: json(
    object({
      message: { type: "string" },
      errors: list(object({ pointer: { type: "string" }, message: { type: "string" } })),
    }),
    "The body is no such request, or its plan no plan document; each error with its JSON pointer",
  ),
  413: json(said, "The body is larger than 1 MiB"),
  415: json(said, "The body is not sent as application/json"),
  503: {
    ...json(said, "Too much is asked for at once"),
    headers: { "Retry-After": { description: "seconds", schema: { type: "integer" } } },
  },
};

/** The OpenAPI 3.1 document. The plan itself is described by its own JSON Schema. */
export const openApi = {
  openapi: "3.1.0",
  info: {
    title: "Cortijo",
    version: "1",
    description: "Predicts what a storage plan holds and survives. Nothing is kept.",
  },
  paths: {
    "/api/predict": {
      post: {
        operationId: "predict",
        summary: "What the core says of a plan document",
        parameters: [
          {
            name: "parts",
            in: "query",
            required: false,
            description:
              "Which parts are answered; all of them but `rescue` and `chance` where it is left out. `pools` are those of " +
              "now and, with `moments`, of every moment; `groups`, their `bands`, `volumes`, `survival` and " +
              "`ledger` are details of pools, and bring them; `findings` are those of the box and of whatever " +
              "else is asked; `rescue` is what to do for pools that lack drives; `chance`, which brings `pools` and " +
              "`moments`, is how likely something is lost.",
            style: "form",
            explode: false,
            schema: list({ enum: PARTS }),
            example: ["pools", "ledger"],
          },
        ],
        requestBody: { required: true, content: { "application/json": { schema: { $ref: "/schema/plan-1.json" } } } },
        responses: {
          200: json(named("Prediction"), "The prediction"),
          400: json(
            object({ message: { type: "string" }, errors: list(named("Problem")) }, ["errors"]),
            "The body is not a plan document (each error with its JSON pointer), or there is no such part",
          ),
          413: json(said, "The body is larger than 1 MiB"),
          415: json(said, "The body is not sent as application/json"),
          422: json(
            object({ message: { type: "string" }, findings: list(named("Finding")), parts: list({ enum: PARTS }) }, [
              "parts",
            ]),
            "The plan fits the schema but cannot be, for instance a drive in two groups; or the answer would " +
              "pass 8 MB or take too long, and the message names the parts to ask for",
          ),
          503: {
            ...json(said, "Too much is asked for at once"),
            headers: { "Retry-After": { description: "seconds", schema: { type: "integer" } } },
          },
        },
      },
    },
    "/api/read-box": {
      post: {
        operationId: "readBox",
        summary: "What a box is, by what it prints, and in what it differs from its plan",
        requestBody: {
          required: true,
          content: {
            "application/json": {
              schema: object(
                {
                  blockDevices: { type: "string", description: "the output of `lsblk --json --bytes --output-all`" },
                  arrays: { type: "string", description: "the text of /proc/mdstat" },
                  plan: { $ref: "/schema/plan-1.json" },
                  answers: {
                    type: "object",
                    additionalProperties: { type: "string" },
                    description: "answers to `questions` of an earlier reading, by their ids",
                  },
                },
                ["arrays", "plan", "answers"],
              ),
            },
          },
        },
        responses: {
          200: json(named("ReadBox"), "The box as it is"),
          400: json(
            object({ message: { type: "string" }, errors: list(named("Problem")) }),
            "The body is no such request, or its plan no plan document; each error with its JSON pointer",
          ),
          413: json(said, "The texts are larger than 8 MiB together"),
          415: json(said, "The body is not sent as application/json"),
          422: json(
            object({ message: { type: "string" }, findings: list(named("Finding")) }),
            "The texts are not what a box prints, hold more than a plan does, or the plan contradicts itself",
          ),
          503: {
            ...json(said, "Too much is asked for at once"),
            headers: { "Retry-After": { description: "seconds", schema: { type: "integer" } } },
          },
        },
      },
    },
    "/api/practice-box": {
      post: {
        operationId: "practiceBox",
        summary: "What a simulated box prints after some hours of a plan, with what befalls it",
        requestBody: {
          required: true,
          content: { "application/json": { schema: practiceAsked } },
        },
        responses: {
          200: json(named("PracticeBox"), "What the box prints, and what it has said of itself"),
          ...refusals,
          422: json(
            object({ message: { type: "string" }, findings: list({ type: "object" }) }),
            "The plan contradicts itself, or a mishap is to what is not in it",
          ),
        },
      },
    },
    "/api/best-way": {
      post: {
        operationId: "bestWay",
        summary: "Which drives to buy, when and into which place, so that a box holds what will be stored",
        requestBody: {
          required: true,
          content: { "application/json": { schema: bestWayAsked } },
        },
        responses: {
          200: json(named("BestWay"), "The best way that was found within some seconds, and how good it is"),
          ...refusals,
          422: json(
            object(
              {
                message: { type: "string" },
                month: { type: "integer", description: "the month for which there is no way" },
                enoughCentsPerYear: { type: "integer", description: "what a year would be enough" },
                findings: list({ type: "object" }),
              },
              ["month", "enoughCentsPerYear", "findings"],
            ),
            "There is no way, or the plan contradicts itself",
          ),
        },
      },
    },
    "/schema/plan-1.json": {
      get: {
        operationId: "planSchema",
        summary: "The JSON Schema of plan documents",
        responses: {
          200: { description: "The schema", content: { "application/schema+json": { schema: { type: "object" } } } },
        },
      },
    },
  },
  components: {
    schemas: {
      Problem: problem,
      BestWay: object({
        proved: { type: "boolean", description: "whether no way is better, by these prices" },
        cents: { type: "integer", description: "what the way costs in all" },
        lowerBoundCents: { type: "integer", description: "no way costs less" },
        exposedHours: { type: "number", description: "expected hours for which the loss of any drive would lose data" },
        acts: list(
          object(
            {
              month: { type: "integer", minimum: 0 },
              kind: { enum: ["add", "replace", "further-group", "new-level", "take-out"] },
              group: { type: "string" },
              bytes,
              drive: { type: "string", description: "the bought drive, by its id in `plan`" },
              cents: { type: "integer" },
              replaces: { type: "string", description: "the drive that goes" },
            },
            ["bytes", "drive", "replaces"],
          ),
        ),
        plan: { $ref: "/schema/plan-1.json", description: "with the drives to buy and dated steps" },
        habits: object({ sameSize: habitCents, bestPerTerabyte: habitCents, largest: habitCents }),
      }),
      PracticeBox: object({
        blockDevices: { type: "string", description: "as `lsblk --json --bytes --output-all` prints it" },
        arrays: { type: "string", description: "as /proc/mdstat prints it" },
        smart: {
          ...list({ type: "object" }),
          description: "of each drive that answers, as `smartctl --json` prints it",
        },
        hours: { type: "number" },
        said: list(
          object(
            {
              hours: { type: "number" },
              what: { type: "string", description: "began, ended, refused, stopped, thrown-out, spare-took-over, …" },
              drive: { type: "string" },
              step: { type: "string" },
              why: { type: "string" },
            },
            ["drive", "step", "why"],
          ),
        ),
      }),
      ReadBox: object({
        plan: { $ref: "/schema/plan-1.json", description: "the given plan with the box as it is, or a new one" },
        notMadeOut: { ...list({ type: "string" }), description: "what could not be made out, or was guessed" },
        questions: list(
          object({
            id: { type: "string" },
            asks: { type: "string" },
            choices: list(object({ value: { type: "string" }, label: { type: "string" } })),
            guess: { type: ["string", "null"], description: "what is taken until it is answered" },
            because: { type: "string" },
          }),
        ),
        sizes: {
          ...list(
            object({ array: { type: "string" }, group: { type: "string" }, readBytes: bytes, predictedBytes: bytes }),
          ),
          description: "each array as it is printed, and as its drives give it by the rule of the kernel's driver",
        },
        differences: list(
          object({
            code: {
              enum: [
                "drive-missing",
                "drive-unknown",
                "other-serial",
                "array-degraded",
                "array-running",
                "not-claimed",
                "not-grown",
                "size-differs",
                "level-differs",
                "spare-differs",
              ],
            },
            message: { type: "string" },
            means: { type: "string" },
            drives: ids,
          }),
        ),
        stepsDone: { type: "integer", minimum: 0, description: "how many steps of the plan the box has behind it" },
        running: {
          description: "the step of the plan that is under way",
          anyOf: [
            object({
              step: { type: "string" },
              hoursLeft: object({ low: { type: "number" }, expected: { type: "number" }, high: { type: "number" } }),
            }),
            { type: "null" },
          ],
        },
      }),
      Finding: finding,
      Pool: pool,
      Moment: object(
        {
          after: { type: ["string", "null"], description: "the step after which it is so; null before the first" },
          done: {
            type: "boolean",
            description:
              "whether the step was carried out; one that something blocks, or that is disabled, changes nothing",
          },
          does: { type: "string", description: "what the step does, in a sentence" },
          hours: object({ low: { type: "number" }, expected: { type: "number" }, high: { type: "number" } }),
          boxWork: {
            ...object({
              kind: planSchema.$defs.workKind,
              byRates: { type: "number", description: "expected hours by the usual rates" },
              hours: object({ low: { type: "number" }, expected: { type: "number" }, high: { type: "number" } }),
            }),
            description:
              "what the box does by itself of the hours; corrected by its own times where history or log have any",
          },
          begins: { type: "number", description: "expected hours from the beginning of the plan" },
          ends: { type: "number", description: "the same" },
          startsAt: {
            type: "string",
            format: "date-time",
            description: "where the plan has a calendar: when the step is begun",
          },
          endsAt: { type: "string", format: "date-time" },
          attention: {
            enum: ["box", "screen", null],
            description: "whether somebody has to be at the box, or at the screen, to begin it",
          },
          erased: { ...ids, description: "drives whose content is overwritten" },
          work: list(object({ drive: { type: "string" }, reads: bytes, writes: bytes })),
          online: {
            enum: ["online", "slower", "offline"],
            description: "whether the pool can be used meanwhile, but for the minutes in which drives are changed",
          },
          offlineHours: {
            ...object({ low: { type: "number" }, expected: { type: "number" }, high: { type: "number" } }),
            description: "for how long the pool cannot be used: all the while, for changes of drives, or 0",
          },
          undoable: { type: "boolean" },
          exposure: list(
            object(
              {
                pool: { type: "string" },
                redundancy: {
                  type: "integer",
                  description: "how many drives can be lost while the step runs, with nothing lost",
                },
                usual: { type: "integer" },
                share: {
                  type: "number",
                  description: "of the step's hours, from its beginning; left out where it is all",
                },
              },
              ["share"],
            ),
          ),
          findings: list(named("Finding")),
          capacities: object({ pool: bytes, volume: bytes, fileSystem: bytes }),
          pools: list(named("Pool")),
          chance: {
            ...object({ ...chanceRange.properties, mostly: cause }),
            description: "how likely the step costs something; only where it is asked for by name",
          },
          withBackups: { ...chanceRange, description: "the same of what no backup brings back" },
        },
        [
          "chance",
          "withBackups",
          "done",
          "does",
          "hours",
          "boxWork",
          "begins",
          "ends",
          "startsAt",
          "endsAt",
          "attention",
          "erased",
          "work",
          "online",
          "offlineHours",
          "undoable",
          "exposure",
          "findings",
          "pools",
        ],
      ),
      Outcome: object(
        {
          kind: { enum: ["kept", "from-backup", "until-next-copy", "partly", "since-update", "failed-drives", "lost"] },
          backup: { type: "string" },
          days: { type: "integer", description: "how old what comes back may be" },
          share: { type: "number", description: "of the choices of drives, for how many it is lost here" },
        },
        ["backup", "days", "share"],
      ),
      Coverage: object({
        dataSet: { type: "string" },
        pool: { type: "string" },
        tolerance: {
          type: "integer",
          description: "how many drives of its pool can be lost at once, whichever they are, with nothing lost",
        },
        backups: ids,
        outcomes: object(Object.fromEntries(THREATS.map((threat) => [threat, named("Outcome")]))),
      }),
      Rescue: object({
        pool: { type: "string" },
        readable: { enum: [true, false, "partly"], description: "whether its data can be read now" },
        first: { type: "string", description: "whether the data is safe, in a sentence" },
        wouldTake: { type: "string", description: "which further failures would lose data, by name" },
        comesBack: {
          ...list({ type: "string" }),
          description: "what backups or parity bring back, and what they do not",
        },
        never: { ...list({ type: "string" }), description: "what must not be done, each a sentence" },
        acts: list(
          object(
            {
              does: { type: "string" },
              why: { type: "string" },
              hours: {
                anyOf: [
                  object({ low: { type: "number" }, expected: { type: "number" }, high: { type: "number" } }),
                  { type: "null" },
                ],
              },
              redundancyDuring: { type: "integer", minimum: -1 },
              step: { type: "object", description: "the step of a plan that it is, as plan documents have it" },
            },
            ["step"],
          ),
        ),
        newDrives: { ...list({ type: "object" }), description: "drives to buy that the steps name" },
        buy: {
          description: "what has to be bought at least; null where nothing has to",
          anyOf: [
            object({
              leastBytes: bytes,
              medium: planSchema.$defs.medium,
              bus: planSchema.$defs.bus,
              logicalSector: { type: "integer" },
            }),
            { type: "null" },
          ],
        },
        fits: { ...ids, description: "drives at hand that could take the place of one that is gone" },
        fitsNot: list(object({ drive: { type: "string" }, why: { type: "string" } })),
      }),
      Prediction: object(
        {
          findings: { ...list(named("Finding")), description: "what is to be said of the box itself" },
          pools: list(named("Pool")),
          moments: list(named("Moment")),
          ownTimes: {
            ...list(
              object({
                work: planSchema.$defs.workKind,
                entries: { type: "integer", description: "times of this kind of work on record" },
                ofOtherWork: { type: "integer" },
                factor: object({ low: { type: "number" }, expected: { type: "number" }, high: { type: "number" } }),
              }),
            ),
            description:
              "by what the usual hours were multiplied, learned from the history and the log of the plan; left " +
              "out where they tell nothing",
          },
          orders: list(
            object({
              drives: ids,
              orderOn: { type: "string", format: "date" },
              deliveredOn: { type: "string", format: "date" },
            }),
          ),
          coverage: object({ now: list(named("Coverage")), after: list(named("Coverage")) }),
          backups: {
            ...list(object({ backup: { type: "string" }, fullOn: { type: ["string", "null"], format: "date" } })),
            description: "when a backup no longer holds what it backs up; null if not within 50 years",
          },
          rescue: { ...list(named("Rescue")), description: "only where it is asked for by name" },
          planChance: {
            ...chanceRange,
            description: "how likely the steps cost something; only where `chance` is asked for by name",
          },
          planWithBackups: { ...chanceRange, description: "the same of what no backup brings back" },
          demand: list(
            object({
              volume: { type: "string" },
              fullOn: { type: ["string", "null"], format: "date", description: "null if not within 50 years" },
              fullWithoutPlanOn: { type: ["string", "null"], format: "date" },
            }),
          ),
        },
        [
          "findings",
          "pools",
          "moments",
          "ownTimes",
          "orders",
          "coverage",
          "backups",
          "demand",
          "rescue",
          "planChance",
          "planWithBackups",
        ],
      ),
    },
  },
};

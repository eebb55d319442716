import { ownValue, withValue } from "../records/ownValue";

/** What a layout, a kind of step and a rule were called in documents that were written before they got their names. */
const LAYOUTS: Readonly<Record<string, string>> = { "spanned-mirror": "mirror-onto-one" };
const STEPS: Readonly<Record<string, string>> = { sync: "update-parity" };
const RULES: Readonly<Record<string, string>> = { rightSizeShare: "replacementMarginShare" };

type Json = Record<string, unknown>;
const isObject = (value: unknown): value is Json =>
  typeof value === "object" && value !== null && !Array.isArray(value);
const named = (names: Readonly<Record<string, string>>, name: unknown) =>
  typeof name === "string" ? (ownValue(names, name) ?? name) : name;

/** The object with one entry changed; the very object where the entry stays as it is, or is not there. */
function changed(object: Json, key: string, change: (value: unknown) => unknown): Json {
  const before = ownValue(object, key);
  const after = before === undefined ? undefined : change(before);
  return after === before ? object : withValue(object, key, after);
}

/** The list with each entry changed; the very list where none is. */
function each(list: unknown, change: (entry: Json) => Json): unknown {
  if (!Array.isArray(list)) return list;
  const next = list.map((entry: unknown) => (isObject(entry) ? change(entry) : entry));
  return next.some((entry, i) => entry !== list[i]) ? next : list;
}

/** The answers of a box with the names that rules and layouts have now. */
function overrides(value: unknown): unknown {
  if (!isObject(value)) return value;
  const layouts = changed(value, "layouts", (list) =>
    Array.isArray(list) && list.some((id) => named(LAYOUTS, id) !== id) ? list.map((id) => named(LAYOUTS, id)) : list,
  );
  if (!Object.keys(layouts).some((key) => Object.hasOwn(RULES, key))) return layouts;
  return Object.fromEntries(Object.entries(layouts).map(([key, own]) => [String(named(RULES, key)), own]));
}

const box = (value: unknown): unknown =>
  isObject(value)
    ? changed(value, "rules", (rules) => (isObject(rules) ? changed(rules, "overrides", overrides) : rules))
    : value;
const layout = (object: Json): Json => changed(object, "layout", (id) => named(LAYOUTS, id));
const step = (object: Json): Json =>
  changed(
    changed(layout(object), "kind", (kind) => named(STEPS, kind)),
    "box",
    box,
  );

/**
 * A plan document, before it is checked, with what was renamed since called by its present name: documents of any age
 * are read, and only the present names are written. What is no plan is given back as it is.
 *
 * @param value what JSON.parse gave
 * @returns the very value where nothing in it has a former name
 * @example withPresentNames({ steps: [{ kind: "sync", pool: "p1" }] })
 * // { steps: [{ kind: "update-parity", pool: "p1" }] }
 */
export function withPresentNames(value: unknown): unknown {
  if (!isObject(value)) return value;
  const pools = changed(value, "pools", (list) =>
    each(list, (pool) => changed(pool, "groups", (groups) => each(groups, layout))),
  );
  return changed(
    changed(pools, "steps", (steps) => each(steps, step)),
    "box",
    box,
  );
}

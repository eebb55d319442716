import { readFileSync } from "node:fs";
import type { Plan } from "../../src/core/document/plan";
import { likelyWalk, type Dice } from "../../src/core/testing/likelyPlan";

/** As much of JSON Schema as the schema of plans uses. */
interface Schema {
  $ref?: string;
  allOf?: Schema[];
  oneOf?: Schema[];
  type?: string | string[];
  enum?: unknown[];
  const?: unknown;
  minimum?: number;
  maximum?: number;
  pattern?: string;
  properties?: Record<string, Schema>;
  required?: string[];
  items?: Schema;
  maxItems?: number;
}

/** Read, and not imported: what runs browser tests takes no JSON for a module. */
const schema = JSON.parse(readFileSync("src/core/document/schema/plan-1.json", "utf8")) as Schema & {
  $defs: Record<string, Schema>;
};
const definitions = schema.$defs;

function resolved(of: Schema): Schema {
  const target = of.$ref ?? of.allOf?.[0]?.$ref;
  return target ? { ...resolved(definitions[target.split("/").at(-1)!]!), ...of, $ref: undefined } : of;
}

/** The shape that a value has of those that it may have. */
function shapeOf(of: Schema, value: unknown): Schema {
  const whole = resolved(of);
  if (!whole.oneOf) return whole;
  const shapes = whole.oneOf.map(resolved);
  const has = (shape: Schema) => {
    const fields = Object.entries(shape.properties ?? {});
    const kind = fields.find(([, field]) => field.const !== undefined);
    const given = value as Record<string, unknown>;
    return kind ? given[kind[0]] === kind[1].const : (shape.required ?? []).every((name) => name in given);
  };
  return shapes.find(has) ?? shapes[0]!;
}

/** A number at an end of its range, near one, or anywhere in it. */
function numberIn(of: Schema, dice: Dice): number {
  const [least, most] = [of.minimum ?? 0, of.maximum ?? Number.MAX_SAFE_INTEGER];
  const whole = [of.type].flat().includes("integer");
  const anywhere = least + (most - least) * (dice.below(1000) / 1000) ** dice.one([1, 4, 9]);
  const drawn = dice.one([least, most, Math.min(most, least + 1), anywhere]);
  return whole ? Math.round(drawn) : drawn;
}

const TEXTS = ["", "constructor", "<b>&amp;</b>", "é ü 漢字 🙂", "a".repeat(120), '"\\\n'];
const DAYS = ["1900-01-01", "2024-02-29", "2026-11-26", "2100-12-31"];

/** A value that the schema allows, as far as it can be made without knowing what it refers to. */
function made(of: Schema, dice: Dice): unknown {
  const shape = resolved(of);
  if (shape.const !== undefined) return shape.const;
  if (shape.enum) return dice.one(shape.enum);
  const types = [shape.type].flat();
  if (types.includes("null") && dice.below(4) === 0) return null;
  if (types.includes("integer") || types.includes("number")) return numberIn(shape, dice);
  if (types.includes("boolean")) return dice.below(2) === 0;
  return undefined;
}

/** Changes numbers, choices, texts and days within a value to others that the schema allows, and adds optional ones. */
function stretch(value: unknown, of: Schema, dice: Dice, rate: number): unknown {
  const shape = shapeOf(of, value);
  if (Array.isArray(value)) return value.map((item) => stretch(item, shape.items ?? {}, dice, rate));
  if (typeof value === "object" && value !== null) {
    const kept = Object.entries(value).map(([name, field]): [string, unknown] => {
      const within = shape.properties?.[name];
      return [name, within ? stretch(field, within, dice, rate) : field];
    });
    const added = Object.entries(shape.properties ?? {}).flatMap(([name, field]): [string, unknown][] => {
      if (Object.hasOwn(value, name) || dice.below(100) >= rate * 30) return [];
      const more = made(field, dice);
      return more === undefined ? [] : [[name, more]];
    });
    return Object.fromEntries([...kept, ...added]);
  }
  return dice.below(100) < rate * 100 ? otherLeaf(value, of, shape, dice) : value;
}

/** Another text, day, number or choice in the place of one. */
function otherLeaf(value: unknown, of: Schema, shape: Schema, dice: Dice): unknown {
  if (typeof value === "string" && shape.pattern?.startsWith("^(19")) return dice.one(DAYS);
  if (typeof value === "string" && !shape.enum && !shape.pattern && shape.const === undefined) return dice.one(TEXTS);
  return typeof value === "string" && shape.pattern ? value : (made(of, dice) ?? value);
}

/** Names that every object knows, in place of those that plans are drawn with. */
const NASTY: Record<string, string> = {
  d1: "constructor",
  d2: "__proto__",
  d3: "toString",
  x1: "hasOwnProperty",
  g1: "valueOf",
  g11: "__proto__",
  p1: "constructor",
  v1: "toString",
  s1: "__proto__",
};

const renamed = (plan: Plan): Plan =>
  JSON.parse(
    JSON.stringify(plan).replace(/"([dxgpvs]\d+)"/g, (all, id: string) => (id in NASTY ? `"${NASTY[id]}"` : all)),
  );

/** A likely plan of up to so many steps, with names that every object knows. */
export const nastyPlan = (seed: number, steps: number): Plan => renamed(likelyWalk(seed, steps).plan);

/**
 * A plan out to the ends of what the schema allows: sizes from a byte to a petabyte, any rules, shares and days. Not
 * all of them can be: what they refer to may not fit any more.
 *
 * @param rate which share of its values is changed
 */
export const stretchedPlan = (plan: Plan, dice: Dice, rate: number): unknown => stretch(plan, schema, dice, rate);

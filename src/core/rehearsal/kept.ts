import type { KeptRehearsal, KeptStrike } from "../document/plan";
import type { Mishap } from "../simulator/mishaps";
import type { Script, Strike } from "./script";

/** Kinds that befall the box, and what of a kept one those say that befall something of it. */
const OF_THE_BOX: ReadonlySet<KeptStrike["kind"]> = new Set(["power-cut", "grow-forgotten", "fire"]);

/** A mishap as a kept one says; undefined where it does not say what it befalls. */
function mishapOf({ kind, of = "", amount = 1 }: KeptStrike): Mishap | undefined {
  if (of === "" && !OF_THE_BOX.has(kind)) return undefined;
  switch (kind) {
    case "power-cut":
    case "grow-forgotten":
    case "fire":
      return { kind };
    case "parity-updated":
      return { kind, pool: of };
    case "deletion":
      return { kind, volume: of };
    case "unreadable":
      return { kind, drive: of, blocks: Math.max(1, Math.round(amount)) };
    case "short":
      return { kind, drive: of, bytes: Math.round(amount) };
    case "slow":
      return { kind, drive: of, times: Math.max(1, amount) };
    default:
      return { kind, drive: of };
  }
}

/** What a mishap befalls, and how much. */
function keptMishap(mishap: Mishap): Pick<KeptStrike, "kind" | "of" | "amount"> {
  const { kind } = mishap;
  const of =
    "drive" in mishap ? mishap.drive : "volume" in mishap ? mishap.volume : "pool" in mishap ? mishap.pool : undefined;
  const amount =
    "blocks" in mishap
      ? mishap.blocks
      : "bytes" in mishap
        ? mishap.bytes
        : "times" in mishap
          ? mishap.times
          : undefined;
  return { kind, ...(of === undefined ? {} : { of }), ...(amount === undefined ? {} : { amount }) };
}

/**
 * A script as a plan document keeps it.
 *
 * @example keptOf(script, "A second drive dies").strikes[0] // { kind: "drive-dies", of: "d3", step: "s2", hours: 6 }
 */
export const keptOf = ({ seed, strikes, answers, otherwise }: Script, name: string): Omit<KeptRehearsal, "id"> => ({
  name,
  seed,
  strikes: strikes.map(({ step, hours, mishap }) => ({
    ...keptMishap(mishap),
    ...(step === undefined ? {} : { step }),
    hours: Math.round(hours * 1e6) / 1e6,
  })),
  answers: [...answers],
  ...(otherwise === undefined ? {} : { otherwise }),
});

/**
 * A kept rehearsal as it is played; a mishap that does not say what it befalls is left out.
 *
 * @example scriptOfKept(plan.rehearsals[0]).strikes.length // 2
 */
export const scriptOfKept = ({ seed, strikes, answers, otherwise }: KeptRehearsal): Script => ({
  seed,
  strikes: strikes.flatMap((strike): Strike[] => {
    const mishap = mishapOf(strike);
    return mishap ? [{ ...(strike.step === undefined ? {} : { step: strike.step }), hours: strike.hours, mishap }] : [];
  }),
  answers,
  ...(otherwise === undefined ? {} : { otherwise }),
});

import { contentsOf } from "@/core/bands/contents";
import { conditionOf } from "@/core/box/condition";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import { coveredClinic } from "@/core/document/samples/coveredClinic";
import { predict } from "@/core/prediction/predict";
import { clinicPlan, away, DAY } from "@/core/testing/dataPlan";
import type { Script } from "@/core/rehearsal/script";
import { outcomeOf } from "@/core/rehearsal/outcome";
import { playTo } from "@/core/rehearsal/play";
import { begin } from "@/core/rehearsal/stage";
import { scriptOfKept } from "@/core/rehearsal/kept";
import { Played } from "./played";

const ADVISER = { family: "TB", day: DAY } as const;
const plan = clinicPlan({
  steps: [
    { id: "s1", kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" },
    { id: "s2", kind: "verify", pool: "p1" },
  ],
  backups: [away],
});
const NOTHING: Script = { seed: 1, strikes: [], answers: [] };
const play = (script = NOTHING) => new Played(plan, ADVISER, script);

/** What an outcome comes to, however its hours were summed. */
const inShort = (of: Played) => {
  const { became, losses, hours } = outcomeOf(of.stage);
  return { became, losses, hours: hours.toFixed(6), said: of.stage.practice.said.length };
};

test("going back and on again comes to the same as going on at once", () => {
  const [one, other] = [play(), play()];
  for (const each of [one, other]) {
    each.seek(4);
    each.strike({ kind: "unreadable", drive: "d3", blocks: 3 }, 4);
  }
  for (const hours of [9, 2, 6, 0, 11]) one.seek(hours);
  one.seek(Infinity);
  other.seek(Infinity);
  expect(inShort(one)).toEqual(inShort(other));
  expect(one.isOver).toBe(true);
});

test("a new drive counts as soon as it is filled, though the box still writes what it brings", () => {
  const steps = coveredClinic.steps.filter(({ id }) => id === "s3");
  const clinic = new Played({ ...coveredClinic, steps }, ADVISER, NOTHING);
  const stands = (hours: number) => {
    clinic.seek(hours);
    const { plan: now, work } = clinic.view("TB");
    expect(work).toHaveLength(1);
    return {
      state: conditionOf(now, now.pools[0]!, rulesOfBox(now)).state,
      data: predict(now, "TB").pools[0]!.groups[0]!.bands.reduce((sum, band) => sum + contentsOf(band).data, 0),
    };
  };
  const before = predict(coveredClinic, "TB").pools[0]!.groups[0]!.bands;
  const data = before.reduce((sum, band) => sum + contentsOf(band).data, 0);
  expect(stands(5)).toMatchObject({ state: "degraded" });
  expect(stands(20)).toEqual({ state: "whole", data });
});

test("a mishap that is taken back was never there, and what was answered to it neither", () => {
  const [played, usual] = [play(), play()];
  usual.seek(Infinity);
  played.seek(5);
  played.strike({ kind: "drive-dies", drive: "d2" }, 5);
  expect(played.stage.troubles).toHaveLength(1);
  played.answer("advised");
  played.seek(20);
  expect(played.takeBack()).toBe(true);
  expect(played.hours).toBeCloseTo(5, 6);
  played.seek(Infinity);
  expect(inShort(played)).toEqual(inShort(usual));
  expect(played.takeBack()).toBe(false);
});

test("what is changed in a case that answers by itself keeps the answers given so far", () => {
  const strike = { step: "s1", hours: 2, mishap: { kind: "goes-missing", drive: "d3" } } as const;
  const played = play({ seed: 1, strikes: [strike], answers: [], otherwise: "advised" });
  played.seek(4);
  expect(played.stage.answers).toEqual(["advised"]);
  played.strike({ kind: "drive-dies", drive: "d2" }, 4);
  expect(played.script.answers).toEqual(["advised"]);
  expect(played.stage.troubles).toHaveLength(1);
  // From the beginning it comes to the same question.
  played.seek(0);
  played.seek(Infinity);
  expect(played.stage.answers).toEqual(["advised"]);
  expect(played.stage.troubles).toMatchObject([{ kind: "gone", drive: "d2" }]);
});

test("as it is kept, each mishap counts from its step, and it comes to the same", () => {
  const played = play();
  played.seek(5);
  played.strike({ kind: "drive-dies", drive: "d2" }, 5);
  played.answer("advised");
  played.seek(Infinity);
  const kept = played.kept("A bad night");
  expect(kept.strikes).toMatchObject([{ kind: "drive-dies", of: "d2", step: "s1" }]);
  const stage = begin(plan, { ...ADVISER, script: scriptOfKept({ id: "r1", ...kept }) });
  playTo(stage, Infinity);
  expect(outcomeOf(stage).losses).toEqual(outcomeOf(played.stage).losses);
});

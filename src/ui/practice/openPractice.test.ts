import { practiceBox } from "@/core/document/samples/practiceBox";
import { testDrive } from "@/core/testing/arbitraries";
import type { Plan, Step } from "@/core/document/plan";
import { OpenPractice } from "./openPractice";

const HOUR = 3_600_000;
const SINCE = Date.parse("2026-12-01T09:00Z");
const [verify, widen] = practiceBox.steps as [Step, Step];
const opened = () =>
  new OpenPractice({ id: "p", plan: { ...practiceBox, steps: [] }, seed: 1, acts: [], since: SINCE, ahead: 0 });
const at = (hours: number) => SINCE + hours * HOUR;

test("a step that has not ended on it cannot be recorded as ended, and why is said", () => {
  const box = opened();
  expect(box.begin(verify, "Check", practiceBox, 0, at(0))?.refused).toBeNull();
  expect(box.notEnded("s1", at(1))).toBe(
    "The practice box is still at it: 10 % is done, and it takes about 8 hours more. Let its clock go on first.",
  );
  expect(box.notEnded("s1", at(10))).toBeNull();
  // What was begun before it was set up is the owner's business.
  expect(box.notEnded("s9", at(10))).toBeNull();
});

test("a step that it could not end says so", () => {
  const box = opened();
  box.begin(
    { id: "s7", kind: "replace-drive", drive: "d1", by: "d6", how: "pulled" },
    "Replace",
    practiceBox,
    0,
    at(0),
  );
  box.befall({ kind: "dies-young", drive: "d6" }, at(2));
  expect(box.notEnded("s7", at(3))).toMatch(/^The practice box could not end this step\./);
});

test("what the plan took back is not done twice, and what is planned again under the same name is", () => {
  const box = opened();
  box.begin(widen, "Widen", practiceBox, 0, at(0));
  // The beginning was undone, and pressed again.
  expect(box.begin(widen, "Widen", practiceBox, 0, at(1))).toBeNull();
  expect(box.view(at(30), "TB").said.map(({ words }) => words)).toEqual(["Ended: Widen.", "Began: Widen."]);
  // The end was undone, and the step is carried out once more: the box has done it.
  expect(box.begin(widen, "Widen", practiceBox, 0, at(31))).toBeNull();
  // Another check that got the id of one that is done and recorded.
  const second = opened();
  second.begin(verify, "Check", practiceBox, 0, at(0));
  expect(second.begin(verify, "Check once more", practiceBox, 1, at(20))?.refused).toBeNull();
  expect(second.view(at(20.5), "TB").work.map(({ label }) => label)).toEqual(["Check once more"]);
});

test("a drive that the plan has got since is beside it, and can be put to use", () => {
  const box = opened();
  const plan: Plan = { ...practiceBox, drives: [...practiceBox.drives, testDrive("d9", 8e12, { serial: "TJ8-9" })] };
  const rebuilt: Step = { id: "s8", kind: "replace-drive", drive: "d2", by: "d9", how: "attached" };
  expect(box.begin(rebuilt, "Replace", plan, 0, at(1))?.refused).toBeNull();
  const { drives, bays } = box.view(at(2), "TB");
  expect(bays).toBe(6);
  expect(drives.find(({ id }) => id === "d9")).toMatchObject({ serial: "TJ8-9", bay: 4, is: "is being filled" });
});

test("it is as it was when it is opened again, by its own clock", () => {
  const box = opened();
  const acts = [
    box.begin(verify, "Check", practiceBox, 0, at(0))!,
    box.befall({ kind: "drive-dies", drive: "d3" }, at(4)),
    box.pull("d3", at(5)),
    box.seat("d4", at(6)),
  ].map(({ act }) => act);
  const again = new OpenPractice({
    id: "p",
    plan: { ...practiceBox, steps: [] },
    seed: 1,
    acts,
    since: SINCE,
    ahead: 3 * HOUR,
  });
  const seen = (practice: OpenPractice) => {
    const { work, ...view } = practice.view(at(8), "TB");
    return {
      ...view,
      work: work.map((each) => ({ ...each, hoursLeft: each.hoursLeft.toFixed(6), share: each.share.toFixed(6) })),
    };
  };
  expect(seen(again)).toEqual(seen(box));
  expect(again.truth(at(8))).toEqual(box.truth(at(8)));
  expect(again.face(at(8))).toEqual(box.face(at(8)));
});

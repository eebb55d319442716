import { boxWith } from "@/core/testing/boxWith";
import { numbered } from "@/core/testing/anySteps";
import { schedulePlan } from "@/core/schedule/schedulePlan";
import { coveredClinic } from "@/core/document/samples/coveredClinic";
import { walkPlan } from "@/core/walk/walkPlan";
import { spokenMoment } from "./spokenMoment";

const plan = boxWith("classic-raid", "raid5", [4, 4, 4], [4, 8]);
const walk = walkPlan(
  numbered(plan, [
    { kind: "verify", pool: "p1" },
    { kind: "replace-drive", drive: "d1", by: "x2", how: "pulled" },
    { kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" },
    { kind: "verify", pool: "p1", disabled: true } as never,
  ]),
);
const said = (at: number) => spokenMoment(walk, null, at, "TB").replace(/\u00a0|\u202f/g, " ");

test("a moment is heard in the order of what matters: when, what is left of protection, what is done, figures", () => {
  expect(said(0)).toBe("Now, before the first step. Survives the loss of any one drive. 8.00 TB in the pool.");
  // A check exposes nothing: what is survived is said all the same.
  expect(said(1)).toMatch(
    /^Day 1, after step 1 of 4\. Survives the loss of any one drive\. .* 8\.00 TB in the pool\.$/,
  );
  expect(said(2)).toMatch(
    /^Day \d, after step 2 of 4\. Meanwhile, one more failed drive would lose data\. The 4 TB .* 8\.00 TB in the pool\.$/,
  );
  // The drive that it would replace has gone.
  expect(said(3)).toMatch(/^Day \d, after step 3 of 4\. It cannot be carried out as planned\. /);
  expect(said(4)).toMatch(/^Day \d, after step 4 of 4\. Skipped\. /);
});

test("of several pools, the one that is exposed most is told of", () => {
  const [now, one, two, ...rest] = walk.moments;
  const exposure = [1, 0, 2].map((redundancy, i) => ({ pool: `p${i}`, redundancy, usual: 2 }));
  const moments = [now!, one!, { ...two!, walked: { ...two!.walked!, exposure } }, ...rest];
  expect(spokenMoment({ ...walk, moments }, null, 2, "TB")).toContain(
    "Meanwhile, one more failed drive would lose data.",
  );
});

test("where the plan has dates, they are what is heard first", () => {
  const walked = walkPlan(coveredClinic);
  const dates = schedulePlan(walked, coveredClinic.calendar!);
  expect(spokenMoment(walked, dates, 1, "TB")).toMatch(
    /^(Mon|Tue|Wed|Thu|Fri|Sat|Sun) \d+ \w{3} 20\d\d, after step 1 of /,
  );
});

import { growingClinic } from "@/core/document/samples/growingClinic";
import type { Plan } from "@/core/document/plan";
import { readPlanLink, writePlanLink } from "./planLink";

test("a link leaves history and log out, however long they are, and carries the rest", () => {
  const entry = { what: "check" as const, text: "Check (scrub)", start: "2026-11-01T08:00Z", end: "2026-11-01T19:00Z" };
  const log = Array.from({ length: 4000 }, (_, i) => ({ ...entry, id: `l${i + 1}` }));
  const plan: Plan = { ...growingClinic, log, ratesOnly: ["backup"] };
  const link = writePlanLink(plan, "http://localhost:3000");
  if (!link.ok) throw new Error(link.message);
  const { log: _log, ...rest } = plan;
  expect(readPlanLink(new URL(link.url).hash)).toMatchObject({ ok: true, plan: rest });
  expect(writePlanLink(rest, "http://localhost:3000")).toEqual(link);
});

import { choir } from "@/core/document/samples/choir";
import type { Command } from "@/core/document/command";
import type { Plan, StepBody } from "@/core/document/plan";
import type { Act } from "@/core/steps/propose";
import { joiners, plannedAs } from "./plannedAs";

/** The choir's box: a mirror of two in bays 1 and 2, one more drive of 4 TB on the shelf. */
const as = (command: Command, plan: Plan = choir) => plannedAs(command, plan, new Set());
const reason = (command: Command, plan: Plan = choir) => {
  const planned = as(command, plan);
  return planned.kind === "no-step" ? planned.reason : planned.kind;
};

const act = (what: Act) => ({ kind: "act", act: what });
const steps = (...bodies: StepBody[]) => ({ kind: "steps", steps: bodies });

describe("what a hand on the box means at a moment of the plan", () => {
  test("a drive from the shelf on one in a bay takes its place; in a free bay it joins", () => {
    expect(as({ kind: "move-drive", drive: "d3", to: { bay: 2 } })).toEqual(
      act({ kind: "replace", drive: "d2", by: "d3" }),
    );
    expect(as({ kind: "move-drive", drive: "d3", to: { bay: 3 } })).toEqual(
      act({ kind: "join", group: "g1", drives: ["d3"] }),
    );
    const empty = { ...choir, pools: [] };
    expect(reason({ kind: "move-drive", drive: "d3", to: { bay: 3 } }, empty)).toMatch(/places of drives/);
    expect(reason({ kind: "move-drive", drive: "d1", to: { bay: 2 } })).toMatch(/places of drives/);
  });
  test("a member on the shelf is pulled; a free drive put away is no step", () => {
    expect(as({ kind: "move-drive", drive: "d1", to: { shelf: true } })).toEqual(act({ kind: "pull", drive: "d1" }));
    expect(reason({ kind: "move-drive", drive: "d3", to: { shelf: true } })).toMatch(/no step/);
  });
  test("drives given to a group, or seated, join; without a pool there is nothing to join", () => {
    const join = { kind: "act", act: { kind: "join", group: "g1", drives: ["d3"] } };
    expect(as({ kind: "add-to-group", group: "g1", drives: ["d3"] })).toEqual(join);
    expect(as({ kind: "seat-drives", drives: ["d3"] })).toEqual(join);
    expect(reason({ kind: "seat-drives", drives: ["d3"] }, { ...choir, pools: [] })).toMatch(/no pool/);
  });
  test("one member that leaves is pulled, what stands beside the pool stands by no more", () => {
    expect(as({ kind: "leave-group", drives: ["d2"] })).toEqual({ kind: "act", act: { kind: "pull", drive: "d2" } });
    expect(as({ kind: "leave-group", drives: ["d3"] })).toEqual(steps({ kind: "remove-spare", drive: "d3" }));
    expect(as({ kind: "leave-group", drives: [] }).kind).toBe("as-it-is");
    expect(as({ kind: "set-spare", pool: "p1", drives: ["d3"] })).toEqual(
      steps({ kind: "set-spare", pool: "p1", drive: "d3" }),
    );
  });
  test("a group made gets ids that neither the box nor another step has", () => {
    const made = (pool: string | null, plan = choir) =>
      as({ kind: "make-group", drives: ["d3"], layout: "single", pool }, plan);
    expect(made("p1")).toMatchObject({ steps: [{ kind: "add-group", pool: "p1", group: "g2" }] });
    const busy: Plan = {
      ...choir,
      steps: [{ id: "s1", kind: "create-group", pool: "p2", group: "g2", name: "", layout: "single", drives: ["d3"] }],
    };
    expect(made(null, busy)).toMatchObject({
      steps: [{ kind: "create-group", pool: "p3", group: "g3", name: "Pool 2" }],
    });
  });
  test("another layout is a level with as many drives as it takes: good ones, large enough, smallest first", () => {
    expect(as({ kind: "change-layout", group: "g1", layout: "raid5" })).toEqual(
      act({ kind: "level", group: "g1", layout: "raid5", drives: ["d3"] }),
    );
    expect(as({ kind: "change-layout", group: "g9", layout: "raid5" }).kind).toBe("as-it-is");
    const more = (bytes: number, state: "good" | "watch" = "good") => ({
      ...choir.drives[2]!,
      bytes,
      health: { state },
    });
    const plan: Plan = {
      ...choir,
      drives: [
        ...choir.drives.slice(0, 2),
        { ...more(8e12), id: "a", serial: "a" },
        { ...more(3e12), id: "b", serial: "b" },
        { ...more(6e12), id: "c", serial: "c" },
        { ...more(5e12, "watch"), id: "e", serial: "e" },
      ],
    };
    expect(joiners(plan, plan.pools[0]!.groups[0]!, "raid6", new Set())).toEqual(["c", "a"]);
    expect(joiners(plan, plan.pools[0]!.groups[0]!, "raid6", new Set(["b", "d1"]))).toEqual(["b"]);
    expect(joiners(plan, plan.pools[0]!.groups[0]!, "raid1", new Set())).toEqual([]);
  });
  test.each<[Command, RegExp]>([
    [{ kind: "take-apart", group: "g1" }, /cannot be planned/],
    [{ kind: "set-options", group: "g1", options: {} }, /cannot be planned/],
    [{ kind: "set-landing", pool: "p1", landsFor: null }, /cannot be planned/],
    [{ kind: "set-helper", pool: "p1", drives: ["d3"], role: "read-cache" }, /cannot be planned/],
    [{ kind: "make-groups", groups: [["d3"]], layout: "single" }, /cannot be planned/],
    [{ kind: "remove-volume", pool: "p1", volume: "v1" }, /^Volumes/],
    [{ kind: "edit-volume", pool: "p1", volume: "v1", changes: {} }, /^Volumes/],
    [{ kind: "rename-plan", name: "x" }, /^as-it-is$/],
    [{ kind: "add-drives", drives: [] }, /^as-it-is$/],
  ])("%j", (command, expected) => expect(reason(command)).toMatch(expected));
});

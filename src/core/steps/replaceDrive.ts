import { BY_HAND } from "./stepMenu";
import { formatBytes, formatExactBytes } from "../bytes/formatBytes";
import { bayOf } from "../drives/drive";
import { roomOf, limitedRoom } from "../drives/room";
import { fateOf } from "../failures/fate";
import { layoutOf } from "../layouts/registry";
import { rebuildsOf } from "../speeds/rebuild";
import { hoursFor } from "../time/hours";
import { REBUILD_SHARE } from "../drives/rates";
import { handling, joiningFindings, missingDrives, named } from "./checks";
import { filledOf } from "./filledOf";
import { against, noCost, type StepModule } from "./stepModule";
import { freeBay } from "../box/bays";
import { isFree, groupOfDrive } from "../box/members";
import { driveOf, drivesOf } from "../box/find";
import { changed } from "../box/state";
import { bandsOfGroup, bandsOfPool } from "../box/figures";
import { heightOn, occupied } from "../bands/occupied";
import { storedIn } from "../box/capacities";
import { slowestRate } from "../box/passHours";
import { capital } from "../words/capital";

/** Within this share a volume a hair smaller, or a right-size margin, would have let the drive in. */
const A_HAIR = 0.001;

/** Another drive in the place of one, with the old one still attached or pulled first. The group keeps its height. */
export const replaceDrive: StepModule<"replace-drive"> = {
  kind: "replace-drive",
  name: "Replace a drive",
  handles: (step) => [step.by],
  label: (step, names) => `Replace ${names.place(step.drive)} by ${names.size(step.by)}`,
  menu: BY_HAND,
  check: (state, step, setting) => {
    const { plan, tested } = state;
    const { rules, family } = setting;
    const owner = groupOfDrive(plan, step.drive);
    const found = missingDrives(plan, [step.drive, step.by]);
    if (found.length > 0) return found;
    const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
    if (!owner || !old || !next)
      return [
        against(
          "block",
          "not-a-member",
          `${capital(named(plan, step.drive, setting))} is in no group at this moment.`,
          [step.drive],
        ),
      ];
    const bands = bandsOfGroup(plan, owner.group, rules);
    const height = heightOn(bands, old.id, roomOf(old, rules).systemReserve);
    const room = roomOf(next, rules);
    if (!isFree(plan, step.by))
      found.push(
        against(
          "block",
          "drive-taken",
          `${capital(named(plan, step.by, setting))} is in use at this moment. Choose a free drive.`,
          [step.by],
        ),
      );
    if (room.between < height) {
      const short = height - room.between;
      const hair = short < height * A_HAIR;
      found.push(
        against(
          "block",
          "too-small",
          `${capital(named(plan, step.by, setting))} is too small by ${hair ? formatExactBytes(short) : formatBytes(short, family)}: the group uses ${formatBytes(height, family)} of the drive it replaces.${hair ? " A right-size margin, or a volume shrunk by a hair before, would have let it in." : ""}`,
          [step.by],
        ),
      );
    }
    if (layoutOf(owner.group.layout).dedicatedParity) {
      const parity =
        bands[0]?.members
          .slice(bands[0].scheme.kind === "dedicated-parity" ? -bands[0].scheme.parity : bands[0].members.length)
          .map((member) => member.drive) ?? [];
      const least = Math.min(...drivesOf(plan, parity).map((drive) => roomOf(drive, rules).length));
      if (parity.includes(old.id))
        found.push(
          against(
            "block",
            "is-the-parity-drive",
            "That is the parity drive: change it with its own step, which works the parity out anew.",
            [old.id],
            {
              label: "Change the parity drive",
              command: {
                kind: "replace-step",
                step: step.id,
                by: [{ kind: "change-parity-drive", group: owner.group.id, drive: old.id, by: next.id }],
              },
            },
          ),
        );
      else if (room.length > least)
        found.push(
          against(
            "block",
            "larger-than-parity",
            `${capital(named(plan, step.by, setting))} is larger than the parity drive. Change the parity drive for a larger one first.`,
            [step.by],
          ),
        );
    }
    const survives = fateOf(bandsOfPool(plan, owner.pool, rules), new Set([step.drive]));
    if (step.how === "pulled") {
      if (survives.kind === "lost" || survives.kind === "partly-lost")
        found.push(
          against(
            "block",
            "nothing-to-rebuild-from",
            `Without ${named(plan, step.drive, setting)} data is lost: nothing can be rebuilt. ${rules.replacing === "old-attached" ? "Keep the old drive attached while the new one is filled." : "Rebuild from a backup."}`,
            [step.drive],
          ),
        );
      else if (survives.kind === "degraded" && survives.redundancy === 0)
        found.push(against("warn", "no-redundancy", "While the new drive is filled, no drive may fail.", [step.drive]));
    } else if (rules.replacing !== "old-attached") {
      found.push(
        against(
          "block",
          "not-attached",
          "By its rules your box replaces a drive only after the old one is pulled.",
          [],
          { label: "Pull it first", command: { kind: "edit-step", step: step.id, changes: { how: "pulled" } } },
        ),
      );
    } else if (bayOf(next) === null && freeBay(plan) === null) {
      found.push(
        against("block", "no-free-bay", "No bay is free for the new drive while the old one is still in.", [], {
          label: "Pull it first",
          command: { kind: "edit-step", step: step.id, changes: { how: "pulled" } },
        }),
      );
    }
    return [
      ...found,
      ...joiningFindings(
        [next],
        drivesOf(plan, owner.group.drives).filter((drive) => drive.id !== old.id),
        owner.group,
        setting,
        tested,
      ),
    ];
  },
  apply: (state, step, { rules }) =>
    changed(state, (plan) => {
      const owner = groupOfDrive(plan, step.drive);
      const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
      if (!owner || !old || !next) return;
      const { group, pool } = owner;
      const reached = limitedRoom(roomOf(old, rules), group.reach?.[old.id]).between;
      if (layoutOf(group.layout).chunked) {
        const filled = filledOf(plan, pool, group, rules);
        filled[next.id] = filled[old.id] ?? 0;
        delete filled[old.id];
        group.filled = filled;
      }
      group.drives[group.drives.indexOf(old.id)] = next.id;
      const parity = group.options?.parityDrives;
      if (parity)
        group.options = { ...group.options, parityDrives: parity.map((id) => (id === old.id ? next.id : id)) };
      const reach = { ...group.reach };
      delete reach[old.id];
      if (reached < roomOf(next, rules).between) reach[next.id] = reached;
      if (Object.keys(reach).length > 0) group.reach = reach;
      else delete group.reach;
      const bay = bayOf(old);
      const own = step.how === "attached" ? (bayOf(next) ?? freeBay(plan)) : bay;
      old.place = { shelf: true };
      if (own !== null) next.place = { bay: own };
      delete next.contents;
      delete next.toBuy;
    }),
  cost: ({ plan }, after, step, { rules }) => {
    const owner = groupOfDrive(plan, step.drive);
    const then = groupOfDrive(after.plan, step.by);
    if (!owner || !then) return noCost({});
    const used =
      owner.pool.volumes.length === 0
        ? 1
        : Math.min(
            1,
            storedIn(owner.pool) /
              Math.max(
                1,
                owner.pool.volumes.reduce((sum, volume) => sum + volume.bytes, 0),
              ),
          );
    if (step.how === "attached") {
      const bytes = Math.round(
        (occupied(bandsOfGroup(plan, owner.group, rules)).get(step.drive) ?? 0) *
          (rules.rebuilding === "used-only" ? used : 1),
      );
      return noCost({
        hours: hoursFor(bytes, slowestRate(drivesOf(plan, [step.drive, step.by])) * REBUILD_SHARE),
        erased: [step.by],
        work: [
          { drive: step.drive, reads: bytes, writes: 0 },
          { drive: step.by, reads: 0, writes: bytes },
        ],
        online: rules.swapping === "hot-swap" ? "slower" : "offline",
      });
    }
    const bands = bandsOfGroup(after.plan, then.group, rules);
    const members = drivesOf(after.plan, then.group.drives);
    const rebuild = rebuildsOf(
      bands,
      members,
      rules,
      used,
      members.filter((each) => each.id === step.by),
    )[0];
    const share = rules.rebuilding === "used-only" ? used : 1;
    const reads = new Map<string, number>();
    for (const band of bands) {
      if (
        !band.members.some((member) => member.drive === step.by) ||
        band.scheme.kind === "single" ||
        band.scheme.kind === "stripe"
      )
        continue;
      for (const member of band.members)
        if (member.drive !== step.by)
          reads.set(member.drive, (reads.get(member.drive) ?? 0) + Math.round(member.length * share));
    }
    return noCost({
      hours: rebuild?.hours ?? noCost({}).hours,
      erased: [step.by],
      work: [
        ...[...reads].map(([drive, bytes]) => ({ drive, reads: bytes, writes: 0 })),
        { drive: step.by, reads: 0, writes: rebuild?.writes ?? 0 },
      ],
      online: rules.swapping === "hot-swap" ? "slower" : "offline",
      missing: [step.drive],
    });
  },
  say: ({ plan }, step, setting) => {
    const [old, next] = [driveOf(plan, step.drive), driveOf(plan, step.by)];
    const why =
      old && old.health.state !== "good"
        ? "The old drive is suspect."
        : old && next && next.bytes > old.bytes
          ? setting.rules.claiming === "by-itself"
            ? "It makes room for more: the space comes by itself, as far as the layout can use it."
            : "It makes room for more; the space comes when it is claimed, in most layouts once the last small drive has gone."
          : "It takes over what is on the old one.";
    return {
      does: `${capital(named(plan, step.drive, setting))} is ${step.how === "pulled" ? "pulled and replaced by" : "copied, while attached, to"} ${named(plan, step.by, setting)}, and goes to the shelf.${handling(setting)}`,
      why,
    };
  },
};

import { usableOf } from "../bands/contents";
import { usedShare } from "../box/capacities";
import { conditionFrom } from "../box/condition";
import type { Bytes } from "../bytes/bytes";
import type { UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Drive, Group, Pool, Step } from "../document/plan";
import type { OwnFactors } from "../logbook/ownTimes";
import { isGone } from "../drives/driveState";
import { roomOf } from "../drives/room";
import type { Condition } from "../failures/condition";
import { fateOf } from "../failures/fate";
import { lostOf } from "../failures/lostOf";
import { survivalOf, type Survival } from "../failures/survival";
import { smallestFatalSet } from "../failures/tolerance";
import { byWeight, type Finding } from "../findings/finding";
import { layOutGroup } from "../layouts/layOutGroup";
import { layoutOf } from "../layouts/registry";
import { ledgerOf, poolReserve, type LedgerEntry } from "../ledger/ledger";
import { volumesOf, type VolumeLedger } from "../ledger/volumes";
import { poolFindings } from "./poolFindings";
import { predictGroup, type GroupPrediction } from "./predictGroup";

/** Everything that the core says of one pool. */
export interface PoolPrediction {
  id: string;
  name: string;
  usableBytes: Bytes;
  /** How many drives can be lost at once, whichever they are, with nothing lost. */
  tolerance: number;
  groups: GroupPrediction[];
  ledger: LedgerEntry[];
  /** Where the bytes of each volume go. */
  volumes: VolumeLedger[];
  /**
   * For 1, 2, 3 and 4 drives lost at once, how many of all sets the pool survives; of chunks, whose place is up to the
   * box, no further than the tolerance.
   */
  survival: Survival[];
  /** A smallest set of drives whose loss destroys data. */
  smallestFatalSet: string[];
  /** What state it is in, by the drives that have failed or are missing in fact. */
  condition: Condition;
  /** The weightiest first. */
  findings: Finding[];
}

/** To how many drives lost at once the surviving sets are counted. */
export const MOST_FAILURES_COUNTED = 4;

/** The share of the pool that a rebuild copies: only what is used where the box does so, else all. */
function copiedShare(pool: Pool, drivesOf: (ids: readonly string[]) => Drive[], rules: BoxRules): number {
  if (rules.rebuilding !== "used-only") return 1;
  const data = usableOf(pool.groups.flatMap((group) => layOutGroup(group, drivesOf(group.drives), rules)));
  return usedShare(pool, data);
}

/** Two flash drives mirrored as a landing place: boxes that have one offer that whatever their main layouts are. */
const landsOnMirror = (pool: Pool, { layout }: GroupPrediction): boolean =>
  pool.landsFor !== undefined && layoutOf(layout).landing === true;

/**
 * Predicts one pool.
 *
 * @param driveOf the drives of the plan by their ids; members that are not among them are passed over
 * @param pointer where the pool stands in the plan document, for its findings
 * @param family the units in which the findings speak
 * @param next the step that begins at this moment
 * @param own how this box differs from the usual rates
 * @example predictPool(clinic.pools[0], drivesById(clinic), rulesOf(clinic.box.rules)).tolerance // 1
 */
export function predictPool(
  pool: Pool,
  driveOf: ReadonlyMap<string, Drive>,
  rules: BoxRules,
  pointer = "",
  family: UnitFamily = "TB",
  next?: Step,
  own: OwnFactors = {},
): PoolPrediction {
  const drivesOf = (ids: readonly string[]) => ids.flatMap((id) => driveOf.get(id) ?? []);
  const share = copiedShare(pool, drivesOf, rules);
  const groups = pool.groups.map((group) => predictGroup(group, drivesOf(group.drives), rules, family, share, own));
  const spares = drivesOf([...pool.spares, ...pool.groups.flatMap((group) => group.spares ?? [])]).map((drive) =>
    roomOf(drive, rules),
  );
  // The data of a pool is striped or spanned over its groups, so its bands stand or fall together.
  const bands = groups.flatMap((group) => group.bands);
  const members = groups.flatMap((group) => group.drives);
  const data = groups.reduce((sum, group) => sum + group.usableBytes, 0);
  const gone = new Set([...driveOf.values()].filter(isGone).map(({ id }) => id));
  const bandsOf = (group: Group) => groups[pool.groups.indexOf(group)]?.bands ?? [];
  const condition = conditionFrom(pool, { rules, bandsOf, gone, next });
  const held = data - poolReserve(data, rules);
  const lost = condition.redundancyLeft < 0 ? lostOf(bands, fateOf(bands, gone), held) : 0;
  const usableBytes = held - lost;
  const unmade = groups.some((group) => group.bands.length === 0);
  const fatal = unmade ? [] : smallestFatalSet(bands);
  const tolerance = Math.max(0, fatal.length - 1);
  // Where the box puts each chunk is up to it: beyond the tolerance one placement says nothing of the box's.
  const isPlacedByBox = groups.some((group) => layoutOf(group.layout).chunked);
  const counted = isPlacedByBox ? Math.min(tolerance, MOST_FAILURES_COUNTED) : MOST_FAILURES_COUNTED;
  return {
    id: pool.id,
    name: pool.name,
    usableBytes,
    volumes: volumesOf(usableBytes, pool.volumes).volumes,
    tolerance,
    groups,
    ledger: ledgerOf(groups, spares, { keeps: rules, volumes: pool.volumes, lost }),
    survival: unmade ? [] : survivalOf(bands, members, counted),
    smallestFatalSet: fatal,
    condition,
    findings: byWeight([
      ...groups.flatMap((group, g) =>
        group.findings
          .filter(({ code }) => code !== "layout-not-offered" || !landsOnMirror(pool, group))
          .map((finding) => ({ pointer: `${pointer}/groups/${g}`, ...finding })),
      ),
      ...poolFindings({
        pool,
        usableBytes,
        groups,
        drivesOf,
        rules,
        family,
        tolerance,
        condition,
      }).map((finding) => ({ pointer, ...finding })),
    ]),
  };
}

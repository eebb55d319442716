import type { Bytes } from "../bytes/bytes";
import type { Group, LayoutId } from "../document/plan";
import type { Layout } from "../layouts/layout";
import { isSeparate } from "../layouts/isSeparate";
import { layouts } from "../layouts/registry";
import { ownValue } from "../records/ownValue";
import { capital } from "../words/capital";
import { listOf } from "../words/listOf";
import { groupInPlan } from "./poolsOfArrays";
import type { PrintedVolume } from "./printedBox";
import { LEAVE_OUT, layoutChoices, type Question } from "./question";
import type { Reading } from "./readingSetting";

/** A group over whole drives, with the file systems on it. */
export interface DriveGroup {
  group: Omit<Group, "id">;
  volumes: PrintedVolume[];
  name: string;
}

const leaveOut = { value: LEAVE_OUT, label: "Leave it out: its drives are taken, and no pool is made of them" };

/** Asks, and gives what holds until it is answered; a guess is said as such. */
export function ask(reading: Reading, question: Question): string | null {
  reading.questions.push(question);
  const answer = ownValue(reading.answers, question.id);
  if (answer !== undefined && question.choices.some(({ value }) => value === answer)) return answer;
  const label = question.choices.find(({ value }) => value === question.guess)?.label;
  reading.notMadeOut.push(
    label === undefined
      ? `${question.asks} That is printed nowhere, so no pool is made of it.`
      : `${question.asks} That is printed nowhere. It is taken for “${label}”, since ${question.because}.`,
  );
  return question.guess;
}

const bytesOn = (reading: Reading, names: readonly string[]): Bytes =>
  names.reduce((sum, name) => sum + (reading.drives.named(name)?.bytes ?? 0), 0);

/** How often chunk layouts that keep whole copies keep each chunk; null for other layouts. */
function copiesOf(layout: Layout): number | null {
  const { copies } = layout.stripe({});
  return layout.chunked && layout.stripe({}).parity === 0 && copies !== "all" ? copies : null;
}

/** Whether a layout lays data over several drives without anything to spare: end to end, or striped. */
const isPlain = (layout: Layout): boolean => layout.kernelLevel !== undefined && layout.nominalTolerance({}) === 0;

/** The layouts that a file system over several drives can be. */
const ofSeveral = (drives: number) =>
  layouts.filter((layout) => (layout.chunked || isPlain(layout)) && layout.minimumDrives <= drives);

/** The profile that fits the size which a file system over several drives shows: all of them divided by its copies. */
function profileBySize(reading: Reading, volume: PrintedVolume): LayoutId | null {
  if (volume.fileSystemBytes === null || volume.fileSystemBytes === 0) return null;
  const share = bytesOn(reading, volume.on) / volume.fileSystemBytes;
  const found = ofSeveral(volume.on.length).find((layout) => {
    const copies = copiesOf(layout);
    return copies !== null && Math.abs(share - copies) < 0.01;
  });
  return found?.id ?? null;
}

/** The layout that the plan has for most of these drives, as a guess. */
const inPlan = (reading: Reading, names: readonly string[], choices: readonly Layout[]): LayoutId | null => {
  const ids = names.flatMap((name) => reading.drives.named(name)?.id ?? []);
  const layout = groupInPlan(reading.plan, ids)?.layout;
  return choices.some(({ id }) => id === layout) ? (layout ?? null) : null;
};

/** A file system over several drives: a chunk layout, whose profile is asked. */
function ofOneFileSystem(reading: Reading, volume: PrintedVolume): DriveGroup[] {
  const choices = ofSeveral(volume.on.length);
  const planned = inPlan(reading, volume.on, choices);
  const bySize = profileBySize(reading, volume);
  const answer = ask(reading, {
    id: `file-system-${volume.device}`,
    asks: `How does the ${volume.printed} file system ${volume.name} lie on ${listOf(volume.on)}?`,
    choices: [...layoutChoices(choices), leaveOut],
    guess: planned ?? bySize,
    because: planned ? "the plan has it so" : "its size fits that",
  });
  return grouped(reading, volume.on, answer, choices, [volume], volume.name);
}

/** Logical volumes over several drives without an array. */
function ofVolumes(reading: Reading, volumes: readonly PrintedVolume[]): DriveGroup[] {
  const on = [...new Set(volumes.flatMap((volume) => volume.on))];
  const names = listOf(volumes.map(({ name }) => name));
  if (volumes.some(({ through }) => through === "redundant-volumes")) {
    reading.notMadeOut.push(
      `${capital(names)} lie on ${listOf(on)} with copies or parity that the volume manager keeps itself, ` +
        "which Cortijo does not lay out. The drives are taken, and no pool is made of them.",
    );
    return [];
  }
  const choices = layouts.filter(isPlain);
  const planned = inPlan(reading, on, choices);
  const answer = ask(reading, {
    id: `volumes-${volumes[0]?.device ?? ""}`,
    asks: `How do the logical volumes ${names} lie on ${listOf(on)}?`,
    choices: [...layoutChoices(choices), leaveOut],
    guess: planned ?? choices.find(({ widening }) => widening === "joins")?.id ?? null,
    because: planned ? "the plan has it so" : "volumes lie end to end unless somebody stripes them",
  });
  return grouped(reading, on, answer, choices, volumes, volumes[0]?.name ?? "");
}

function grouped(
  reading: Reading,
  names: readonly string[],
  answer: string | null,
  choices: readonly Layout[],
  volumes: readonly PrintedVolume[],
  name: string,
): DriveGroup[] {
  const layout = choices.find(({ id }) => id === answer);
  if (!layout) return [];
  const drives = names.flatMap((each) => reading.drives.use(each) ?? []);
  return [{ group: { layout: layout.id, drives }, volumes: [...volumes], name }];
}

/** Drives with file systems of their own, of which one may hold the parity of the others. */
function ofOwnFileSystems(reading: Reading, volumes: readonly PrintedVolume[]): DriveGroup[] {
  const names = [...new Set(volumes.flatMap(({ on }) => on))];
  const sizeOf = (name: string) => reading.drives.named(name)?.bytes ?? 0;
  const largest = Math.max(...names.map(sizeOf));
  const could = names.filter((name) => sizeOf(name) === largest);
  const planned = groupInPlan(
    reading.plan,
    names.flatMap((name) => reading.drives.named(name)?.id ?? []),
  );
  const byPlan = could.find((name) => planned?.options?.parityDrives?.includes(reading.drives.named(name)?.id ?? ""));
  const byName = could.find((name) =>
    volumes.some((volume) => volume.on.includes(name) && /parit/i.test([volume.name, ...volume.mounts].join(" "))),
  );
  const none = { value: "none", label: "None: each drive is on its own" };
  const answer = ask(reading, {
    id: `parity-of-${names[0] ?? ""}`,
    asks: `Does one of ${listOf(names)} hold the parity of the others?`,
    choices: [none, ...could.map((name) => ({ value: name, label: `${name} holds it` })), leaveOut],
    guess: byPlan ?? byName ?? none.value,
    because: byPlan
      ? "the plan has it so"
      : byName
        ? "it is called so, and is the largest"
        : "nothing speaks of parity",
  });
  if (answer === LEAVE_OUT) return [];
  const layout = layouts.find((each) =>
    answer === none.value
      ? isSeparate(each) && each.widening === "joins" && !each.kernelLevel
      : each.dedicatedParity === 1,
  );
  if (!layout) return [];
  const drives = names.flatMap((name) => reading.drives.use(name) ?? []);
  const parity = answer === null || answer === none.value ? null : reading.drives.use(answer);
  const data = volumes.filter(({ on }) => parity === null || !on.includes(answer ?? ""));
  return [
    {
      group: { layout: layout.id, drives, ...(parity === null ? {} : { options: { parityDrives: [parity] } }) },
      volumes: data,
      name: "Drives",
    },
  ];
}

/** Sets of volumes that have drives in common. */
function together(volumes: readonly PrintedVolume[]): PrintedVolume[][] {
  const sets: { on: Set<string>; volumes: PrintedVolume[] }[] = [];
  for (const volume of volumes) {
    const touching = sets.filter(({ on }) => volume.on.some((name) => on.has(name)));
    const [first] = touching;
    if (!first) {
      sets.push({ on: new Set(volume.on), volumes: [volume] });
      continue;
    }
    for (const other of touching.slice(1)) {
      other.on.forEach((name) => first.on.add(name));
      first.volumes.push(...other.volumes);
      sets.splice(sets.indexOf(other), 1);
    }
    volume.on.forEach((name) => first.on.add(name));
    first.volumes.push(volume);
  }
  return sets.map((set) => set.volumes);
}

/**
 * Pools of drives without arrays: a file system over several, logical volumes over several, drives with file systems of
 * their own.
 *
 * @param free whether a drive of this name is in no array, and is none of the system's
 */
export function groupsOfDrives(reading: Reading, free: (name: string) => boolean): DriveGroup[] {
  const volumes = reading.printed.volumes.filter(({ on }) => on.every(free));
  const sets = together(volumes.filter(({ on, printed }) => on.length > 1 || printed !== ""));
  const single = sets.filter(
    (set) => set.every(({ on }) => on.length === 1) && new Set(set.flatMap(({ on }) => on)).size === 1,
  );
  const own = single.flat().filter(({ mounts, through }) => mounts.length > 0 && through === "nothing");
  return [
    ...sets.flatMap((set) => {
      const [first] = set;
      if (!first || new Set(set.flatMap(({ on }) => on)).size < 2) return [];
      return set.length === 1 && first.through === "nothing"
        ? ofOneFileSystem(reading, first)
        : ofVolumes(reading, set);
    }),
    ...(new Set(own.flatMap(({ on }) => on)).size > 1 ? ofOwnFileSystems(reading, own) : []),
  ];
}

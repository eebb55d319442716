import type { Band, BandMember, Scheme } from "../bands/band";
import type { Bytes } from "../bytes/bytes";
import { GiB } from "../bytes/bytes";
import type { GroupOptions, LayoutId } from "../document/plan";
import type { Room } from "../drives/room";
import { requireRooms, type Layout } from "./layout";
import { unless, type LevelPath } from "./levelPath";

/** The unit in which these layouts give out space. */
export const CHUNK_BYTES: Bytes = GiB;

/** A run of chunks of one drive in a column. */
interface Piece {
  room: Room;
  /** In chunks: where in the drive, and where in the column. */
  offset: number;
  from: number;
  to: number;
}

/**
 * How many stripes of `width` chunks, each on different drives, fit on drives of these chunk counts: the largest T
 * with Σ min(cᵢ, T) ≥ width · T, by halving the interval.
 *
 * @example stripesThatFit([4, 4, 8], 2) // 8
 */
export function stripesThatFit(chunks: readonly number[], width: number): number {
  let low = 0;
  let high = Math.floor(chunks.reduce((sum, count) => sum + count, 0) / width);
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    const fits = chunks.reduce((sum, count) => sum + Math.min(count, middle), 0) >= width * middle;
    if (fits) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Fills `width` columns of `height` chunks with the drives one after the other, wrapping round (McNaughton's rule). */
function fillColumns(rooms: readonly Room[], width: number, height: number): Piece[][] {
  const columns: Piece[][] = Array.from({ length: width }, () => []);
  let at = 0;
  for (const room of rooms) {
    let left = Math.min(Math.floor(room.length / CHUNK_BYTES), height, width * height - at);
    let offset = 0;
    while (left > 0) {
      const from = at % height;
      const take = Math.min(left, height - from);
      columns[Math.floor(at / height)]?.push({ room, offset, from, to: from + take });
      at += take;
      offset += take;
      left -= take;
    }
  }
  return columns;
}

/** Cuts the columns level wherever a drive begins or ends: each slice lies on `width` different drives. */
function layOutChunks(rooms: readonly Room[], width: number, scheme: Scheme): Band[] {
  const height = stripesThatFit(
    rooms.map((room) => Math.floor(room.length / CHUNK_BYTES)),
    width,
  );
  if (height === 0) return [];
  const columns = fillColumns(rooms, width, height);
  const cuts = [...new Set(columns.flatMap((column) => column.flatMap((piece) => [piece.from, piece.to])))].sort(
    (a, b) => a - b,
  );
  return cuts.slice(1).map((to, i) => {
    const from = cuts[i] ?? 0;
    const members = columns.flatMap((column): BandMember[] => {
      const piece = column.find((each) => each.from <= from && each.to >= to);
      return piece
        ? [
            {
              drive: piece.room.drive,
              offset: piece.room.systemReserve + (piece.offset + from - piece.from) * CHUNK_BYTES,
              length: (to - from) * CHUNK_BYTES,
            },
          ]
        : [];
    });
    return { scheme, metadata: 0, members };
  });
}

/** Stripes of k data and m parity chunks where nothing is said: 2 + 1. */
export const chunkWidth = ({ data = 2, parity = 1 }: GroupOptions) => ({ data, parity });

/**
 * A layout's short name, with its width where that is chosen.
 *
 * @example shortNameOf(chunkParity, { data: 4, parity: 2 }) // "Chunk parity 4 + 2"
 */
export function shortNameOf(layout: Pick<Layout, "shortName" | "chooses">, options: GroupOptions = {}): string {
  if (layout.chooses !== "stripe-width") return layout.shortName;
  const { data, parity } = chunkWidth(options);
  return `${layout.shortName} ${data} + ${parity}`;
}

/** What all layouts of chunks have in common; any of them can become any other. */
const chunkTraits = (id: LayoutId) =>
  ({
    widening: "joins",
    becomes: (["copies-2", "copies-3", "chunk-parity"] as const)
      .filter((to) => to !== id)
      .map((to): LevelPath => ({
        to,
        refuses: ({ leaving }) => unless(leaving === 0, "No drive can leave with it."),
      })),
    chunked: true,
    allocationUnit: CHUNK_BYTES,
    canLoseOne: () => true,
  }) as const satisfies Partial<Layout>;

function copiesLayout(copies: 2 | 3, id: LayoutId, name: string, shortName: string): Layout {
  const layout: Layout = {
    id,
    name,
    shortName,
    summary:
      `Every chunk of 1 GiB is kept ${copies === 2 ? "twice" : "three times"}, on the drives that have the most ` +
      "free space. Uses drives of any sizes.",
    minimumDrives: copies,
    usualDrives: copies,
    stripe: () => ({ data: 1, copies, parity: 0 }),
    nominalTolerance: () => copies - 1,
    ...chunkTraits(id),
    layOut(rooms) {
      requireRooms(layout, rooms);
      return layOutChunks(rooms, copies, { kind: "mirror" });
    },
  };
  return layout;
}

/** Usable min(Σ s / 2, Σ s − sn) in whole chunks, tolerance 1. */
export const twoCopies = copiesLayout(2, "copies-2", "two copies of every chunk", "2 copies");

/** Usable: the largest T with Σ min(sᵢ, T) ≥ 3T, tolerance 2. */
export const threeCopies = copiesLayout(3, "copies-3", "three copies of every chunk", "3 copies");

/** Parity over chunks of width k + m. Usable k · T with the largest T with Σ min(sᵢ, T) ≥ (k + m) · T; tolerance m. */
export const chunkParity: Layout = {
  id: "chunk-parity",
  name: "parity over chunks",
  shortName: "Chunk parity",
  summary:
    "Every stripe of data and parity chunks lies on as many different drives as it needs, never more. Uses " +
    "drives of any sizes.",
  minimumDrives: 2,
  usualDrives: 3,
  stripe: (options) => ({ ...chunkWidth(options), copies: 1 }),
  nominalTolerance: (options) => chunkWidth(options).parity,
  ...chunkTraits("chunk-parity"),
  chooses: "stripe-width",
  drivesFor: (options) => chunkWidth(options).data + chunkWidth(options).parity,
  layOut(rooms, setting) {
    const { data, parity } = chunkWidth(setting.options ?? {});
    requireRooms({ id: "chunk-parity", minimumDrives: data + parity }, rooms);
    return layOutChunks(rooms, data + parity, { kind: "chunk-parity", parity });
  },
};

/** How many copies of every chunk a layout spreads over all its drives; 0 where it does not. */
export function chunkCopiesOf(layout: Layout): number {
  const { copies } = layout.stripe({});
  return layout.chunked && typeof copies === "number" && copies > 1 ? copies : 0;
}

import { fitUnequal } from "../bands/arrayFormat";
import type { Band } from "../bands/band";
import type { Room } from "../drives/room";
import { requireRooms, type Layout } from "./layout";

const alone = (room: Room, metadata: number, length: number): Band => ({
  scheme: { kind: "single" },
  metadata,
  members: [{ drive: room.drive, offset: room.systemReserve + metadata, length }],
});

/**
 * Separate drives: each its own volume, so that a failure takes only what is on that drive. Usable Σ s, tolerance 0.
 */
export const separateDrives: Layout = {
  id: "single",
  name: "separate drives",
  shortName: "Separate",
  summary: "Each drive is a volume of its own. A failure takes what is on that drive, and nothing else.",
  minimumDrives: 1,
  usualDrives: 1,
  stripe: () => ({ data: 1, copies: 1, parity: 0 }),
  nominalTolerance: () => 0,
  widening: "joins",
  becomes: [],
  independent: true,
  joinsAnySize: true,
  canLoseOne: () => true,
  layOut(rooms) {
    requireRooms(separateDrives, rooms);
    return rooms
      .filter((room) => room.length > 0)
      .map((room) => ({ ...alone(room, 0, room.length), independent: true }));
  },
};

/** Span (JBOD): drives end to end. Usable Σ s, tolerance 0. */
export const span: Layout = {
  id: "span",
  name: "span",
  shortName: "Span",
  summary: "Drives end to end as one volume. The failure of any one loses the whole.",
  minimumDrives: 1,
  usualDrives: 1,
  stripe: () => ({ data: 1, copies: 1, parity: 0 }),
  nominalTolerance: () => 0,
  kernelLevel: "linear",
  widening: "joins",
  becomes: [],
  joinsAnySize: true,
  takesNoSpare: true,
  layOut(rooms, setting) {
    requireRooms(span, rooms);
    const { metadata, lengths } = fitUnequal(
      setting.arrayFormat,
      rooms.map((room) => room.between),
      "span",
    );
    return rooms.flatMap((room, i) => {
      const length = lengths[i] ?? 0;
      return length > 0 ? [alone(room, metadata, length)] : [];
    });
  },
};

import { nominalBytes } from "../../src/core/bytes/nominalBytes";
import type { Plan, Step } from "../../src/core/document/plan";
import { clinic } from "../../src/core/document/samples/clinic";

/**
 * Six bays full of drives of double parity, and eight steps in each of which all six are in use: four of them are
 * replaced one by one, pulled first. Drives that are being filled left out, pairs of mishaps are some 35,000.
 */
export function sixOfSix(): Plan {
  const drive = (id: string, terabytes: number, bay: number | null) => ({
    ...clinic.drives[0]!,
    id,
    serial: id.toUpperCase(),
    bytes: nominalBytes(terabytes * 1000),
    place: bay === null ? { shelf: true as const } : { bay },
  });
  const numbers = [1, 2, 3, 4, 5, 6];
  const steps: Step[] = [
    { id: "s1", kind: "verify", pool: "p1" },
    ...numbers
      .slice(0, 4)
      .map((n): Step => ({ id: `s${n + 1}`, kind: "replace-drive", drive: `d${n}`, by: `x${n}`, how: "pulled" })),
    { id: "s6", kind: "back-up", pool: "p1", to: "elsewhere" },
    { id: "s7", kind: "grow-file-system", pool: "p1", volume: "v1" },
    { id: "s8", kind: "verify", pool: "p1" },
  ];
  return {
    ...clinic,
    name: "Six of six",
    box: { name: "Six", bays: 6, rules: { set: "classic-raid" } },
    drives: [...numbers.map((n) => drive(`d${n}`, 4, n)), ...numbers.map((n) => drive(`x${n}`, 8, null))],
    pools: [
      {
        id: "p1",
        name: "Six",
        groups: [{ id: "g1", layout: "raid6", drives: numbers.map((n) => `d${n}`) }],
        spares: [],
        volumes: [{ id: "v1", name: "Files", bytes: 15e12, fileSystem: "btrfs", usedBytes: 12e12 }],
      },
    ],
    steps,
  };
}

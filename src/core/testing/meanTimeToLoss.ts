import type { Rated } from "../chance/rates";

/**
 * The mean time until a chain ends, in hours: its states are taken out one after the other, without subtracting, so
 * that no digits are lost (after Grassmann, Taksar and Heyman).
 */
export function meanTimeToLoss({ states, start, begins, from, rate, ends }: Rated): number {
  const flow = Array.from({ length: states }, () => new Float64Array(states));
  for (let to = 0; to < states; to += 1)
    for (let at = begins[to]!; at < begins[to + 1]!; at += 1) flow[from[at]!]![to]! += rate[at]!;
  const leaves = Float64Array.from(flow, (_, i) =>
    Object.values(ends).reduce((sum, list: Float64Array) => sum + list[i]!, 0),
  );
  const time = new Float64Array(states).fill(1);
  for (let out = states - 1; out >= 0; out -= 1) {
    if (out === start) continue;
    let all = leaves[out]!;
    for (let i = 0; i < states; i += 1) if (i !== out) all += flow[out]![i]!;
    for (let i = 0; i < states; i += 1) {
      const into = flow[i]![out]!;
      if (i === out || into === 0) continue;
      for (let j = 0; j < states; j += 1) if (j !== out) flow[i]![j]! += (into * flow[out]![j]!) / all;
      leaves[i]! += (into * leaves[out]!) / all;
      time[i]! += (into * time[out]!) / all;
      flow[i]![out] = 0;
    }
    flow[out]!.fill(0);
    leaves[out] = 0;
  }
  return time[start]! / leaves[start]!;
}

import { Dice } from "../../src/core/testing/likelyPlan";
import { spoilt } from "./spoilt";
import { nastyPlan, stretchedPlan } from "./stretchedPlan";
import { PARTS } from "../../src/exchange/prediction/parts";
import { growingPlan } from "../bench/core";

export { Dice, growingPlan };

/** A request as `fetch` takes it, with the path that it goes to. */
interface Sent {
  path: string;
  method: string;
  headers: Record<string, string>;
  body?: string;
}

/** Gives so many requests to the server, one after the other, most of them spoilt; then null. */
export function spoiltRequests(count: number, seed: number): () => Sent | null {
  const dice = new Dice(seed);
  const texts = [1, 2, 3, 4].map((n) => JSON.stringify(nastyPlan(n, n)));
  let left = count;
  const body = () =>
    dice.below(8) === 0
      ? JSON.stringify(stretchedPlan(nastyPlan(dice.below(1e9), 2), dice, 0.05))
      : dice.below(200) === 0
        ? " ".repeat(2 ** 20 + 1)
        : spoilt(texts, dice);
  return (): Sent | null => {
    if (left <= 0) return null;
    left -= 1;
    const type = dice.one(["application/json", "application/json", "application/json", "text/plain", "a/b; c=d"]);
    const parts =
      dice.below(3) === 0
        ? `?parts=${encodeURIComponent(spoilt([dice.one(PARTS)], dice).replace(/[\ud800-\udfff]/g, "?"))}`
        : "";
    if (dice.below(10) > 0)
      return { path: `/api/predict${parts}`, method: "POST", headers: { "content-type": type }, body: body() };
    const path = dice.one([
      "/",
      "/api/predict",
      "/plan/x",
      "/api/openapi.json",
      "/_next/static/x.js",
      "/%ff",
      "/a".repeat(900),
    ]);
    const method = dice.one(["GET", "HEAD", "PUT", "DELETE", "PATCH", "OPTIONS"]);
    return { path, method, headers: { cookie: "a=".padEnd(dice.below(3000), "%") } };
  };
}

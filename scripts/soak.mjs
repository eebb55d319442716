// Runs the property tests again and again with random seeds, until a number of rounds is done or one fails. Every
// counterexample that it finds is to become a plain test: it prints the seed with which it can be had again.
import { spawnSync } from "node:child_process";
import { randomInt } from "node:crypto";
import { bin, generate, install } from "./setup.mjs";

/** Plans of any box are drawn so many times as often as in `npm test`: 200,000 in twenty rounds. */
const TIMES = 5;
const rounds = Number(process.argv[2] ?? 20);
if (!Number.isInteger(rounds) || rounds < 1) {
  console.error("npm run test:soak [rounds]: rounds is a whole number, 20 where nothing is said.");
  process.exit(2);
}
install();
generate();
for (let round = 1; round <= rounds; round += 1) {
  const seed = randomInt(2 ** 31);
  console.log(`== round ${round} of ${rounds}, seed ${seed}`);
  const { status } = spawnSync(bin("jest"), ["--silent"], {
    stdio: "inherit",
    env: { ...process.env, PROPERTY_SEED: String(seed), PROPERTY_TIMES: String(TIMES) },
  });
  if (status !== 0) {
    console.error(
      `Failed with seed ${seed}: PROPERTY_SEED=${seed} PROPERTY_TIMES=${TIMES} npm run test:unit shows it again.`,
    );
    process.exit(1);
  }
}
console.log(`${rounds} rounds with random seeds, none failed.`);

import { seed } from "./seed.mjs";

/** Run once before all unit tests: says with which seed the property tests run. */
export default function printSeed() {
  console.log(`\nProperty tests run with seed ${seed()} (PROPERTY_SEED sets another).`);
}

import fc from "fast-check";
import { seed } from "./seed.mjs";

fc.configureGlobal({ seed: seed() });

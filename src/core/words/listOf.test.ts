import fc from "fast-check";
import { listOf } from "./listOf";

test("a list reads as Intl would write it", () => {
  const AND = new Intl.ListFormat("en");
  fc.assert(fc.property(fc.array(fc.string()), (things) => listOf(things) === AND.format(things)));
});

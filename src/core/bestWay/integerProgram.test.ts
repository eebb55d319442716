import loadHighs from "highs";
import { integerProgram } from "../testing/integerProgram";
import { ended, medium } from "../testing/growing";

test("a general solver of integer programs finds nothing cheaper, nor dearer", async () => {
  const highs = await loadHighs();
  let [solved, ways] = [0, 0];
  for (let number = 0; number < 60; number += 1) {
    const instance = medium(number);
    const { Status, ObjectiveValue } = highs.solve(integerProgram(instance), { mip_rel_gap: 0, time_limit: 20 });
    const cents = ended(instance).best?.cents ?? Infinity;
    if (Status === "Time limit reached") continue;
    solved += 1;
    if (Status === "Optimal") ways += 1;
    expect([number, cents]).toEqual([number, Status === "Optimal" ? Math.round(ObjectiveValue) : Infinity]);
  }
  expect(solved).toBe(60);
  expect(ways).toBeGreaterThan(30);
}, 120_000);

import { bandsOfGroup } from "../box/figures";
import { rulesOf } from "../rules/ruleSets";
import { boxWith } from "../testing/boxWith";
import { partWords } from "./partWords";

const wordsOf = (...[set, layout, sizes]: Parameters<typeof boxWith>) => {
  const plan = boxWith(set, layout, sizes);
  const bands = bandsOfGroup(plan, plan.pools[0]!.groups[0]!, rulesOf(plan.box.rules));
  return bands.map((_, i) => partWords(bands, i));
};

test("bands are pointed at as an owner would", () => {
  expect(wordsOf("hybrid-box", "hybrid-1", [4, 4, 8, 12])).toEqual([
    "The lower part of all 4 drives",
    "The upper part of the 2 largest drives",
  ]);
  expect(wordsOf("hybrid-box", "hybrid-1", [2, 4, 8, 8])).toEqual([
    "The lower part of all 4 drives",
    "The middle part of the 3 largest drives",
    "The upper part of the 2 largest drives",
  ]);
  expect(wordsOf("hybrid-box", "hybrid-1", [1, 2, 3, 4, 4])[1]).toBe(
    "Part 2 of 4, from the bottom, of the 4 largest drives",
  );
  expect(wordsOf("classic-raid", "raid5", [4, 4, 8])).toEqual(["What is used of all 3 drives"]);
  expect(wordsOf("classic-raid", "single", [4])).toEqual(["What is used of the drive"]);
  expect(wordsOf("linux-host", "mirror-onto-one", [4, 4, 8])).toEqual([
    "Part 1 of 2, on 2 drives,",
    "Part 2 of 2, on 2 drives,",
  ]);
});

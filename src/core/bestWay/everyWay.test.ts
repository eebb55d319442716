import { cheapestOfEveryWay } from "../testing/everyWay";
import { ended, small } from "../testing/growing";

// Many more of them in `npm run test:soak`.
const COUNT = 60 * Number(process.env.PROPERTY_TIMES ?? 1);

test.each([
  ["nothing is due", false],
  ["drives are due", true],
])("no way is cheaper, tried in every way: %s", (_, withDue) => {
  for (let number = 0; number < COUNT; number += 1) {
    const instance = small(number, withDue);
    const { best, least } = ended(instance);
    expect([number, best?.cents ?? Infinity, least]).toEqual([
      number,
      cheapestOfEveryWay(instance),
      cheapestOfEveryWay(instance),
    ]);
  }
});

import { linear, hex } from "./colour";
import { over, scatter } from "./hide";
import { hideFromSwatch } from "./swatch";

test("a swatch made with a known hiding thickness gives it back, over black and over white", () => {
  for (const [body, h] of [
    ["#a8235a", 35],
    ["#f0d040", 100],
    ["#2b6fa6", 20],
  ] as const)
    for (const ground of ["#000000", "#f4f4f0"])
      for (const um of [8, 20]) {
        const seen = hex(over(linear(body), linear(ground), scatter(linear(body), h)! * um));
        const back = hideFromSwatch(body, ground, seen, um);
        // a colour is read to one part in 255, so a film that nearly hides tells little
        if (back !== null) expect(Math.abs(Math.log(back / h))).toBeLessThan(0.12);
      }
  const thin = hex(over(linear("#f0d040"), linear("#000000"), scatter(linear("#f0d040"), 100)! * 20));
  expect(hideFromSwatch("#f0d040", "#000000", thin, 20)).not.toBeNull();
});
test("a swatch that shows nothing says nothing", () => {
  expect(hideFromSwatch("#a8235a", "#a8235a", "#a8235a", 10)).toBeNull();
  expect(hideFromSwatch("#ffffff", "#000000", "#000000", 10)).toBeNull();
  expect(hideFromSwatch("#777777", "#000000", "#ffffff", 10)).toBeNull();
  expect(hideFromSwatch("#777777", "#000000", "#333333", 0)).toBeNull();
  expect(hideFromSwatch("#777777", "#000000", "#333333", NaN)).toBeNull();
});

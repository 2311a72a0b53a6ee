import { hex, linear, luminance } from "./colour";
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
test("paint and ground that are hardly to be told apart say nothing; a little more, and they do", () => {
  // luminance of the thick film against the ground's: 0.02 apart is the least
  const grey = (y: number): string => hex([y, y, y]);
  const read = (ground: number): number | null => {
    const [body, g] = [grey(0.3), grey(ground)];
    const seen = hex(over(linear(body), linear(g), scatter(linear(body), 20)! * 3));
    return hideFromSwatch(body, g, seen, 3);
  };
  const apart = (ground: number): number => Math.abs(luminance(linear(grey(ground))) - luminance(linear(grey(0.3))));
  for (let y = 0.2; y < 0.4; y += 0.001) {
    if (apart(y) < 0.0195) expect([y, read(y)]).toEqual([y, null]);
    if (apart(y) > 0.0212) expect([y, read(y)]).not.toEqual([y, null]);
  }
});
test("the whitest paint there is counts as 0.97, the blackest as 0.02", () => {
  const thick = (paint: number): number => over([paint, paint, paint], [0.5, 0.5, 0.5], 1e6)[0];
  expect(thick(1)).toBeCloseTo(0.97, 6);
  expect(thick(0.97)).toBeCloseTo(0.97, 6);
  expect(thick(0.96)).toBeCloseTo(0.96, 6);
  expect(thick(0)).toBeCloseTo(0.02, 6);
  expect(thick(0.021)).toBeCloseTo(0.021, 6);
});

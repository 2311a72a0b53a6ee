/** Shields: what must stay is never open, what is sprayed is; sheets, covers and jig fit one another. */
import { loadClip } from "../../door/kernel";
import { ringsArea } from "../geometry/blank";
import { ringsOf, type Point, type Ring } from "../geometry/outline";
import { makePlan } from "../plan/plan";
import { brief } from "../testing/briefs";
import { many, seeded } from "../testing/worlds";
import { area, pieces, type Region } from "../vector/clip";
import type { World } from "../records/world";
import { HAND_REACH_MM, shields } from "./shields";

/** Zones of rectangles at random places of the piece, one of them within another at times. */
function scattered(w: World, rnd: () => number): World {
  const { w: pw, h: ph } = w.job.substrate;
  const zones = w.job.zones.map((z, i) => {
    const [x, y] = [rnd() * pw * 0.6, ((i + rnd() * 0.4) / w.job.zones.length) * ph * 0.9];
    const [a, b] = [pw * (0.1 + rnd() * 0.3), (ph / w.job.zones.length) * 0.5];
    const outline = `M${x} ${y}L${x + a} ${y}L${x + a} ${y + b}L${x} ${y + b}Z`;
    return { ...z, outline, areaMm2: a * b };
  });
  return { ...w, job: { ...w.job, zones, artwork: { name: "a", svg: "", w: pw, h: ph } } };
}

test("over all ways: a cover hides all that must stay, wherever the piece may lie; an opening shows all that is sprayed", async () => {
  const clip = await loadClip();
  const rnd = seeded(18);
  let [some, none, bands] = [0, 0, 0];
  for (let n = 0; n < many(400); n++) {
    const plan = makePlan(scattered(brief(n), rnd), null, true);
    const set = shields(plan, clip);
    if (!set) {
      none++;
      continue;
    }
    const { job } = plan.context;
    const [dx, dy] = set.at;
    const on = (names: readonly string[]): Region =>
      names.reduce<Region>((r, name) => {
        const rings = ringsOf(job.zones.find((z) => z.name === name)!.outline);
        const put: Ring[] = rings.map((ring) => ring.map(([x, y]): Point => [x + dx, y + dy]));
        return clip.union(r, clip.fill(put, "evenodd"));
      }, []);
    const box = clip.fill([[[0, 0], [set.w, 0], [set.w, set.h], [0, set.h]]], "nonzero"); // prettier-ignore
    for (const s of set.shields) {
      some++;
      const [keep, open] = [on(s.covers), on(s.opens)];
      // what is over the piece: nothing of what must stay, all that is sprayed but what lies too near to it
      const held = keep.length ? clip.grow(keep, set.errorMm - 0.01) : [];
      if (!s.islands) expect(area(clip.intersect(clip.subtract(box, s.sheet), held))).toBeLessThan(0.01);
      const free = held.length ? clip.subtract(open, clip.grow(keep, set.errorMm + 0.01)) : open;
      expect(area(clip.intersect(free, s.sheet))).toBeLessThan(0.01);
      if (keep.length) {
        expect(area(clip.subtract(held, s.handLaid))).toBeLessThan(0.01);
        expect(area(clip.subtract(s.handLaid, clip.grow(keep, HAND_REACH_MM + 0.01)))).toBeLessThan(0.01);
        expect(area(clip.intersect(free, s.handLaid))).toBeLessThan(0.01);
      } else bands++;
      // one sheet that holds together
      expect(pieces(s.sheet).filter((p) => area(p) > 0.1)).toHaveLength(1);
      expect(s.weights).toBeGreaterThanOrEqual(4);
    }
    // the piece fits its pocket, and both pins go through jig and sheets alike
    expect(area(set.jig)).toBeLessThan(set.w * set.h - job.substrate.w * job.substrate.h * 0.7);
    for (const [x, y] of [
      [15, 15],
      [set.w - 15, set.h - 15],
    ])
      // prettier-ignore
      for (const r of [set.jig, ...set.shields.map((s) => s.sheet)]) {
        const pin = clip.fill([[[x - 1, y - 1], [x + 1, y - 1], [x + 1, y + 1], [x - 1, y + 1]]], "nonzero"); // prettier-ignore
        expect(area(clip.intersect(r, pin))).toBeLessThan(1e-6);
      }
  }
  expect(some).toBeGreaterThan(0);
  expect(none).toBeGreaterThan(0);
  expect(bands).toBeGreaterThan(0);
});

test("what must stay in the midst of what is sprayed would fall out of a sheet: covered by hand, with a weight of its own", async () => {
  const clip = await loadClip();
  let found = 0;
  for (let n = 0; n < 400 && !found; n++) {
    const w = brief(n);
    if (w.job.zones.length !== 2) continue;
    const { w: pw, h: ph } = w.job.substrate;
    const ring = (m: number): string => `M${m} ${m}L${pw - m} ${m}L${pw - m} ${ph - m}L${m} ${ph - m}Z`;
    const outlines = [`${ring(5)}${ring(Math.min(pw, ph) * 0.3)}`, ring(Math.min(pw, ph) * 0.38)];
    const zones = w.job.zones.map((z, i) => ({ ...z, outline: outlines[i], areaMm2: ringsArea(ringsOf(outlines[i])) }));
    const job = { ...w.job, zones, artwork: { name: "a", svg: "", w: pw, h: ph } };
    const set = shields(makePlan({ ...w, job }, null, true), clip);
    const s = set?.shields.find((x) => x.opens.includes(zones[0].name) && x.covers.includes(zones[1].name));
    if (!s) continue;
    found++;
    expect(s.islands).toBe(1);
    expect(pieces(s.handLaid)).toHaveLength(1);
    expect(s.weights).toBe(5);
  }
  expect(found).toBeGreaterThan(0);
});

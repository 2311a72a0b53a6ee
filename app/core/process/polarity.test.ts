import { ROUTES } from "../catalogue/routes";
import { e1, a1 } from "../testing/worlds";
import { makePlan } from "../plan/plan";
import { kindOf } from "./kinds";
import { burntOf } from "./polarity";

test("a drawing is burnt where it is drawn on every route; a picture is inverted where a dark top is lifted, and nowhere else", () => {
  for (const r of ROUTES) {
    expect([r.id, burntOf("drawing", r).inverted]).toEqual([r.id, false]);
    const beam = r.phases.find((p) => p.do === "laser");
    expect([r.id, burntOf("picture", r).inverted]).toEqual([r.id, beam?.do === "laser" && beam.kind === "reveal"]);
  }
  expect(burntOf("picture", null).inverted).toBe(false);
});
test("pre-flight quotes it", () => {
  for (const w of [a1(), e1()]) {
    const p = makePlan(w);
    const flight = p.placed.find((x) => x.step.kind === "pre-flight")!;
    expect(kindOf("pre-flight").cues(flight.step, p.context)[0]).toBe(
      `Artwork ${burntOf("drawing", p.context.route).says}`,
    );
  }
});

import { ROUTES } from "../catalogue/routes";
import { substrate, type SubstrateId } from "../catalogue/substrates";
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
  // the beam's own mark: the other way round where it is lighter than the body
  const bare = ROUTES.find((r) => r.id === "N")!;
  const wants = (id: SubstrateId): boolean => burntOf("picture", bare, substrate(id)).inverted;
  expect(["walnut", "mdf", "slate", "metal-coated", "acrylic-two-layer"].map((s) => wants(s as SubstrateId))).toEqual([
    false,
    false,
    true,
    true,
    true,
  ]);
  const white = { ...substrate("metal-coated"), colour: "#f2f2f0" };
  expect(burntOf("picture", bare, white).inverted).toBe(false);
  expect(burntOf("drawing", bare, substrate("slate")).inverted).toBe(false);
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

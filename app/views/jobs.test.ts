import { thumbOf } from "../core/geometry/thumb";
import { SHELF } from "../core/testing/worlds";
import { substrateNamed } from "../core/catalogue/substrates";
import { Job, Zone } from "../core/records/job";
import { DARK_TOP, looksOf } from "./jobs";

const [beet] = SHELF();
const shelf = new Map(SHELF().map((p) => [p.id, p.colour]));
const zone = (id: string, more: Partial<Zone>): Zone =>
  ({ ...new Zone(), id, name: id, colour: "#123456", areaMm2: 100, outline: "M0 0L20 0L20 20Z", ...more }) as Zone;
const job = {
  ...new Job(),
  zones: [zone("a", { productId: beet.id }), zone("b", { bare: true }), zone("c", { productId: "gone" })],
};
const body = substrateNamed("hard-maple").colour;
const looks = (route: string | null, topId: string | null) =>
  looksOf({ substrateId: "hard-maple", route, topId, thumb: thumbOf(job) }, shelf);

test("zones as they are meant: the paint, the bare body, the drawing's colour where the paint is gone", () => {
  expect(looks(null, null)).toEqual({ ground: body, zones: [beet.colour, body, "#123456"] });
  expect(looksOf({ substrateId: "hard-maple", route: null, topId: null, thumb: null }, shelf).zones).toEqual([]);
});
test("the face is dark where the way lifts a dark top: the one chosen, or any", () => {
  expect(looks("A1", beet.id).ground).toBe(beet.colour);
  expect(looks("A1", null).ground).toBe(DARK_TOP);
  expect(looks("E1", beet.id).ground).toBe(body);
});

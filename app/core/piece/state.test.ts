/** The state of a piece: layers, levels, colours and heat, from films put on by hand. */
import { stocked } from "../testing/worlds";
import { paint } from "../catalogue/properties";
import { substrate } from "../catalogue/substrates";
import { linear } from "../models/film/colour";
import { over, scatter } from "../models/film/hide";
import {
  blank,
  GROUND,
  heatAt,
  layersOf,
  mapZones,
  seen,
  seenThrough,
  shown,
  surfaceUm,
  topDown,
  zoneOf,
  type Film,
  type ZoneState,
} from "./state";

const PAINTS = new Map(
  [
    stocked("red", "Red", "spray-enamel", "#c0281c"),
    stocked("navy", "Navy", "spray-enamel", "#22345c"),
    stocked("clear", "Clear", "spray-clear", "#f5f5f5"),
    stocked("dye", "Dye", "ceramic-dye", "#101010"),
    stocked("tape", "Tape", "painters-tape", "#2a6fb0"),
  ].map((p) => [p.id, paint(p)]),
);
const paintOf = (id: string) => PAINTS.get(id)!;
const film = (productId: string, dryUm: number, more: Partial<Film> = {}): Film => ({
  step: `coat.${productId}`,
  productId,
  role: "colour",
  coat: 1,
  dryUm,
  wetUm: null,
  left: 1,
  laidAt: null,
  roomC: null,
  roomRh: null,
  ...more,
});
const zoneWith = (more: Partial<ZoneState>): ZoneState => ({ zone: "z", depthUm: 0, charUm: 0, films: [], ...more });
const near = (got: readonly number[], want: readonly number[]): void =>
  got.forEach((v, i) => expect(v).toBeCloseTo(want[i], 9));

test("layers lie on each other without a gap: char below the floor, films up from it, the mask on top", () => {
  const z = zoneWith({
    depthUm: 800,
    charUm: 30,
    films: [film("red", 20), film("navy", 12, { left: 0.5 }), film("clear", 10, { left: 0 })],
    mask: { step: "m", productId: "tape", um: 100, cut: false, loose: false, hotC: null, over: [] },
  });
  expect(layersOf(z, paintOf).map((l) => [l.kind, l.role, l.topUm, l.bottomUm])).toEqual([
    ["char", "char", 800, 830],
    ["film", "colour", 780, 800],
    ["film", "colour", 774, 780],
    ["mask", "mask", 674, 774],
  ]);
  expect(surfaceUm(z)).toBe(774);
  expect(surfaceUm(zoneWith({ depthUm: 5 }))).toBe(5);
  const glazed = zoneWith({ skin: { kind: "glaze", um: 250, colour: "#eeeeee", beneath: "#885544", open: false } });
  expect(layersOf(glazed, paintOf).map((l) => [l.kind, l.finish, l.topUm, l.bottomUm])).toEqual([
    ["skin", "glaze", 0, 250],
  ]);
  expect(layersOf({ ...glazed, skin: { ...glazed.skin!, open: true } }, paintOf)).toEqual([]);
});
test("from the top down, touching coats of one paint are one film; what is gone counts for nothing", () => {
  const z = zoneWith({
    films: [
      film("red", 20),
      film("red", 10, { left: 0.5 }),
      film("navy", 9, { left: 0 }),
      film("red", 7),
      film("clear", 10),
    ],
  });
  expect(topDown(z)).toEqual([
    { productId: "clear", um: 10, role: "colour" },
    { productId: "red", um: 32, role: "colour" },
  ]);
});
test("what is seen: the bare thing, what is burnt, what hides it in part, what shows through", () => {
  const wood = "#d8b98a";
  near(seen(zoneWith({}), wood, paintOf), linear(wood));
  near(seen(zoneWith({ mark: "#123456", charUm: 9 }), wood, paintOf), linear("#123456"));
  expect(seen(zoneWith({ charUm: 9 }), wood, paintOf)[0]).toBeLessThan(0.05);
  const red = linear("#c0281c");
  const s = scatter(red, paintOf("red").hideUm.value) as number;
  near(seen(zoneWith({ films: [film("red", 9)] }), wood, paintOf), over(red, linear(wood), s * 9));
  // three tenths of the film stand: its colour on three tenths, the wood on the rest
  const third = seen(zoneWith({ films: [film("red", 9, { left: 0.3 })] }), wood, paintOf);
  near(
    third,
    over(red, linear(wood), s * 9).map((v, i) => 0.7 * linear(wood)[i] + 0.3 * v),
  );
  near(seen(zoneWith({ films: [film("clear", 30)] }), wood, paintOf), linear(wood));
  near(seen(zoneWith({ films: [film("red", 9, { left: 0 })] }), wood, paintOf), linear(wood));
  near(
    seen(
      zoneWith({ mask: { step: "m", productId: "tape", um: 100, cut: false, loose: false, hotC: null, over: [] } }),
      wood,
      paintOf,
    ),
    linear("#2a6fb0"),
  );
  const glaze = { kind: "glaze" as const, um: 250, colour: "#eeeeee", beneath: "#885544", open: false };
  near(seen(zoneWith({ skin: glaze }), wood, paintOf), linear("#eeeeee"));
  near(seen(zoneWith({ skin: { ...glaze, open: true } }), wood, paintOf), linear("#885544"));
});
test("through the sheet what was laid first is in front; from the front, what was laid last", () => {
  const films = [film("red", 400), film("navy", 400)];
  const z = zoneWith({ zone: "a", films });
  const back = blank(["a"], null, "back");
  near(shown(back, z, "#ffffff", paintOf), seenThrough(z, "#ffffff", paintOf));
  expect(seenThrough(z, "#ffffff", paintOf)[0]).toBeGreaterThan(0.4);
  near(shown(blank(["a"]), z, "#ffffff", paintOf), seen(z, "#ffffff", paintOf));
  expect(seen(z, "#ffffff", paintOf)[0]).toBeLessThan(0.05);
  // a silvering that is whole hides all behind it
  const silver = { kind: "silver" as const, um: 1, colour: "#c8ccd0", beneath: "#ffffff", open: false };
  near(seenThrough({ ...z, skin: silver }, "#ffffff", paintOf), linear("#c8ccd0"));
  expect(seenThrough({ ...z, skin: { ...silver, open: true } }, "#808080", paintOf)[0]).toBeGreaterThan(0.4);
});
test("a new piece: a zone for each and the ground between, the maker's skin on all, a film on a sheet that is worked from behind", () => {
  const p = blank(["a", "b"], substrate("tile-glazed"));
  expect(p.zones.map((z) => z.zone)).toEqual(["a", "b", GROUND]);
  expect(p.zones.every((z) => z.skin?.open === false && z.depthUm === 0 && z.films.length === 0)).toBe(true);
  expect([p.faceFilm, blank([], null, "back").faceFilm, blank([], null, "inside").faceFilm]).toEqual([
    false,
    true,
    false,
  ]);
  expect(() => zoneOf(p, "nowhere")).toThrow(/nowhere/);
  const cut = mapZones(p, ["b"], (z) => ({ ...z, depthUm: 9 }));
  expect(cut.zones.map((z) => z.depthUm)).toEqual([0, 9, 0]);
  expect(p.zones[1].depthUm).toBe(0);
});
test("heat falls by Newton's law, to the room and no lower", () => {
  const p = { ...blank([]), warm: { step: "melt", c: 180, at: 1000, tauMin: 12, roomC: 20 } };
  expect(heatAt(p, 1000)).toBe(180);
  expect(heatAt(p, 1000 + 12 * Math.LN2)).toBeCloseTo(100, 9);
  expect(heatAt({ ...p, warm: { ...p.warm, roomC: 30 } }, 1012)).toBeCloseTo(30 + 150 / Math.E, 9);
  expect(heatAt(p, 900)).toBe(180);
  expect(heatAt(p, 1e6)).toBeCloseTo(20, 9);
  expect([heatAt(p, null), heatAt(blank([]), 5), heatAt({ ...p, warm: { ...p.warm, at: null } }, 5)]).toEqual([
    null,
    null,
    null,
  ]);
});

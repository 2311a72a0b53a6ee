/**
 * Windows belong to films: what touches several lies whole in a stretch of each, never in a mixture of the earliest shutting and the
 * latest reopening.
 */
import { context } from "./context";
import { readiness } from "./ready";
import { inWindow, nextStretch } from "../plan/placed";
import type { Film } from "../piece/state";
import { a1, seeded, stocked, SHELF } from "../testing/worlds";

const times = (closes: number | null, reopens: number | null) => ({
  ...stocked("x", "X", "spray-lacquer", "#000000").times,
  touch: 5,
  recoat: 10,
  closes,
  reopens,
});
const w = (list: [string, number | null, number | null][]) => ({
  ...a1(),
  products: [
    ...SHELF(),
    ...list.map(([id, c, r]) => stocked(id, id, "spray-lacquer", "#404040", { times: times(c, r) })),
  ],
});
const film = (productId: string, laidAt: number): Film => ({
  step: `s.${productId}.${laidAt}`,
  productId,
  role: "colour",
  coat: 1,
  dryUm: 8,
  wetUm: null,
  left: 1,
  laidAt,
  roomC: null,
  roomRh: null,
});
const at = 29_900_000;
const of = (list: [string, number | null, number | null][], films: [string, number][]) =>
  readiness(
    { state: "recoat", why: "", stacks: films.map(([id, t], i) => ({ zone: `z${i}`, films: [film(id, at + t)] })) },
    context(w(list)),
  );
const rel = (r: ReturnType<typeof of>) => r.stretches.map((s) => [s.from - at, s.to === null ? null : s.to - at]);

test("one film: from its opening to its closing, and again from its reopening", () => {
  const r = of([["a", 60, 600]], [["a", 0]]);
  expect(rel(r)).toEqual([
    [10, 60],
    [600, null],
  ]);
  expect([r.closes! - at, r.reopens! - at]).toEqual([60, 600]);
});
test("an old film that has long reopened does not shut the fresh one's window", () => {
  const r = of(
    [
      ["a", 60, 600],
      ["b", 100, 900],
    ],
    [
      ["a", -5000],
      ["b", 0],
    ],
  );
  expect(rel(r)).toEqual([
    [10, 100],
    [900, null],
  ]);
  expect(r.closes! - at).toBe(100);
});
test("an old film that is still shut puts it off until it reopens, inside the fresh one's stretch or behind it", () => {
  const within = of(
    [
      ["a", 60, 600],
      ["b", 200, 900],
    ],
    [
      ["a", -500],
      ["b", 0],
    ],
  );
  expect(rel(within)).toEqual([
    [100, 200],
    [900, null],
  ]);
  expect([within.opens! - at, within.reopens! - at]).toEqual([10, 100]);
  const behind = of(
    [
      ["a", 60, 600],
      ["b", 50, 900],
    ],
    [
      ["a", -500],
      ["b", 0],
    ],
  );
  expect(rel(behind)).toEqual([[900, null]]);
});
test("films that never reopen leave what is before the first shuts, or nothing", () => {
  expect(
    rel(
      of(
        [
          ["a", 60, null],
          ["b", 200, 900],
        ],
        [
          ["a", 0],
          ["b", 5],
        ],
      ),
    ),
  ).toEqual([[15, 60]]);
  const none = of(
    [
      ["a", 60, null],
      ["b", 200, 900],
    ],
    [
      ["a", -100],
      ["b", 0],
    ],
  );
  expect(none.stretches).toEqual([]);
  expect([none.closes! - at, none.reopens]).toEqual([-40, null]);
  expect(inWindow(none, at + 20, 1)).toBe(false);
});
test("two hundred stacks: minute by minute, allowed where every film allows it", () => {
  const rnd = seeded(11);
  for (let k = 0; k < 200; k++) {
    const n = 1 + Math.floor(rnd() * 4);
    const list = Array.from({ length: n }, (_, i): [string, number | null, number | null] => {
      const closes = rnd() < 0.25 ? null : 20 + Math.floor(rnd() * 150);
      return [`p${i}`, closes, closes === null || rnd() < 0.2 ? null : closes + 1 + Math.floor(rnd() * 400)];
    });
    const films = list.map(([id]): [string, number] => [id, -Math.floor(rnd() * 300)]);
    const r = of(list, films);
    const opens = Math.max(...films.map(([, t]) => t + 10));
    const may = (m: number): boolean =>
      list.every(
        ([, c, again], i) => c === null || m <= films[i][1] + c || (again !== null && m >= films[i][1] + again),
      );
    for (let m = opens; m < opens + 700; m += 3) {
      const minutes = Math.floor(rnd() * 30);
      // whole: allowed at its beginning and its end, and no closing between
      let whole = true;
      for (let x = m; x <= m + minutes; x++) whole &&= may(x);
      if (list.every(([, c]) => c === null)) whole = true;
      expect([k, m, minutes, inWindow(r, at + m, minutes)]).toEqual([k, m, minutes, whole]);
      const next = nextStretch(r, at + m);
      if (next !== null) expect(may(next - at)).toBe(true);
    }
  }
});

import { extentOf, extentOfAll } from "./extent";

const rows = (y0: number, y1: number, ...pairs: [number, number][]): { rows: number[] } => ({
  rows: [y0, y1, ...pairs.flat()],
});

test("the box round a zone is that of its rows; rows that hold nothing, and zones without any, do not count", () => {
  expect(extentOf(rows(5, 25, [10, 40], [12, 60], [8, 30]))).toEqual({ x0: 8, x1: 60, y0: 5, y1: 25 });
  // an empty slice is written from beyond its end
  expect(extentOf(rows(0, 4, [0, -1], [10, 20]))).toEqual({ x0: 10, x1: 20, y0: 0, y1: 4 });
  expect(extentOf(rows(0, 4, [0, -1], [7, 7]))).toBeNull();
  for (const none of [[], [0, 4]]) expect(extentOf({ rows: none })).toBeNull();
});

test("the box round several holds each of them and no more", () => {
  const [a, b, blind] = [rows(0, 10, [0, 10]), rows(30, 50, [-5, 3], [20, 80]), { rows: [] }];
  expect(extentOfAll([a, b, blind])).toEqual({ x0: -5, x1: 80, y0: 0, y1: 50 });
  expect(extentOfAll([a, blind])).toEqual(extentOf(a));
  expect(extentOfAll([blind])).toBeNull();
  expect(extentOfAll([])).toBeNull();
});

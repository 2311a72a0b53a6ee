/** Outlines as SVG path data in mm, as artwork keeps them: moved, mirrored, and taken apart into rings. */
import svgpath from "svgpath";

export type Point = [number, number];
export type Ring = Point[];

/** digits kept behind the point: a hundredth of a micrometre */
const DIGITS = 5;

/** An outline moved by dx, dy mm. */
export const moved = (path: string, dx: number, dy: number): string =>
  path && (dx || dy) ? svgpath(path).translate(dx, dy).round(DIGITS).toString() : path;

/** An outline left for right, within a width in mm. */
export const mirrored = (path: string, widthMm: number): string =>
  path ? svgpath(path).matrix([-1, 0, 0, 1, widthMm, 0]).round(DIGITS).toString() : path;

/** Rings of an outline of straight lines; those of artwork are. */
export function ringsOf(path: string): Ring[] {
  const rings: Ring[] = [];
  svgpath(path)
    .abs()
    .unshort()
    .iterate(([cmd, ...v]) => {
      const at = v.slice(-2).map(Number) as Point;
      if (cmd === "M") rings.push([at]);
      else if (cmd === "L") rings[rings.length - 1]?.push(at);
    });
  return rings.filter((r) => r.length > 0);
}

/** Rings as path data, each shut. */
export const pathOf = (rings: Ring[]): string =>
  rings.map((r) => `M${r.map(([x, y]) => `${round(x)} ${round(y)}`).join("L")}Z`).join("");
const round = (v: number): number => Math.round(v * 10 ** DIGITS) / 10 ** DIGITS;

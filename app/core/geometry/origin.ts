import type { Artwork, Job } from "../records/job";

/** Where the upper left corner of the artwork lies on the blank: centred unless it was moved; at its corner where only zones are known. */
export const origin = ({ artwork: a, substrate: s }: Pick<Job, "artwork" | "substrate">): [number, number] =>
  a ? [(s.w - a.w) / 2 + (a.dx ?? 0), (s.h - a.h) / 2 + (a.dy ?? 0)] : [0, 0];

/** The upright box round an artwork's page as it is turned, mm. */
export function pageBox(a: Pick<Artwork, "w" | "h" | "turn">): [w: number, h: number] {
  const by = ((a.turn ?? 0) * Math.PI) / 180;
  const [cos, sin] = [Math.abs(Math.cos(by)), Math.abs(Math.sin(by))].map((v) => (v < 1e-12 ? 0 : v));
  return [a.w * cos + a.h * sin, a.w * sin + a.h * cos];
}

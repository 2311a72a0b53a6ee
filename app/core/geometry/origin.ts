import type { Job } from "../records/job";

/** Where the upper left corner of the artwork lies on the blank; at its corner where only zones are known. */
export const origin = ({ artwork: a, substrate: s }: Pick<Job, "artwork" | "substrate">): [number, number] =>
  a ? [(s.w - a.w) / 2, (s.h - a.h) / 2] : [0, 0];

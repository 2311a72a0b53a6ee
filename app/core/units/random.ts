/** Seeded numbers for searches: the same seed gives the same run (mulberry32). */
export interface Random {
  /** in [0, 1) */
  next(): number;
  /** whole, in [0, n) */
  below(n: number): number;
}
export function randomOf(seed: number): Random {
  let a = seed >>> 0;
  const next = (): number => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return { next, below: (n) => Math.floor(next() * n) };
}

/**
 * M5 What a beam leaves on a bare face. D = D0 − A·(ln E − ln E*)²: the mark grows with the energy up to its knee E*, and pales again
 * beyond it; a quarter of the knee leaves nothing.
 */
const NOTHING_AT = 4;
const A = 1 / Math.log(NOTHING_AT) ** 2;
/** share of the deepest mark that is aimed at, on the near side of the knee */
const AIM = 0.98;

/** Share 0-1 of the mark that is aimed at which E J/mm² leave. @param knee E*, J/mm² */
export const markShare = (e: number, knee: number): number =>
  e > 0 ? Math.min(1, Math.max(0, (1 - A * Math.log(e / knee) ** 2) / AIM)) : 0;

/** J/mm² that leave a share of it, before its knee. */
export const energyForMark = (share: number, knee: number): number =>
  knee * Math.exp(-Math.sqrt((1 - AIM * Math.min(1, Math.max(0, share))) / A));

/** J/mm² to aim at: as deep as can be seen, still before it pales. */
export const markEnergy = (knee: number): number => energyForMark(1, knee);

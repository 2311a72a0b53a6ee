/**
 * M4 What the laser uncovers. Films from the top down, touching coats of one product being one film.
 *   Cₖ = passes·e0 + Σ qᵢ·tᵢ/ηᵢ ;  σₖ = √(Σ(qᵢ·sᵢ·tᵢ/ηᵢ)²/Cₖ² + s_E²), floor .01
 *   openₖ = min over j ≤ k of Φ((ln E − ln Cⱼ)/σⱼ)
 */
export interface RevealFilm {
  /** dry µm */
  um: number;
  /** share of thickness by which it varies */
  patchiness: number;
  /** absorbed share of the beam */
  absorbs: number;
  /** J/mm² per µm; default q */
  q?: number;
}

/** J/mm² per µm of film */
export const Q_DEFAULT = 0.02;
const SIGMA_FLOOR = 0.01;
const Z = 1.96;
/** advise plainly only when the window is at least this wide */
export const PLAIN_RATIO = 1.25;

/** Standard normal distribution function (Abramowitz & Stegun 7.1.26, error below 1.5e-7). */
export function phi(x: number): number {
  if (!Number.isFinite(x)) return x > 0 ? 1 : 0;
  const z = Math.abs(x) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * z);
  const erf =
    1 -
    ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-z * z);
  return x >= 0 ? (1 + erf) / 2 : (1 - erf) / 2;
}

export interface Cut {
  /** J/mm² at which films 1..k are gone on the average */
  c: number;
  sigma: number;
}

/** Energy at which each film is cut through, top first. */
export function cuts(films: RevealFilm[], e0: number, passes: number, ripple: number): Cut[] {
  let c = passes * e0;
  let spread = 0;
  return films.map((f) => {
    const cost = ((f.q ?? Q_DEFAULT) * f.um) / Math.max(f.absorbs, 1e-6);
    c += cost;
    spread += (f.patchiness * cost) ** 2;
    return { c, sigma: Math.max(SIGMA_FLOOR, Math.sqrt(spread / (c * c) + ripple * ripple)) };
  });
}

/** Share of the area on which films 1..k are gone, for each k. Never negative, 0 at E = 0. */
export function openShares(all: Cut[], e: number): number[] {
  let least = 1;
  return all.map((k) => (least = Math.min(least, e > 0 ? phi((Math.log(e) - Math.log(k.c)) / k.sigma) : 0)));
}

export interface Window {
  lo: number;
  hi: number;
  /** middle of the window; null when it is closed */
  best: number | null;
  /** how wide: hi/lo */
  ratio: number;
}

/** “The first k films gone, the next one whole”; null: there are not so many. */
export function window(all: Cut[], k = 1): Window | null {
  if (k < 1 || all.length < k + 1) return null;
  const lo = all[k - 1].c * Math.exp(Z * all[k - 1].sigma);
  const hi = all[k].c * Math.exp(-Z * all[k].sigma);
  return { lo, hi, best: lo < hi ? Math.sqrt(lo * hi) : null, ratio: hi / lo };
}

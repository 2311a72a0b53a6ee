/**
 * Deposition of a sprayed fan moved over a face in parallel passes: a Gaussian across the fan, as wide as the distance makes it; what dries
 * on its way does not arrive. All of what leaves the nozzle is on the face, beside it, or lost in the air.
 */
import { phi } from "./reveal";

export interface SprayPass {
  /** mm between nozzle and face, mm/s of the hand */
  distance: number;
  speed: number;
  /** share of the fan that the next pass lies over the last, 0-0.95 */
  overlap: number;
  /** begun and ended off the piece */
  triggered: boolean;
  /** passes one way, and as many across */
  crossed: boolean;
}
export interface SprayMap {
  /** wet µm on a grid over the face, row by row */
  um: Float64Array;
  across: number;
  down: number;
  /** mean, spread as a share of it, most and least, µm wet */
  mean: number;
  cv: number;
  most: number;
  least: number;
  /** ml out of the can; of those on the face, beside it, lost in the air */
  outMl: number;
  faceMl: number;
  besideMl: number;
  lostMl: number;
  /** share that arrives dry and makes the film rough */
  dry: number;
}

/** ml/s out of an ordinary can; half the angle of its fan */
const FLOW_ML_S = 0.9;
const HALF_ANGLE = (14 * Math.PI) / 180;
/** mm at which a share 1/e is lost on the way; from where on drops dry in flight */
const LOST_MM = 900;
const DRY_FROM_MM = 320;
const DRY_OVER_MM = 180;
/** σ of the fan as a share of its whole width */
const SIGMA_SHARE = 0.25;
/** wet µm that hang on an upright face; lying flat more does */
export const SAG_UPRIGHT_UM = 75;
const CELL_MM = 4;
/** s that a hand rests at each end of a pass where the nozzle stays open */
const TURN_S = 0.15;

/** Width of the fan where it meets the face, mm. */
export const fanWidth = (distance: number): number => 2 * distance * Math.tan(HALF_ANGLE);

/** @param w, h the face, mm @throws RangeError where nothing is moved */
export function sprayed(p: SprayPass, w: number, h: number): SprayMap {
  if (!(p.distance > 0 && p.speed > 0)) throw new RangeError("A hand moves, at some distance.");
  const fan = fanWidth(p.distance);
  const sigma = fan * SIGMA_SHARE;
  const step = Math.max(fan * (1 - Math.min(0.95, Math.max(0, p.overlap))), 1);
  const arrives = Math.exp(-p.distance / LOST_MM);
  const [nx, ny] = [Math.max(2, Math.round(w / CELL_MM)), Math.max(2, Math.round(h / CELL_MM))];
  const [cx, cy] = [w / nx, h / ny];
  const um = new Float64Array(nx * ny);
  let [out, face] = [0, 0];
  const run = (
    along: number,
    side: number,
    put: (u: number, v: number, ml: number) => void,
    cu: number,
    cv: number,
    nu: number,
    nv: number,
  ): void => {
    // from half a fan before the edge to half a fan beyond it where it is triggered off the piece; else edge to edge, resting at both
    const over = p.triggered ? fan / 2 : 0;
    const length = along + 2 * over;
    const passes = Math.ceil((side + fan / 2) / step) + 1;
    for (let k = 0; k < passes; k++) {
      const y = -fan / 4 + k * step;
      const perMm = FLOW_ML_S / p.speed;
      out += perMm * length + (p.triggered ? 0 : 2 * TURN_S * FLOW_ML_S);
      for (let v = 0; v < nv; v++) {
        const dy = (v + 0.5) * cv - y;
        if (Math.abs(dy) > 4 * sigma) continue;
        const acrossFan = Math.exp((-dy * dy) / (2 * sigma * sigma)) / (sigma * Math.sqrt(2 * Math.PI));
        for (let u = 0; u < nu; u++) {
          const x = (u + 0.5) * cu;
          // share of the pass whose fan lies over this cell
          const from = phi((x - -over) / sigma);
          const to = phi((x - (along + over)) / sigma);
          let ml = perMm * (from - to) * acrossFan * cu * cv * arrives;
          if (!p.triggered)
            for (const end of [0, along])
              ml +=
                TURN_S *
                FLOW_ML_S *
                (Math.exp(-((x - end) ** 2) / (2 * sigma * sigma)) / (sigma * Math.sqrt(2 * Math.PI))) *
                acrossFan *
                cu *
                cv *
                arrives;
          put(u, v, ml);
        }
      }
    }
  };
  const lay = (i: number, ml: number): void => {
    face += ml;
    // 1 ml over 1 mm² is 1000 mm = 1e6 µm
    um[i] += (ml * 1e6) / (cx * cy);
  };
  run(w, h, (u, v, ml) => lay(v * nx + u, ml), cx, cy, nx, ny);
  if (p.crossed) run(h, w, (u, v, ml) => lay(u * nx + v, ml), cy, cx, ny, nx);
  return mapOf(um, nx, ny, { out, face, arrived: out * arrives }, p.distance);
}

/** Figures of a film as it lies. @param ml out of the can, on the face, arrived @param distance mm, the mean of what was sprayed */
function mapOf(
  um: Float64Array,
  nx: number,
  ny: number,
  ml: { out: number; face: number; arrived: number },
  distance: number,
): SprayMap {
  const n = um.length;
  const mean = um.reduce((a, v) => a + v, 0) / n;
  const sd = Math.sqrt(um.reduce((a, v) => a + (v - mean) ** 2, 0) / n);
  return {
    um,
    across: nx,
    down: ny,
    mean,
    cv: mean > 0 ? sd / mean : 0,
    most: Math.max(...um),
    least: Math.min(...um),
    outMl: ml.out,
    faceMl: ml.face,
    besideMl: Math.max(0, ml.arrived - ml.face),
    lostMl: ml.out - ml.arrived,
    dry: Math.min(1, Math.max(0, (distance - DRY_FROM_MM) / DRY_OVER_MM)),
  };
}

/** A face that is sprayed by a hand going anywhere: the same fan, flow and losses as {@link sprayed}, little by little. */
export class SprayFilm {
  readonly um: Float64Array;
  readonly across: number;
  readonly down: number;
  private out = 0;
  private face = 0;
  private arrived = 0;
  private far = 0;

  /** @param w, h the face, mm */
  constructor(
    readonly w: number,
    readonly h: number,
  ) {
    this.across = Math.max(2, Math.round(w / CELL_MM));
    this.down = Math.max(2, Math.round(h / CELL_MM));
    this.um = new Float64Array(this.across * this.down);
  }

  /** The open nozzle moved from one place to another, mm, evenly in so many seconds, at a distance from the face. */
  stroke(from: readonly [number, number], to: readonly [number, number], s: number, distance: number): void {
    if (!(distance > 0)) throw new RangeError("A can is held at some distance.");
    if (!(s > 0)) return;
    const sigma = fanWidth(distance) * SIGMA_SHARE;
    const n = Math.max(1, Math.ceil(Math.hypot(to[0] - from[0], to[1] - from[1]) / (sigma / 4)));
    const ml = (FLOW_ML_S * s) / n;
    const arrives = Math.exp(-distance / LOST_MM);
    this.out += ml * n;
    this.arrived += ml * n * arrives;
    this.far += ml * n * distance;
    const [cx, cy] = [this.w / this.across, this.h / this.down];
    const over = (at: number, cells: number, size: number): Float64Array =>
      Float64Array.from(
        { length: cells },
        (_v, i) => phi(((i + 1) * size - at) / sigma) - phi((i * size - at) / sigma),
      );
    for (let k = 0; k < n; k++) {
      const t = (k + 0.5) / n;
      const along = over(from[0] + t * (to[0] - from[0]), this.across, cx);
      const across = over(from[1] + t * (to[1] - from[1]), this.down, cy);
      for (let y = 0; y < this.down; y++) {
        if (across[y] < 1e-9) continue;
        for (let x = 0; x < this.across; x++) {
          const here = ml * arrives * along[x] * across[y];
          this.face += here;
          this.um[y * this.across + x] += (here * 1e6) / (cx * cy);
        }
      }
    }
  }
  map(): SprayMap {
    const { out, face, arrived } = this;
    return mapOf(this.um, this.across, this.down, { out, face, arrived }, out > 0 ? this.far / out : 0);
  }
}

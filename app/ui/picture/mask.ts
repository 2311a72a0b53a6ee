/** The picture as a mask over a face drawn small: how much of the burnt colour is seen at each place. From the small grey one kept. */
import type { Picture } from "../../core/records/picture";
import { linear, luminance } from "../../core/models/film/colour";
import { screened, toLight, toScreen } from "../../core/tone/light";
import { type Laid, laid } from "../../core/tone/resample";
import { aimed } from "../../core/tone/render";
import { filledIn, tones } from "../../core/tone/steps";
import type { Pixels } from "../../core/tone/source";
import { png } from "../../io/export/png";
import { fromBase64, toBase64 } from "../../io/base64";

const PX = 128;

/** The small one’s bytes; null: none is kept, or a file had something else there. */
function smallOf(p: Picture): Uint8Array | null {
  try {
    return p.small ? fromBase64(p.small) : null;
  } catch {
    return null;
  }
}

const urlOf = (data: Uint8Array, w: number, h: number): string =>
  `data:image/png;base64,${toBase64(png({ w, h, depth: 8, data, stride: w }, 1))}`;
/** The small grey one that is kept, as it stands; a data URL; null: none is. */
export function smallPicture(p: Picture): string | null {
  const data = smallOf(p);
  return data && p.smallW && data.length % p.smallW === 0 ? urlOf(data, p.smallW, data.length / p.smallW) : null;
}

/** The picture as a face drawn small shows it where it is dug out of a stack: each place the colour whose lightness comes nearest. */
export function pictureDug(p: Picture, colours: readonly string[]): string | null {
  const data = smallOf(p);
  if (!data || !p.smallW || data.length % p.smallW) return null;
  const lights = colours.map((c) => ({ c, y: luminance(linear(c)) }));
  const reach = { colourY: Math.max(...lights.map((l) => l.y)), topY: Math.min(...lights.map((l) => l.y)) };
  const f = toned(p, data);
  // a path for each colour, of runs along the rows
  const runs = new Map(colours.map((c) => [c, ""]));
  const nearest = (x: number, y: number): string => {
    const v = f.v[y * f.w + (p.flip ? f.w - 1 - x : x)];
    const seen = toScreen(aimed(toLight(Math.min(1, Math.max(0, v))), { ...reach, layOn: !p.unlaid }));
    const off = (l: { y: number }): number => Math.abs(toScreen(l.y) - seen);
    return lights.reduce((m, l) => (off(l) < off(m) ? l : m)).c;
  };
  for (let y = 0; y < f.h; y++)
    for (let x = 0, n = 1; x < f.w; x += n) {
      const c = nearest(x, y);
      n = 1;
      while (x + n < f.w && nearest(x + n, y) === c) n++;
      runs.set(c, `${runs.get(c)}M${x} ${y}h${n}v1h-${n}z`);
    }
  const paths = [...runs].map(([c, d]) => `<path fill="${c}" d="${d}"/>`).join("");
  const svg =
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${f.w} ${f.h}" preserveAspectRatio="none" ` +
    `shape-rendering="crispEdges">${paths}</svg>`;
  return `data:image/svg+xml;base64,${toBase64(new TextEncoder().encode(svg))}`;
}

/** The small one laid as the picture lies, its tones made; screen values. */
function toned(p: Picture, data: Uint8Array): { w: number; h: number; v: Float32Array; inside: Laid["inside"] } {
  const w = p.smallW;
  const small: Pixels = { w, h: data.length / w, channels: 1, max: 255, row: (y) => data.subarray(y * w, (y + 1) * w) };
  const k = PX / Math.max(p.w, p.h);
  const grid = { w: Math.max(1, Math.round(p.w * k)), h: Math.max(1, Math.round(p.h * k)) };
  // the small one stands upright already
  const f = laid(small, grid, { fit: p.fit, quarters: p.quarters ?? 0, crop: p.crop ?? null });
  const { v } = tones({ w: f.w, h: f.h, v: screened(f.y as Float32Array) }, p.tone.map(filledIn), k);
  return { w: f.w, h: f.h, v, inside: f.inside };
}

/** @param burnt what is seen where it is burnt @param left where it is not; `#rrggbb` @returns a data URL; null: nothing small is kept */
export function pictureMask(p: Picture, burnt: string, left: string): string | null {
  const data = smallOf(p);
  if (!data || !p.smallW || data.length % p.smallW) return null;
  const f = toned(p, data);
  const { v } = f;
  const [colourY, topY] = [burnt, left].map((c) => luminance(linear(c)));
  const [on, off] = [toScreen(colourY), toScreen(topY)];
  const out = new Uint8Array(f.w * f.h);
  for (let y = 0; y < f.h; y++)
    for (let x = 0; x < f.w; x++) {
      if (x < f.inside.x0 || x >= f.inside.x1 || y < f.inside.y0 || y >= f.inside.y1) continue;
      const seen = toScreen(
        aimed(toLight(Math.min(1, Math.max(0, v[y * f.w + x]))), { colourY, topY, layOn: !p.unlaid }),
      );
      const share = Math.abs(on - off) < 1e-6 ? 0 : (seen - off) / (on - off);
      out[y * f.w + (p.flip ? f.w - 1 - x : x)] = Math.round(255 * Math.min(1, Math.max(0, share)));
    }
  return urlOf(out, f.w, f.h);
}

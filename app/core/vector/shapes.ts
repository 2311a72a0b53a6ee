/** Shapes of a drawing as lines in user units, and the page they stand on in mm. */
import type { Ring } from "./clip";
import { apply, determinant, IDENTITY, multiply, parseTransform, type Matrix } from "./matrix";
import { ellipse, pathLines, rectangle, type Line } from "./outline";
import { nameOf, SvgError, type SvgElement } from "./svg";

const MM: Record<string, number> = {
  mm: 1,
  cm: 10,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  q: 0.25,
  px: 25.4 / 96,
  "": 25.4 / 96,
};
export const SHAPES = new Set(["path", "rect", "circle", "ellipse", "line", "polyline", "polygon"]);

/** A length in user units; percentages of `whole`. */
export function length(e: SvgElement, key: string, whole: number, fallback = 0): number {
  const raw = e.style[key] ?? e.attributes[key];
  if (raw === undefined || raw === "auto") return fallback;
  const m = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*(%|[a-z]*)\s*$/i.exec(raw);
  if (!m) throw new SvgError(`${key}="${raw.slice(0, 30)}" of ${nameOf(e)} is not a length.`);
  const n = Number(m[1]);
  if (m[2] === "%") return (n / 100) * whole;
  const k = MM[m[2].toLowerCase()];
  if (k === undefined)
    throw new SvgError(`${key}="${raw.slice(0, 30)}" of ${nameOf(e)} uses a unit that has no fixed size.`);
  return (n * k) / MM.px;
}

export const transformOf = (e: SvgElement): Matrix => {
  try {
    return parseTransform(e.style.transform ?? e.attributes.transform);
  } catch (err) {
    throw new SvgError(`The ${(err as Error).message} of ${nameOf(e)}.`);
  }
};

/** viewBox to viewport, by preserveAspectRatio. */
export function viewMatrix(
  e: SvgElement,
  w: number,
  h: number,
): { matrix: Matrix; box: [number, number, number, number] } {
  const raw = e.attributes.viewBox;
  if (!raw) return { matrix: IDENTITY, box: [0, 0, w, h] };
  const v = raw
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (v.length !== 4 || v.some((n) => !Number.isFinite(n)) || v[2] <= 0 || v[3] <= 0)
    throw new SvgError(`viewBox="${raw.slice(0, 40)}" of ${nameOf(e)} cannot be read.`);
  let [sx, sy] = [w / v[2], h / v[3]];
  const par = (e.attributes.preserveAspectRatio ?? "xMidYMid meet").trim();
  let [ox, oy] = [0, 0];
  if (!par.startsWith("none")) {
    const s = par.includes("slice") ? Math.max(sx, sy) : Math.min(sx, sy);
    const at = (word: string, spare: number): number => (word === "Min" ? 0 : word === "Max" ? spare : spare / 2);
    const m = /^x(Min|Mid|Max)Y(Min|Mid|Max)/.exec(par);
    ox = at(m?.[1] ?? "Mid", w - s * v[2]);
    oy = at(m?.[2] ?? "Mid", h - s * v[3]);
    [sx, sy] = [s, s];
  }
  return { matrix: [sx, 0, 0, sy, ox - v[0] * sx, oy - v[1] * sy], box: [v[0], v[1], v[2], v[3]] };
}

export function linesOf(e: SvgElement, view: [number, number], tol: number): Line[] {
  const x = (k: string, f = 0): number => length(e, k, view[0], f);
  const y = (k: string, f = 0): number => length(e, k, view[1], f);
  const diag = Math.hypot(...view) / Math.SQRT2;
  switch (e.tag) {
    case "path": {
      const d = e.style.d ?? e.attributes.d ?? "";
      if (!d.trim()) return [];
      try {
        return pathLines(d, tol);
      } catch (err) {
        throw new SvgError(`The ${(err as Error).message} of ${nameOf(e)}.`);
      }
    }
    case "rect": {
      const [w, h] = [x("width"), y("height")];
      if (!(w > 0) || !(h > 0)) return [];
      const rx = e.attributes.rx ?? e.style.rx;
      const ry = e.attributes.ry ?? e.style.ry;
      return [
        {
          closed: true,
          points: rectangle(
            x("x"),
            y("y"),
            w,
            h,
            rx !== undefined ? x("rx") : y("ry"),
            ry !== undefined ? y("ry") : x("rx"),
            tol,
          ),
        },
      ];
    }
    case "circle": {
      const r = length(e, "r", diag);
      return r > 0 ? [{ closed: true, points: ellipse(x("cx"), y("cy"), r, r, tol) }] : [];
    }
    case "ellipse": {
      const [rx, ry] = [x("rx", y("ry")), y("ry", x("rx"))];
      return rx > 0 && ry > 0 ? [{ closed: true, points: ellipse(x("cx"), y("cy"), rx, ry, tol) }] : [];
    }
    case "line":
      return [
        {
          closed: false,
          points: [
            [x("x1"), y("y1")],
            [x("x2"), y("y2")],
          ],
        },
      ];
    default: {
      const n = (e.attributes.points ?? "")
        .trim()
        .split(/[\s,]+/)
        .filter(Boolean)
        .map(Number);
      if (n.some((v) => !Number.isFinite(v))) throw new SvgError(`The points of ${nameOf(e)} cannot be read.`);
      const points: [number, number][] = [];
      for (let i = 0; i + 1 < n.length; i += 2) points.push([n[i], n[i + 1]]);
      return points.length ? [{ closed: e.tag === "polygon", points }] : [];
    }
  }
}

/** further out than this nothing is drawn in earnest, and the kernel's whole numbers end, mm */
export const FAR_MM = 1e6;
/** Rings in mm. @throws SvgError naming the element when it reaches out of all bounds */
export const mapRings = (e: SvgElement, rings: Ring[], m: Matrix): Ring[] => {
  const flip = determinant(m) < 0;
  return rings.map((r) => {
    const out = r.map(([x, y]) => apply(m, x, y));
    if (!out.every(([x, y]) => Math.abs(x) < FAR_MM && Math.abs(y) < FAR_MM))
      throw new SvgError(
        `${nameOf(e)} reaches further than ${FAR_MM / 1000} m or holds a number that cannot be drawn.`,
      );
    return flip ? out.reverse() : out;
  });
};

const physical = (raw: string | undefined): { mm: number; bare: boolean } | null => {
  const m = /^\s*(\d+\.?\d*|\.\d+)\s*([a-z]*)\s*$/i.exec(raw ?? "");
  const k = m ? MM[m[2].toLowerCase()] : undefined;
  return m && k !== undefined && Number(m[1]) > 0
    ? { mm: Number(m[1]) * k, bare: m[2] === "" || m[2].toLowerCase() === "px" }
    : null;
};

export interface Page {
  widthMm: number;
  heightMm: number;
  /** whether the size came from units in the file, from bare pixels (96 an inch), or was typed */
  size: "file" | "pixels" | "typed";
  /** from the drawing's own units to mm */
  matrix: Matrix;
  /** width and height of what it is drawn in, in its own units */
  view: [number, number];
}
/** How large a drawing is. @param typedMm its width where that was typed @throws SvgError where it does not say */
export function pageOf(root: SvgElement, typedMm: number | null = null): Page {
  const box = root.attributes.viewBox ? viewMatrix(root, 1, 1).box : null;
  const w = physical(root.style.width ?? root.attributes.width);
  const h = physical(root.style.height ?? root.attributes.height);
  const ratio = box ? box[3] / box[2] : w && h ? h.mm / w.mm : null;
  const widthMm = w?.mm ?? (h && ratio ? h.mm / ratio : box ? box[2] * MM.px : null);
  const heightMm = h?.mm ?? (widthMm !== null && ratio ? widthMm * ratio : null);
  if (widthMm === null || heightMm === null)
    throw new SvgError("The drawing says neither how large it is nor what its viewBox is; save it with a page size.");
  if (!(widthMm < FAR_MM && heightMm < FAR_MM))
    throw new SvgError(`The page is larger than ${FAR_MM / 1000} m; save it at its true size.`);
  const typed = typedMm !== null && typedMm > 0;
  const scale = typed ? typedMm / widthMm : 1;
  const view = viewMatrix(root, widthMm / MM.px, heightMm / MM.px);
  return {
    widthMm: widthMm * scale,
    heightMm: heightMm * scale,
    size: typed ? "typed" : w && !w.bare ? "file" : "pixels",
    matrix: multiply([MM.px * scale, 0, 0, MM.px * scale, 0, 0], view.matrix),
    view: [view.box[2], view.box[3]],
  };
}

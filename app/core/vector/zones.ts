/**
 * From a drawing to zones: the visible region of each fill or stroke colour after later paint covers earlier.
 * Lengths leave here in mm. What cannot be honoured exactly (gradients, patterns, images, text, transparency, masks,
 * filters) is refused by naming the element.
 */
import { area, bounds, onGrid, ringArea, type Clip, type Region, type Ring } from "./clip";
import { ink } from "./css";
import { maxScale, multiply, type Matrix } from "./matrix";
import { measure, type Measures } from "./measure";
import { rectangle } from "./outline";
import { length, linesOf, mapRings, pageOf, SHAPES, transformOf, viewMatrix } from "./shapes";
import { strokeRings } from "./stroke";
import { LIMIT_S, Meter } from "./work";
import { visible, type Layer } from "./visible";
import { nameOf, readSvg, SvgError, type SvgElement } from "./svg";

export interface FoundZone extends Measures {
  id: string;
  colour: string;
  /** redrawn outline, mm */
  outline: string;
}
export interface FoundArtwork {
  widthMm: number;
  heightMm: number;
  /** whether the size came from units in the file, from bare pixels (96 a inch), or was typed */
  size: "file" | "pixels" | "typed";
  zones: FoundZone[];
}

/** furthest a flattened curve may stray, mm */
const FLAT_MM = 0.004;
/** slivers left by neighbours that share an edge are smaller than this, mm² */
const SLIVER_MM2 = 1e-4;
const INHERITED = [
  "fill",
  "stroke",
  "stroke-width",
  "fill-rule",
  "clip-rule",
  "stroke-linejoin",
  "stroke-linecap",
  "stroke-miterlimit",
  "stroke-dasharray",
  "stroke-dashoffset",
  "color",
  "visibility",
  "fill-opacity",
  "stroke-opacity",
];
const REFUSED: Record<string, string> = {
  text: "is text; convert it to paths in your drawing program and save again",
  image: "is a picture; trace it to paths first",
  foreignObject: "holds foreign content; remove it",
};
const SKIPPED = new Set([
  "defs",
  "style",
  "script",
  "metadata",
  "title",
  "desc",
  "symbol",
  "clipPath",
  "linearGradient",
  "radialGradient",
  "pattern",
  "mask",
  "filter",
  "marker",
  "namedview",
  "animate",
  "animateTransform",
  "animateMotion",
  "set",
  "view",
  "a-link",
]);
/** shapes whose outline never crosses itself */
const ROUND = new Set(["rect", "circle", "ellipse"]);

type Style = Record<string, string>;
function inherit(parent: Style, e: SvgElement): Style {
  const own: Style = {};
  for (const k of INHERITED) {
    const v = e.style[k] ?? e.attributes[k];
    own[k] = v === undefined || v === "inherit" ? parent[k] : v;
  }
  return own;
}

/** Does a region lie inside a cut that is a plain upright rectangle, as the page is? Then nothing is cut off. */
function within(region: Region, cut: Region): boolean {
  const [ring] = cut;
  const [inner, outer] = [bounds(region), bounds(cut)];
  if (cut.length !== 1 || ring.length !== 4 || !inner || !outer) return false;
  const upright = ring.every(([x, y]) => (x === outer.x0 || x === outer.x1) && (y === outer.y0 || y === outer.y1));
  return upright && inner.x0 >= outer.x0 && inner.x1 <= outer.x1 && inner.y0 >= outer.y0 && inner.y1 <= outer.y1;
}

/** Walks the tree in paint order and collects opaque layers. */
class Painter {
  layers: Layer[] = [];
  private uses = 0;
  constructor(
    private clip: Clip,
    private byId: Map<string, SvgElement>,
  ) {}

  private refuseSeeThrough(e: SvgElement, style: Style): void {
    const low = (k: string, v: string | undefined): void => {
      if (v === undefined) return;
      const n = v.trim().endsWith("%") ? parseFloat(v) / 100 : parseFloat(v);
      if (n < 1)
        throw new SvgError(
          `${nameOf(e)} is see-through (${k} ${v}); paint is opaque. Set it to 1, or draw the mixed colour as its own shape.`,
        );
    };
    low("opacity", e.style.opacity ?? e.attributes.opacity);
    if (SHAPES.has(e.tag)) {
      if (style.fill !== "none") low("fill-opacity", style["fill-opacity"]);
      if (style.stroke && style.stroke !== "none") low("stroke-opacity", style["stroke-opacity"]);
    }
    for (const k of ["mask", "filter"]) {
      const v = e.style[k] ?? e.attributes[k];
      if (v && v !== "none")
        throw new SvgError(`${nameOf(e)} has a ${k}, which paint cannot follow; flatten it to plain shapes.`);
    }
    for (const k of ["marker-start", "marker-mid", "marker-end", "marker"]) {
      const v = e.style[k] ?? e.attributes[k];
      if (v && v !== "none" && SHAPES.has(e.tag))
        throw new SvgError(`${nameOf(e)} has arrow or line markers; convert them to paths.`);
    }
    const blend = e.style["mix-blend-mode"];
    if (blend && blend !== "normal")
      throw new SvgError(`${nameOf(e)} blends with what is beneath (${blend}); paint is opaque.`);
  }

  private colour(e: SvgElement, what: "fill" | "stroke", style: Style): string | null {
    const raw = (style[what] ?? (what === "fill" ? "#000000" : "none")).trim();
    if (raw === "none" || raw === "transparent" || raw === "context-fill") return null;
    if (/^url\(/i.test(raw)) {
      const target = this.byId.get(/#([^"')\s]+)/.exec(raw)?.[1] ?? "");
      const kind =
        target?.tag === "pattern"
          ? "a pattern"
          : target?.tag.endsWith("Gradient")
            ? "a gradient"
            : "a paint that is not in the file";
      throw new SvgError(`The ${what} of ${nameOf(e)} is ${kind}; give it one plain colour, or split it into bands.`);
    }
    const c = ink(raw.toLowerCase() === "currentcolor" ? (style.color ?? "#000000") : raw);
    if (!c) throw new SvgError(`The ${what} “${raw.slice(0, 30)}” of ${nameOf(e)} is not a colour.`);
    if (c.alpha === 0) return null;
    if (c.alpha < 1)
      throw new SvgError(
        `The ${what} of ${nameOf(e)} is see-through (${raw.slice(0, 30)}); paint is opaque. Give it a full colour.`,
      );
    return c.hex;
  }

  private clipRegion(
    e: SvgElement,
    m: Matrix,
    view: [number, number],
    target: () => Region,
    seen: Set<SvgElement>,
  ): Region | null {
    const ref = e.style["clip-path"] ?? e.attributes["clip-path"];
    if (!ref || ref === "none") return null;
    const id = /url\(\s*["']?#([^"')\s]+)/.exec(ref)?.[1];
    const cp = id ? this.byId.get(id) : undefined;
    if (!cp || cp.tag !== "clipPath")
      throw new SvgError(`The clip path “${ref.slice(0, 40)}” of ${nameOf(e)} is not in the file.`);
    if (seen.has(cp)) throw new SvgError(`The clip path ${nameOf(cp)} refers to itself.`);
    let base = multiply(m, transformOf(cp));
    if (cp.attributes.clipPathUnits === "objectBoundingBox") {
      const inverseFree = target();
      let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
      for (const r of inverseFree)
        for (const [x, y] of r) [x0, y0, x1, y1] = [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)];
      if (!(x1 > x0)) return [];
      base = multiply([x1 - x0, 0, 0, y1 - y0, x0, y0], transformOf(cp));
    }
    let region: Region = [];
    const add = (c: SvgElement, cm: Matrix): void => {
      const t = multiply(cm, transformOf(c));
      if (c.tag === "use") {
        const to = this.byId.get((c.attributes.href ?? "").replace(/^#/, ""));
        if (to && SHAPES.has(to.tag))
          add(to, multiply(t, [1, 0, 0, 1, length(c, "x", view[0]), length(c, "y", view[1])]));
        return;
      }
      if (!SHAPES.has(c.tag)) return;
      const style = inherit({}, c);
      const rings = mapRings(
        c,
        linesOf(c, view, FLAT_MM / maxScale(t)).map((l) => l.points),
        t,
      );
      region = this.clip.union(region, this.clip.fill(rings, style["clip-rule"] === "evenodd" ? "evenodd" : "nonzero"));
    };
    for (const c of cp.children) add(c, base);
    const nested = this.clipRegion(cp, m, view, target, new Set([...seen, cp]));
    return nested ? this.clip.intersect(region, nested) : region;
  }

  private put(colour: string, region: Region, cut: Region | null): void {
    const r = cut && !within(region, cut) ? this.clip.intersect(region, cut) : region;
    if (r.length) this.layers.push({ colour, region: r });
  }

  walk(
    e: SvgElement,
    parentStyle: Style,
    parent: Matrix,
    view: [number, number],
    cut: Region | null,
    seen: Set<SvgElement>,
  ): void {
    if (REFUSED[e.tag]) {
      if (e.tag === "text" && (e.style.display ?? e.attributes.display) === "none") return;
      throw new SvgError(`${nameOf(e)} ${REFUSED[e.tag]}.`);
    }
    if (SKIPPED.has(e.tag) && !(e.tag === "symbol" && seen.size)) return;
    if ((e.style.display ?? e.attributes.display) === "none") return;
    const style = inherit(parentStyle, e);
    this.refuseSeeThrough(e, style);
    const m = multiply(parent, transformOf(e));
    if (SHAPES.has(e.tag)) {
      if (style.visibility === "hidden" || style.visibility === "collapse") return;
      this.shape(e, style, m, view, cut);
      return;
    }
    let own = cut;
    const clipOf = this.clipRegion(e, m, view, () => this.extent(e, style, m, view, seen), new Set());
    if (clipOf) own = cut ? this.clip.intersect(cut, clipOf) : clipOf;
    if (e.tag === "use") {
      const id = (e.attributes.href ?? "").trim();
      if (!id.startsWith("#")) return; // external references are dropped
      const to = this.byId.get(id.slice(1));
      if (!to) throw new SvgError(`${nameOf(e)} points to ${id.slice(0, 40)}, which is not in the file.`);
      if (seen.has(to)) throw new SvgError(`${nameOf(e)} refers to itself.`);
      if (++this.uses > 20000) throw new SvgError("The drawing repeats shapes more than 20 000 times.");
      const at = multiply(m, [1, 0, 0, 1, length(e, "x", view[0]), length(e, "y", view[1])]);
      const next = new Set([...seen, to]);
      if (to.tag === "symbol" || to.tag === "svg")
        this.viewport(
          to,
          style,
          at,
          view,
          own,
          next,
          length(e, "width", view[0], view[0]),
          length(e, "height", view[1], view[1]),
        );
      else this.walk(to, style, at, view, own, next);
      return;
    }
    if (e.tag === "svg" && e.parent) {
      this.viewport(
        e,
        style,
        multiply(m, [1, 0, 0, 1, length(e, "x", view[0]), length(e, "y", view[1])]),
        view,
        own,
        seen,
        length(e, "width", view[0], view[0]),
        length(e, "height", view[1], view[1]),
      );
      return;
    }
    if (e.tag === "g" || e.tag === "a" || e.tag === "svg" || e.tag === "switch" || e.tag === "symbol")
      for (const c of e.children) this.walk(c, style, m, view, own, seen);
  }

  /** Everything an element paints, for a clip in units of its bounding box. */
  private extent(e: SvgElement, style: Style, m: Matrix, view: [number, number], seen: Set<SvgElement>): Region {
    const inner = new Painter(this.clip, this.byId);
    for (const c of e.children) inner.walk(c, style, m, view, null, seen);
    return inner.layers.flatMap((l) => l.region);
  }

  private viewport(
    e: SvgElement,
    parentStyle: Style,
    m: Matrix,
    view: [number, number],
    cut: Region | null,
    seen: Set<SvgElement>,
    w: number,
    h: number,
  ): void {
    const style = inherit(parentStyle, e);
    const v = viewMatrix(e, w, h);
    const frame = mapRings(e, [rectangle(0, 0, w, h, 0, 0, 1)], m);
    const hide = (e.style.overflow ?? e.attributes.overflow) !== "visible";
    const region = hide
      ? cut
        ? this.clip.intersect(cut, this.clip.fill(frame, "nonzero"))
        : this.clip.fill(frame, "nonzero")
      : cut;
    for (const c of e.children) this.walk(c, style, multiply(m, v.matrix), [v.box[2], v.box[3]], region, seen);
  }

  private shape(e: SvgElement, style: Style, m: Matrix, view: [number, number], cut: Region | null): void {
    const tol = FLAT_MM / maxScale(m);
    const lines = linesOf(e, view, tol);
    if (!lines.length) return;
    const fill = e.tag === "line" ? null : this.colour(e, "fill", style);
    const stroke = this.colour(e, "stroke", style);
    const filled = (): Region => {
      const rings = mapRings(
        e,
        lines.map((l) => l.points),
        m,
      );
      // one that can't cross itself is what it fills, as the kernel would turn it
      if (ROUND.has(e.tag)) return rings.map((r) => onGrid(ringArea(r) < 0 ? [...r].reverse() : r));
      return this.clip.fill(rings, style["fill-rule"] === "evenodd" ? "evenodd" : "nonzero");
    };
    const own = this.clipRegion(e, m, view, filled, new Set());
    const limit = own ? (cut ? this.clip.intersect(cut, own) : own) : cut;
    const paintStroke = (): void => {
      const width =
        style["stroke-width"] === undefined
          ? 1
          : length(
              { ...e, style: { w: style["stroke-width"] }, attributes: {} } as SvgElement,
              "w",
              Math.hypot(...view) / Math.SQRT2,
              1,
            );
      if (!stroke || !(width > 0)) return;
      if ((e.style["vector-effect"] ?? e.attributes["vector-effect"]) === "non-scaling-stroke")
        throw new SvgError(`${nameOf(e)} has a line that does not scale with the drawing; expand it to a path.`);
      const dashText = style["stroke-dasharray"];
      const dash =
        dashText && dashText !== "none"
          ? dashText
              .split(/[\s,]+/)
              .filter(Boolean)
              .map(parseFloat)
          : [];
      if (dash.some((d) => !(d >= 0))) throw new SvgError(`The dashes of ${nameOf(e)} cannot be read.`);
      let rings: Ring[];
      try {
        rings = strokeRings(
          lines,
          {
            width,
            join: (["round", "bevel"].includes(style["stroke-linejoin"])
              ? style["stroke-linejoin"]
              : "miter") as "miter",
            cap: (["round", "square"].includes(style["stroke-linecap"]) ? style["stroke-linecap"] : "butt") as "butt",
            miterLimit: Number(style["stroke-miterlimit"] ?? 4) || 4,
            dash,
            dashOffset: parseFloat(style["stroke-dashoffset"] ?? "0") || 0,
          },
          tol,
        );
      } catch (err) {
        throw new SvgError(`${nameOf(e)}: ${(err as Error).message}.`);
      }
      this.put(stroke, this.clip.fill(mapRings(e, rings, m), "nonzero"), limit);
    };
    const order = (e.style["paint-order"] ?? e.attributes["paint-order"] ?? "").trim();
    if (order.startsWith("stroke")) paintStroke();
    if (fill) this.put(fill, filled(), limit);
    if (!order.startsWith("stroke")) paintStroke();
  }
}

const digits = (v: number): string => String(Math.round(v * 1000) / 1000);
/** Path data of a region, mm, redrawn by us; nothing of the file's own markup is kept. */
export const outlineOf = (r: Region): string =>
  r.map((ring) => `M${ring.map(([x, y]) => `${digits(x)} ${digits(y)}`).join("L")}Z`).join("");

/** Outlines are kept for drawing only: they may stray this far, mm. */
const DRAWN_MM = 0.02;

/**
 * @param text the SVG file
 * @param size typed physical width (height follows the drawing's own shape), mm
 * @param most seconds that it may take, as they are reckoned; Infinity: whatever it takes
 * @throws SvgError with one sentence that names the element and what to do; TooMuch where it would take longer
 */
export function readZones(
  kernel: Clip,
  text: string,
  size: { widthMm: number } | null = null,
  heard: (share: number) => void = () => {},
  most: number = LIMIT_S,
): FoundArtwork {
  const meter = new Meter(most);
  const clip = meter.over(kernel);
  const progress = (share: number): void => {
    meter.at(share);
    heard(share);
  };
  const { root, byId } = readSvg(text);
  const page = pageOf(root, size?.widthMm ?? null);
  const { widthMm, heightMm } = page;
  const painter = new Painter(clip, byId);
  const sheet = clip.fill([rectangle(0, 0, widthMm, heightMm, 0, 0, 1)], "nonzero");
  const style = inherit({}, root);
  for (const c of root.children) painter.walk(c, style, page.matrix, page.view, sheet, new Set());

  meter.shapes = painter.layers.length;
  const seen = visible(clip, painter.layers, (share) => progress(share / 2));
  const order: string[] = [];
  for (const l of painter.layers) if (seen.has(l.colour) && !order.includes(l.colour)) order.push(l.colour);
  const zones: FoundZone[] = [];
  order.forEach((colour, i) => {
    const parts = (seen.get(colour) as Region[])
      .map((p) => p.filter((r) => area([r]) > SLIVER_MM2))
      .filter((p) => p.length);
    if (!parts.length) return;
    zones.push({
      id: `z-${colour.slice(1)}`,
      colour,
      ...measure(clip, parts, (share) => progress(0.5 + (i + share) / order.length / 2)),
      outline: outlineOf(clip.simplify(parts.flat(), DRAWN_MM)),
    });
    progress(0.5 + (i + 1) / order.length / 2);
  });
  if (!zones.length) throw new SvgError("Nothing in the drawing is painted inside its page; there is no zone to fill.");
  return { widthMm, heightMm, size: page.size, zones };
}

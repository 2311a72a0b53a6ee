/** A blank's outline out of a drawing: the lines of an SVG or DXF file, whatever their colour, in mm. */
import { BadOutline, outlineFrom } from "../../core/geometry/blank";
import type { Point, Ring } from "../../core/geometry/outline";
import type { Blank } from "../../core/records/job";
import { readLines } from "../../core/vector/cut-lines";
import { SvgError } from "../../core/vector/svg";
import type { DxfEntity, Parsed } from "dxf";

type Lines = { points: Ring; closed: boolean }[];
/** mm of a DXF file's unit, by its number; a file that names none is taken as mm */
const UNITS: Record<number, number> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 25.4e-6,
  9: 0.0254,
  10: 914.4,
  13: 0.001,
  14: 100,
};
/** what draws nothing that could be cut along */
const WORDS = new Set(["TEXT", "MTEXT", "DIMENSION", "HATCH", "POINT", "ATTDEF", "ATTRIB", "VIEWPORT", "LEADER"]);
const TURN = 2 * Math.PI;
/** furthest that an arc laid out as straight lines strays, mm */
const FLAT_MM = 0.004;

/** Corners of a turn of radius r, from one angle to another; its ends among them. */
function arc(cx: number, cy: number, r: number, from: number, to: number): Ring {
  const n = Math.max(2, Math.ceil(Math.abs(to - from) / (2 * Math.acos(Math.max(0, 1 - FLAT_MM / r)))));
  return Array.from({ length: n + 1 }, (_, i): Point => {
    const a = from + ((to - from) * i) / n;
    return [cx + r * Math.cos(a), cy + r * Math.sin(a)];
  });
}

/** The turn between two corners of a polyline: bulge is the tangent of a quarter of its angle, to the left of the way where positive. */
function bulged(a: Point, b: Point, bulge: number): Ring {
  const angle = 4 * Math.atan(bulge);
  const chord = Math.hypot(b[0] - a[0], b[1] - a[1]);
  if (chord === 0) return [];
  const r = chord / 2 / Math.sin(angle / 2);
  const along = Math.atan2(b[1] - a[1], b[0] - a[0]);
  const to = along + Math.PI / 2 - angle / 2;
  const [cx, cy] = [a[0] + r * Math.cos(to), a[1] + r * Math.sin(to)];
  const from = Math.atan2(a[1] - cy, a[0] - cx);
  return arc(cx, cy, Math.abs(r), from, from + angle).slice(1, -1);
}
function polyline({ vertices = [], closed = false }: DxfEntity): Lines[number] {
  const n = vertices.length;
  const points = vertices.flatMap((v, i): Ring => {
    const next = vertices[(i + 1) % n];
    const here: Point = [v.x, v.y];
    return v.bulge && (closed || i < n - 1) ? [here, ...bulged(here, [next.x, next.y], v.bulge)] : [here];
  });
  return { points, closed };
}
/** Circles, arcs and polylines as closely as all else here; what else there is as the reader lays it out. */
function linesOf(e: DxfEntity, parsed: Parsed, others: (p: Parsed) => Ring[]): Lines {
  const plain = !e.transforms?.length;
  const { x = 0, y = 0, r = 0 } = e;
  if (plain && e.type === "CIRCLE") return [{ points: arc(x, y, r, 0, TURN).slice(1), closed: true }];
  if (plain && e.type === "ARC") {
    const { startAngle: from = 0, endAngle: to = TURN } = e;
    return [{ points: arc(x, y, r, from, to > from ? to : to + TURN), closed: false }];
  }
  if (plain && (e.type === "LWPOLYLINE" || e.type === "POLYLINE")) return [polyline(e)];
  return others({ ...parsed, blocks: [], entities: [e] }).map((points) => ({ points, closed: false }));
}

async function readDxf(text: string): Promise<Lines> {
  const dxf = await import("dxf");
  // in a bundle its names stand in it, in node under `default`
  const { config, parseString, denormalise, toPolylines } =
    "parseString" in dxf ? dxf : (dxf as { default: typeof dxf }).default;
  config.verbose = false;
  let parsed: Parsed;
  try {
    parsed = parseString(text);
  } catch {
    throw new BadOutline("This is no DXF file that can be read; save it as text (ASCII), not as binary.");
  }
  const k = UNITS[parsed.header.insUnits ?? 4] ?? 1;
  const others = (p: Parsed): Ring[] => toPolylines(p).polylines.map((l) => l.vertices);
  return denormalise(parsed)
    .filter((e) => !WORDS.has(e.type))
    .flatMap((e) => linesOf(e, parsed, others))
    .map(({ points, closed }) => ({ closed, points: points.map(([x, y]): Point => [x * k, -y * k]) }));
}

/**
 * @param name the file's, with its ending @param text what is in it
 * @throws BadOutline with one sentence that says what is wrong
 */
export async function blankFromFile(name: string, text: string): Promise<{ w: number; h: number; blank: Blank }> {
  try {
    return outlineFrom(/\.dxf$/i.test(name) ? await readDxf(text) : readLines(text));
  } catch (e) {
    if (e instanceof SvgError) throw new BadOutline(e.message);
    throw e;
  }
}

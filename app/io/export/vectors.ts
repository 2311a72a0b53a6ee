/**
 * Vector files for the laser, true to size in mm: a group or layer a purpose, in the order in which they run. No clock and no name of
 * any program goes in, so that the same job makes the same bytes.
 */
import type { Path } from "../../core/geometry/travel";
import type { PacketLayer } from "../../core/explain/packet";

export interface Sheet {
  /** mm */
  w: number;
  h: number;
  title: string;
  layers: { layer: Pick<PacketLayer, "id" | "purpose" | "name" | "how">; paths: Path[] }[];
}

/** digits behind the point: a micrometre */
const DIGITS = 3;
const n = (v: number): string => {
  const s = v.toFixed(DIGITS).replace(/\.?0+$/, "");
  return s === "-0" ? "0" : s;
};
const xml = (t: string): string =>
  t.replace(/[<>&"\u0000-\u001f]/g, (c) => ({ "<": "&lt;", ">": "&gt;", "&": "&amp;", '"': "&quot;" })[c] ?? " ");

const d = (p: Path): string => `M${p.points.map(([x, y]) => `${n(x)} ${n(y)}`).join("L")}${p.closed ? "Z" : ""}`;
/** line that is run, mm; it has no breadth that counts */
const HAIRLINE_MM = 0.05;

/** Areas are black and filled by even and odd; lines are black and not filled. */
export function writeSvg(s: Sheet): string {
  const groups = s.layers.map(({ layer, paths }) => {
    const look =
      layer.how === "fill"
        ? `fill="#000000" fill-rule="evenodd" stroke="none"`
        : `fill="none" stroke="#000000" stroke-width="${HAIRLINE_MM}"`;
    const body =
      layer.how === "fill"
        ? paths.length
          ? [`    <path d="${paths.map(d).join("")}"/>`]
          : []
        : paths.map((p) => `    <path d="${d(p)}"/>`);
    return [
      `  <g id="${xml(layer.id)}" data-purpose="${layer.purpose}" ${look}>`,
      `    <title>${xml(layer.name)}</title>`,
      ...body,
      "  </g>",
    ].join("\n");
  });
  return [
    `<?xml version="1.0" encoding="UTF-8"?>`,
    `<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="${n(s.w)}mm" height="${n(s.h)}mm" viewBox="0 0 ${n(s.w)} ${n(s.h)}">`,
    `  <title>${xml(s.title)}</title>`,
    ...groups,
    "</svg>",
    "",
  ].join("\n");
}

/** a name that a DXF of the old kind can hold */
const layerName = (id: string): string =>
  id
    .toUpperCase()
    .replace(/[^A-Z0-9_-]/g, "_")
    .slice(0, 31);
const pair = (code: number, v: string | number): string => `${String(code).padStart(3)}\r\n${v}\r\n`;

/** DXF release 12: polylines on a layer each, mm, y upwards. */
export function writeDxf(s: Sheet): string {
  const names = s.layers.map(({ layer }) => layerName(layer.id));
  const up = (y: number): number => s.h - y;
  const head =
    pair(0, "SECTION") +
    pair(2, "HEADER") +
    pair(9, "$ACADVER") +
    pair(1, "AC1009") +
    pair(9, "$INSUNITS") +
    pair(70, 4) +
    pair(9, "$EXTMIN") +
    pair(10, 0) +
    pair(20, 0) +
    pair(9, "$EXTMAX") +
    pair(10, n(s.w)) +
    pair(20, n(s.h)) +
    pair(0, "ENDSEC");
  const row = (name: string): string =>
    pair(0, "LAYER") + pair(2, name) + pair(70, 0) + pair(62, 7) + pair(6, "CONTINUOUS");
  const line =
    pair(0, "TABLE") +
    pair(2, "LTYPE") +
    pair(70, 1) +
    pair(0, "LTYPE") +
    pair(2, "CONTINUOUS") +
    pair(70, 0) +
    pair(3, "Solid line") +
    pair(72, 65) +
    pair(73, 0) +
    pair(40, 0) +
    pair(0, "ENDTAB");
  const tables =
    pair(0, "SECTION") +
    pair(2, "TABLES") +
    line +
    pair(0, "TABLE") +
    pair(2, "LAYER") +
    pair(70, names.length + 1) +
    row("0") +
    names.map(row).join("") +
    pair(0, "ENDTAB") +
    pair(0, "ENDSEC");
  const poly = (p: Path, name: string): string =>
    pair(0, "POLYLINE") +
    pair(8, name) +
    pair(66, 1) +
    pair(10, 0) +
    pair(20, 0) +
    pair(30, 0) +
    pair(70, p.closed ? 1 : 0) +
    p.points
      .map(([x, y]) => pair(0, "VERTEX") + pair(8, name) + pair(10, n(x)) + pair(20, n(up(y))) + pair(30, 0))
      .join("") +
    pair(0, "SEQEND") +
    pair(8, name);
  const entities =
    pair(0, "SECTION") +
    pair(2, "ENTITIES") +
    s.layers.map(({ paths }, i) => paths.map((p) => poly(p, names[i])).join("")).join("") +
    pair(0, "ENDSEC");
  return head + tables + entities + pair(0, "EOF");
}

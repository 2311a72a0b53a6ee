/** What the beam does, as a PNG of exact density. Written by hand because no writer at hand says how many pixels a metre has. */
import { zlibSync } from "fflate";
import type { Rendered } from "../../core/tone/render";

const SIGNATURE = [137, 80, 78, 71, 13, 10, 26, 10];
const CRC = Uint32Array.from({ length: 256 }, (_v, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c >>> 0;
});
function chunk(type: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(data.length + 12);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  for (let i = 0; i < 4; i++) out[4 + i] = type.charCodeAt(i);
  out.set(data, 8);
  let c = 0xffffffff;
  for (let i = 4; i < 8 + data.length; i++) c = CRC[(c ^ out[i]) & 255] ^ (c >>> 8);
  view.setUint32(8 + data.length, (c ^ 0xffffffff) >>> 0);
  return out;
}

/**
 * Grey PNG of 1 or 8 bits; black is where the beam burns.
 * @param intervalMm mm a pixel: 1000/interval pixels a metre are written into it
 */
export function png(
  m: Pick<Rendered, "w" | "h" | "depth" | "data" | "stride">,
  intervalMm: number,
): Uint8Array<ArrayBuffer> {
  const head = new Uint8Array(13);
  const view = new DataView(head.buffer);
  view.setUint32(0, m.w);
  view.setUint32(4, m.h);
  head[8] = m.depth;
  const dense = new Uint8Array(9);
  const perMetre = Math.round(1000 / intervalMm);
  new DataView(dense.buffer).setUint32(0, perMetre);
  new DataView(dense.buffer).setUint32(4, perMetre);
  dense[8] = 1;
  // each row behind its filter byte, which stays 0: dots have nothing that a filter would find
  const rows = new Uint8Array((m.stride + 1) * m.h);
  for (let y = 0; y < m.h; y++) rows.set(m.data.subarray(y * m.stride, (y + 1) * m.stride), y * (m.stride + 1) + 1);
  const parts = [
    Uint8Array.from(SIGNATURE),
    chunk("IHDR", head),
    chunk("pHYs", dense),
    chunk("IDAT", zlibSync(rows, { level: 6 })),
    chunk("IEND", new Uint8Array(0)),
  ];
  const out = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length;
  }
  return out;
}

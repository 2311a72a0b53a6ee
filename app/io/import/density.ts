/** What density a picture file says of itself. */
import { pictureKind } from "./pixels";
import { MM_PER_INCH } from "../../core/units/show";

const METRE = 1000;
/** Pixels an inch as a PNG (pHYs) or a JPEG (JFIF) says it; null: it says none. @param b a file whose head was found sound */
export function densityOf(b: Uint8Array): number | null {
  const v = new DataView(b.buffer, b.byteOffset, b.byteLength);
  const word = (at: number): string => String.fromCharCode(...b.subarray(at, at + 4));
  const kind = pictureKind(b);
  if (kind === "PNG")
    for (let at = 8; at + 12 <= b.length; at += 12 + v.getUint32(at)) {
      const type = word(at + 4);
      if (type === "IDAT") return null;
      if (type === "pHYs" && b[at + 16] === 1) return (v.getUint32(at + 8) * MM_PER_INCH) / METRE;
    }
  if (kind === "JPEG" && b[3] === 0xe0 && word(6) === "JFIF") {
    const x = v.getUint16(14);
    if (x > 0 && b[13] === 1) return x;
    if (x > 0 && b[13] === 2) return (x * MM_PER_INCH) / 10;
  }
  return null;
}

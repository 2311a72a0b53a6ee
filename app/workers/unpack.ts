/** Pictures unpacked by the browser, in a worker, strip by strip, so that no copy of the whole is made twice. */
import type { Pixels } from "../core/tone/source";
import { pictureHead, readPixels } from "../io/import/pixels";

/** rows that are read from the browser's picture at once */
const STRIP = 256;

/** @throws Error with one sentence */
export async function unpack(bytes: Uint8Array<ArrayBuffer>): Promise<Pixels> {
  const head = pictureHead(bytes);
  // what has sixteen bits keeps them
  if (head.kind === "PNG" && bytes[24] === 16) return readPixels(bytes);
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(new Blob([bytes]), { imageOrientation: "none", premultiplyAlpha: "none" });
  } catch {
    throw new Error("The picture’s data is broken.");
  }
  const { width: w, height: h } = bitmap;
  const canvas = new OffscreenCanvas(w, Math.min(h, STRIP));
  const pen = canvas.getContext("2d", { willReadFrequently: true })!;
  let from = -1;
  let data: Uint8ClampedArray = new Uint8ClampedArray(0);
  return {
    w,
    h,
    channels: 4,
    max: 255,
    row: (y) => {
      const at = Math.floor(y / STRIP) * STRIP;
      if (at !== from) {
        pen.clearRect(0, 0, w, STRIP);
        pen.drawImage(bitmap, 0, -at);
        data = pen.getImageData(0, 0, w, Math.min(STRIP, h - at)).data;
        from = at;
      }
      return data.subarray((y - at) * w * 4, (y - at + 1) * w * 4);
    },
  };
}

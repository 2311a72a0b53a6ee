/** A photo taken in: looked at before it is unpacked, freed of notes about place and camera, with a small grey one for lists. */
import { pictureHead, withoutNotes } from "../io/import/pixels";
import { toBase64 } from "../io/base64";
import { EXIF_TURNS } from "../core/tone/source";

/** bytes of a picture */
export const PICTURE_LIMIT = 36_000_000;
export const PICTURES = { "image/png": [".png"], "image/jpeg": [".jpg", ".jpeg"], "image/webp": [".webp"] };
/** Is a dropped file one of pixels, and no drawing? */
export const isPicture = (file: File): boolean =>
  file.type in PICTURES ||
  Object.values(PICTURES)
    .flat()
    .some((end) => file.name.toLowerCase().endsWith(end));
const SMALL_PX = 128;

/** What the act that takes a picture in asks for. @throws Error with one sentence */
export async function takePicture(file: File): Promise<Record<string, string>> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const head = pictureHead(bytes);
  const kept = withoutNotes(bytes);
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(new Blob([kept as Uint8Array<ArrayBuffer>]), { imageOrientation: "none" });
  } catch {
    throw new Error("The picture’s data is broken.");
  }
  const { flip, quarters } = EXIF_TURNS[head.exif];
  const across = quarters % 2 === 1;
  const [w, h] = across ? [bitmap.height, bitmap.width] : [bitmap.width, bitmap.height];
  const k = Math.min(1, SMALL_PX / Math.max(w, h));
  const [sw, sh] = [Math.max(1, Math.round(w * k)), Math.max(1, Math.round(h * k))];
  const canvas = new OffscreenCanvas(sw, sh);
  const pen = canvas.getContext("2d")!;
  pen.fillStyle = "white";
  pen.fillRect(0, 0, sw, sh);
  pen.translate(sw / 2, sh / 2);
  pen.rotate((quarters * Math.PI) / 2);
  if (flip) pen.scale(-1, 1);
  pen.imageSmoothingQuality = "high";
  const [dw, dh] = across ? [sh, sw] : [sw, sh];
  pen.drawImage(bitmap, -dw / 2, -dh / 2, dw, dh);
  bitmap.close();
  const { data } = pen.getImageData(0, 0, sw, sh);
  const grey = Uint8Array.from({ length: sw * sh }, (_v, i) =>
    Math.round(0.2126 * data[4 * i] + 0.7152 * data[4 * i + 1] + 0.0722 * data[4 * i + 2]),
  );
  return {
    intent: "picture",
    name: file.name,
    data: toBase64(kept),
    pxW: String(w),
    pxH: String(h),
    exif: String(head.exif),
    small: toBase64(grey),
    smallW: String(sw),
  };
}

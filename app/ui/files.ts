/** Files to and from the person’s own disk. */
import { toBase64 } from "../io/base64";

export function saveFile(name: string, content: string | Uint8Array<ArrayBuffer>, type: string): void {
  const a = document.createElement("a");
  a.href = URL.createObjectURL(new Blob([content], { type }));
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(a.href), 10000);
}

const LONG_PX = 1600;
/** A photo drawn anew, upright, its long side limited; what comes out is base64 JPEG with no data about place or camera. */
export async function shrinkPhoto(file: File): Promise<string> {
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file, { imageOrientation: "from-image" });
  } catch {
    throw new Error("this file is not a picture that can be read");
  }
  const k = Math.min(1, LONG_PX / Math.max(bitmap.width, bitmap.height));
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(bitmap.width * k)),
    Math.max(1, Math.round(bitmap.height * k)),
  );
  canvas.getContext("2d")!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  const bytes = new Uint8Array(await (await canvas.convertToBlob({ type: "image/jpeg", quality: 0.85 })).arrayBuffer());
  return toBase64(bytes);
}

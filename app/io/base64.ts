/** Bytes as text and back, without a string a byte. */
const AT_ONCE = 0x8000;
export function toBase64(bytes: Uint8Array): string {
  let s = "";
  for (let i = 0; i < bytes.length; i += AT_ONCE) s += String.fromCharCode(...bytes.subarray(i, i + AT_ONCE));
  return btoa(s);
}
/** @throws DOMException when it is no base64 */
export function fromBase64(text: string): Uint8Array<ArrayBuffer> {
  const s = atob(text);
  const out = new Uint8Array(s.length);
  for (let i = 0; i < s.length; i++) out[i] = s.charCodeAt(i);
  return out;
}

/**
 * `*.richlayer.zip`: the same JSON as `shop.richlayer.json` inside, with every photo beside it as `photos/<sha256>`, so that a photo
 * used twice is kept once and the JSON stays small. No clock and no path of any machine goes in: equal shops make equal bytes.
 */
import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from "fflate";
import type { RichLayerFile } from "../core/records/file";
import { writeFile } from "./export/job-file";
import { fromBase64, toBase64 } from "./base64";
import { photoFault, readJobFile, type FileRead } from "./import/job-file";

const JSON_NAME = "shop.richlayer.json";
const MARK = "sha256:";
/** all of it unpacked, bytes: what is larger is refused before it is unpacked */
export const UNPACKED_LIMIT = 300_000_000;
const ENTRIES_LIMIT = 6000;
/** the records themselves, bytes; pictures lie beside them */
const JSON_LIMIT = 60_000_000;
/** times its packed size that an entry may unpack to: records of many jobs alike reach some 60, a trap a thousand */
const RATIO_LIMIT = 300;
/** below this nothing can hold anybody up, whatever its ratio, bytes */
const SMALL = 4_000_000;
/** 1 January 1980, the earliest a zip can say */
const EPOCH = new Date(1980, 0, 1);

async function sha256(bytes: Uint8Array): Promise<string> {
  const d = new Uint8Array(await crypto.subtle.digest("SHA-256", bytes as BufferSource));
  return [...d].map((b) => b.toString(16).padStart(2, "0")).join("");
}

export async function writeZip(f: RichLayerFile): Promise<Uint8Array> {
  const files: Zippable = {};
  const photos = [];
  for (const p of f.photos) {
    const bytes = fromBase64(p.data);
    const name = await sha256(bytes);
    files[`photos/${name}`] = [bytes, { level: 0, mtime: EPOCH }];
    photos.push({ ...p, data: `${MARK}${name}` });
  }
  const json = strToU8(writeFile({ ...f, photos }));
  const sorted = Object.fromEntries(Object.entries(files).sort(([a], [b]) => (a < b ? -1 : 1)));
  return zipSync({ [JSON_NAME]: [json, { level: 6, mtime: EPOCH }], ...sorted }, { mtime: EPOCH });
}

const fail = (path: string, message: string): FileRead => ({ ok: false, faults: [{ path, message }] });

/**
 * Read a zip. Nothing is stored; nothing outside its own two kinds of entries is looked at.
 * @param stage told what is being done, in a word or two
 */
export async function readZip(bytes: Uint8Array, stage: (word: string) => void = () => {}): Promise<FileRead> {
  stage("Unpacking");
  let total = 0;
  let count = 0;
  let tooMuch = false;
  let trap = false;
  let entries: Record<string, Uint8Array>;
  try {
    entries = unzipSync(bytes, {
      filter: (e) => {
        count++;
        total += e.originalSize;
        tooMuch ||= count > ENTRIES_LIMIT || total > UNPACKED_LIMIT;
        trap ||= e.originalSize > SMALL && e.originalSize > RATIO_LIMIT * e.size;
        trap ||= e.name === JSON_NAME && e.originalSize > JSON_LIMIT;
        return !tooMuch && !trap && (e.name === JSON_NAME || /^photos\/[0-9a-f]{64}$/.test(e.name));
      },
    });
  } catch {
    return fail("", "the file is not a sound zip: it is damaged or ends too early");
  }
  if (tooMuch)
    return fail("", `the zip holds more than ${ENTRIES_LIMIT} entries or ${UNPACKED_LIMIT / 1e6} MB unpacked`);
  if (trap)
    return fail(
      "",
      `the zip unpacks to far more than it should: records of more than ${JSON_LIMIT / 1e6} MB, or ${RATIO_LIMIT} times what is packed`,
    );
  const json = entries[JSON_NAME];
  if (!json) return fail(JSON_NAME, "is missing in the zip: this is not a Rich Layer file");
  const read = readJobFile(strFromU8(json), true, stage);
  if (!read.ok) return read;
  const faults: { path: string; message: string }[] = [];
  for (const [i, p] of read.file.photos.entries()) {
    if (!p.data.startsWith(MARK)) continue;
    const name = p.data.slice(MARK.length);
    const data = entries[`photos/${name}`];
    if (!data)
      faults.push({
        path: `photos[${i}].data`,
        message: `points to photos/${name.slice(0, 12)}…, which is not in the zip`,
      });
    else if ((await sha256(data)) !== name)
      faults.push({
        path: `photos/${name.slice(0, 12)}…`,
        message: "is not the picture its name says; it was changed or damaged",
      });
    else {
      p.data = toBase64(data);
      const wrong = photoFault(p.data, p.id);
      if (wrong) faults.push({ path: `photos/${name.slice(0, 12)}…`, message: wrong });
    }
  }
  return faults.length ? { ok: false, faults } : read;
}

export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** A file of either kind, by its bytes. */
export const readAnyFile = (bytes: Uint8Array, stage?: (word: string) => void): Promise<FileRead> | FileRead =>
  isZip(bytes) ? readZip(bytes, stage) : readJobFile(new TextDecoder().decode(bytes), false, stage);

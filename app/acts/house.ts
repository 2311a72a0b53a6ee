/** Acts that belong to no page: undo and redo, opening and beginning a shop, files in, jobs begun and deleted. */
import { Job, Choices, Order, Substrate, WrapUp } from "../core/records/job";
import { OneOf, Text } from "../core/records/fields";
import { AgainForm, KindForm, NewJobForm } from "../core/records/forms";
import { sayFaults, type Fault } from "../core/records/parse";
import { Shop } from "../core/records/shop";
import type { Outcome } from "../core/records/outcome";
import { shopClock } from "../core/time/zoned";
import { nowMinutes } from "../clock";
import { ownOriginal, PictureForm, taken } from "./job/picture";
import { commit, noteSaved, type Put, redo, Refused, undo } from "../store/acts";
import { deleteJob, importFile, type ImportMode } from "../store/import";
import { readHeads, readShop, readWorld } from "../store/queries";
import { withArtwork } from "../core/geometry/artwork";
import { pieceKind } from "../core/catalogue/pieces";
import { onceMore } from "../core/plan/again";
import type { FoundArtwork } from "../core/vector/zones";
import { readLog, readShelf, readWhole } from "../workers/files";
import { readWhen } from "../core/time/typed";
import { typed } from "./answer";
import { act, Bare, freeId, HUGE, perform } from "./act";
import { queueActs } from "./queue";

class IdForm {
  @Text(120) id!: string;
}
class FileForm {
  @Text(400) name: string = "file";
  @Text(HUGE) text!: string;
}
class DrawingForm {
  @Text(200) name!: string;
  @Text(HUGE) svg!: string;
  /** what measuring found, as JSON */
  @Text(HUGE) found!: string;
}
class ImportForm extends FileForm {
  @OneOf(["merge", "replace"]) mode: ImportMode = "merge";
}
class SavedForm {
  /** ms since 1970 */
  @Text(40) at!: string;
}

const here = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";
type Nobody = null;
/** minutes to which the beginning of a new job is rounded up */
const ROUND_MIN = 5;

/** @throws Refused that names the file and every fault */
function readIn<T>(name: string, read: ({ ok: true } & T) | { ok: false; faults: Fault[] }): T {
  if (!read.ok) throw new Refused(`“${name}” was not taken in: ${sayFaults(read.faults)}. Nothing was changed.`);
  return read;
}
/** a due date without a time is one at the end of an ordinary day */
const END_OF_DAY = "17:00";
const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const some = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

const houseActs = [
  ...queueActs,
  act("undo", Bare, async (_f, _c: Nobody) => {
    const what = await undo();
    return what ? `Undone: ${what}` : "There is nothing to undo";
  }),
  act("redo", Bare, async (_f, _c: Nobody) => {
    const what = await redo();
    return what ? `Done again: ${what}` : "There is nothing to redo";
  }),
  act("start-empty", Bare, (_f, _c: Nobody) =>
    commit("beginning of an empty shop", [{ table: "shop", id: "shop", next: { ...new Shop(), zone: here() } }]),
  ),
  act("open-sample", Bare, async (_f, _c: Nobody) => {
    const { sampleShop } = await import("../demo/sample");
    return importFile(await sampleShop(nowMinutes(), here()), "replace");
  }),
  act("delete-job", IdForm, (f, _c: Nobody) => deleteJob(f.id)),
  act("import", ImportForm, async (f, _c: Nobody) => {
    const { file } = readIn(f.name, await readWhole(bytesOf(f.text)));
    await importFile(file, f.mode);
    return `Taken in: ${some(file.jobs.length, "job", "jobs")}`;
  }),
  act("import-log", FileForm, async (f, _c: Nobody) => {
    const jobs = (await readHeads()).map((j) => j.id);
    const { rows } = readIn(f.name, await readLog(bytesOf(f.text), jobs));
    await commit(
      "import of a bench log",
      rows.map((e) => ({ table: "log" as const, id: e.id, next: e })),
    );
    return `Taken in: ${some(rows.length, "log entry", "log entries")}`;
  }),
  act("import-shelf", FileForm, async (f, _c: Nobody) => {
    const { rows } = readIn(f.name, await readShelf(bytesOf(f.text)));
    await commit(
      "import of a Shelf",
      rows.map((p) => ({ table: "products" as const, id: p.id, next: p })),
    );
    return `Taken in: ${some(rows.length, "product", "products")}`;
  }),
  act("saved", SavedForm, async (f, _c: Nobody) => {
    await noteSaved(Number(f.at));
    return "stored";
  }),
  /** what is done is told as the id that the job got */
  act("new-job", NewJobForm, async (f, _c: Nobody) => stored(await fresh(f.title.trim(), f.client.trim()))),
  act("new-of-kind", KindForm, async (f, _c: Nobody) => {
    const kind = pieceKind(f.kind);
    if (!kind) throw new Refused(`There is no kind of piece “${f.kind}”.`);
    const made = await fresh(kind.name, "");
    return stored({ ...made, substrate: { ...kind.blank }, use: [...kind.use] });
  }),
  act("new-from-drawing", DrawingForm, async (f, _c: Nobody) => {
    const made = await fresh(titleOf(f.name), "");
    return stored({ ...made, ...withArtwork(made, f.name, f.svg, JSON.parse(f.found) as FoundArtwork) });
  }),
  act("new-from-picture", PictureForm, async (f, _c: Nobody) => {
    const made = await fresh(titleOf(f.name), "");
    const { photo, next } = taken(f, made, { ...(await readShop())!, job: made, log: [] });
    return stored(next, [{ table: "photos", id: photo.id, next: photo, base: null }]);
  }),
  act("job-again", AgainForm, async (f, _c: Nobody) => {
    const old = (await readWorld(f.from, false))?.job;
    if (!old) throw new Refused("That job is no longer there; undo its deletion first.");
    const made = await fresh(old.title, old.client);
    const due = f.due.trim() ? dueOf(f, made.start) : null;
    const own = await ownOriginal(onceMore(old, made, f.pieces.trim() ? typed.whole(f.pieces) : old.quantity, due));
    return stored(own.made, own.puts);
  }),
];

/** @throws Refused when what was typed is no day */
function dueOf(f: AgainForm, now: string): string {
  try {
    return readWhen(f.due, { now, time: END_OF_DAY, dayFirst: f.dayFirst === "true" });
  } catch (e) {
    if (e instanceof RangeError) throw new Refused(e.message);
    throw e;
  }
}

/** A drawing's file name as a title: without its ending, dashes as blanks. */
const titleOf = (file: string): string => {
  const words = file
    .replace(/\.[a-z0-9]+$/i, "")
    .replace(/[-_]+/g, " ")
    .trim()
    .slice(0, 120);
  return words ? words[0].toUpperCase() + words.slice(1) : "Untitled";
};

/** A job stored; @returns the id that it got */
async function stored(made: Job, beside: Put[] = []): Promise<string> {
  await commit(`new job “${made.title}”`, [...beside, { table: "jobs", id: made.id, next: made }]);
  return made.id;
}

/** A job with nothing in it but its name. */
async function fresh(title: string, client: string): Promise<Job> {
  const base = await readShop();
  if (!base) throw new Refused("There is no shop here yet.");
  const known = (await readHeads()).map((j) => j.id);
  return {
    ...new Job(),
    id: freeId(title.slice(0, 40), known, "job"),
    title,
    client,
    start: shopClock(base.shop).toLocal(Math.ceil(nowMinutes() / ROUND_MIN) * ROUND_MIN),
    substrate: { ...new Substrate() },
    use: [],
    zones: [],
    edits: [],
    waivers: [],
    acknowledged: [],
    choices: { ...new Choices() },
    order: { ...new Order() },
    wrapUp: { ...new WrapUp(), flaws: [], photos: [] },
    machineId: base.machines[0]?.id ?? null,
    units: base.shop.units,
    language: base.shop.language,
  };
}

export const houseAct = (form: Record<string, string>): Promise<Outcome> =>
  perform([houseActs], form, async () => null);

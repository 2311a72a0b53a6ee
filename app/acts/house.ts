/** Acts that belong to no page: undo and redo, opening and beginning a shop, files in, jobs begun and deleted. */
import { Job, Choices, Order, type Queue, Substrate, WrapUp } from "../core/records/job";
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
import { readHeads, readShop, readWorld, readWorldsOf } from "../store/queries";
import { withArtwork } from "../core/geometry/artwork";
import { pieceKind } from "../core/catalogue/pieces";
import { onceMore } from "../core/plan/again";
import type { FoundArtwork } from "../core/vector/zones";
import { readLog, readShelf, readWhole } from "../workers/files";
import { readWhen } from "../core/time/typed";
import { typed } from "./answer";
import { act, Bare, freeId, HUGE, perform } from "./act";

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
class LayForm {
  /** beginnings by job and step, as JSON */
  @Text(HUGE) starts!: string;
}
class QueueForm extends IdForm {
  @Text(20) field!: string;
  @Text(200) value: string = "";
  @Text(400) step: string = "";
}
class DayHoursForm {
  @Text(20) field: string = "";
  @Text(10) day!: string;
  /** two times such as 09:00 - 21:00, “shut”; empty: as its weekday is */
  @Text(40) value: string = "";
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

const jobsOf = async (ids: string[]): Promise<Job[]> => (await readWorldsOf(ids, false)).map((w) => w.job);
/** A job with another place among the others; one that has none any more says nothing of it. */
function withQueue(job: Job, change: Partial<Queue>): Job {
  const rest: Job = { ...job };
  delete rest.queue;
  const queue = Object.fromEntries(Object.entries({ ...job.queue, ...change }).filter(([, v]) => v !== undefined));
  return Object.keys(queue).length ? { ...rest, queue } : rest;
}
/** Two times of a day as they are typed. @throws Refused */
function hoursOfDay(value: string): [string, string] {
  const [from, to] = value.split(/\s*(?:-|–|to)\s*/).map((t) => {
    const at = /^(\d{1,2})(?:[:.](\d\d))?$/.exec(t);
    const [h, m] = at ? [Number(at[1]), Number(at[2] ?? 0)] : [NaN, 0];
    return at && h * 60 + m <= 1440 && m < 60 ? `${String(h).padStart(2, "0")}:${String(m).padStart(2, "0")}` : "";
  });
  if (!from || !to || from >= to)
    throw new Refused(`“${value}” are no hours of a day; 09:00 - 21:00 are, or “shut”, or nothing for its usual ones.`);
  return [from, to];
}
function momentOf(value: string, now: string): string {
  try {
    return readWhen(value, { now, time: now.slice(11), dayFirst: true });
  } catch (e) {
    throw new Refused((e as Error).message);
  }
}
async function queueField(job: Job, { field, value, step }: QueueForm): Promise<Partial<Queue>> {
  if (field === "hold") return { hold: value === "true" ? true : undefined };
  if (field === "weight") {
    const weight = typed.number(value);
    if (!(weight >= 0.1 && weight <= 10)) throw new Refused("How much it weighs lies between 0.1 and 10.");
    return { weight: weight === 1 ? undefined : weight };
  }
  if (field !== "pin") throw new Refused(`There is nothing called “${field}” here.`);
  const rest = (job.queue?.pins ?? []).filter((p) => p.step !== step);
  if (!value.trim()) return { pins: rest.length ? rest : undefined };
  const base = await readShop();
  if (!base) throw new Refused("There is no shop yet.");
  const clock = shopClock(base.shop);
  const at = /^\d+$/.test(value) ? Number(value) : clock.fromLocal(momentOf(value, clock.toLocal(nowMinutes())));
  return { pins: [...rest, { step, at }] };
}

const houseActs = [
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
  act("lay-shop", LayForm, async (f, _c: Nobody) => {
    const starts = JSON.parse(f.starts) as Record<string, [string, number][]>;
    const jobs = await jobsOf(Object.keys(starts));
    await commit(
      "calendar of the shop",
      jobs.map((job) => ({
        table: "jobs" as const,
        id: job.id,
        next: {
          ...job,
          queue: { ...job.queue, laid: starts[job.id].map(([step, at]) => ({ step, at: Math.round(at) })) },
        },
        base: job,
      })),
    );
    return "The jobs go by it now";
  }),
  act("lay-alone", Bare, async (_f, _c: Nobody) => {
    const jobs = (await jobsOf((await readHeads()).map((h) => h.id))).filter((j) => j.queue?.laid);
    await commit(
      "calendar of the shop left",
      jobs.map((job) => ({
        table: "jobs" as const,
        id: job.id,
        next: withQueue(job, { laid: undefined }),
        base: job,
      })),
    );
  }),
  act("queue", QueueForm, async (f, _c: Nobody) => {
    const [job] = await jobsOf([f.id]);
    if (!job) throw new Refused("This job is no longer there; it may have been deleted in another tab.");
    const next = withQueue(job, await queueField(job, f));
    await commit(`place of “${job.title}” among the others`, [{ table: "jobs", id: job.id, next, base: job }]);
  }),
  act("day-hours", DayHoursForm, async (f, _c: Nobody) => {
    const base = await readShop();
    if (!base || !/^\d{4}-\d\d-\d\d$/.test(f.day)) throw new Refused(`“${f.day}” is no day.`);
    const { shop } = base;
    const other = (shop.otherHours ?? []).filter((o) => o.day !== f.day);
    const daysOff = shop.daysOff.filter((d) => d !== f.day);
    const value = f.value.trim().toLowerCase();
    const next = { ...shop, daysOff: value === "shut" ? [...daysOff, f.day].sort() : daysOff };
    const hours = value && value !== "shut" ? hoursOfDay(value) : null;
    const otherHours = hours ? [...other, { day: f.day, hours }].sort((a, b) => (a.day < b.day ? -1 : 1)) : other;
    await commit(`hours of ${f.day}`, [
      {
        table: "shop",
        id: "shop",
        next: { ...next, otherHours: otherHours.length ? otherHours : undefined },
        base: shop,
      },
    ]);
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

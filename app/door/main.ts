/**
 * The door onto the core: `npm run -s core -- VERB < in > out`. The same code as the app, with no screen.
 * Exit 0; 2 for bad input (one sentence on stderr); 3 when there is no feasible answer (the sentence says why).
 */
import "reflect-metadata";
import { readFileSync } from "node:fs";
import { findStep, makePlan, turns, type Plan } from "../core/plan/plan";
import { planReport, simulate, snagReport } from "../core/explain/report";
import { costReport } from "../core/explain/cost";
import { routesReport } from "../core/explain/ways";
import { cellsOf } from "../core/explain/plate";
import { plateOf, plateReport, readReport } from "../core/explain/plate-door";
import { PlateSpec } from "../core/records/plate-spec";
import { check, sayFaults } from "../core/records/parse";
import { ProblemError, readProblem } from "../core/schedule/problem";
import { solve } from "../core/schedule/solve";
import { SvgError } from "../core/vector/svg";
import { readZones } from "../core/vector/zones";
import { BadInput, jobFromBrief, NoAnswer } from "../io/import/brief";
import { readJobFile, worldOf } from "../io/import/job-file";
import { BadPicture, readPixels } from "../io/import/pixels";
import { readRecipe } from "../io/import/recipe";
import { traceSvg } from "../io/import/trace";
import { render } from "../core/tone/render";
import { png } from "../io/export/png";
import { writeFile } from "../io/export/job-file";
import { loadClip } from "./kernel";
import { packets, TITLE_MM } from "../core/explain/packet";
import { pictureWork } from "../core/explain/picture";
import { exercise, EXERCISES } from "../core/practice";
import { start, type Answer, type Task, type Verdict } from "../core/practice/exercise";
import { fromBase64 } from "../io/base64";
import { folderOf, packetFiles, zipOf, type Files, shieldFiles } from "../io/export/packet";
import { shields } from "../core/explain/shields";
import { labelMm, labelTexts, plateKey, plateSheet } from "../io/export/plate-sheet";
import { writeDxf, writeSvg } from "../io/export/vectors";
import { labelsOf } from "../io/lettering";
import { pictureApi } from "../workers/picture-api";

/** the font that labels are lettered in */
const FONT = new URL(
  import.meta.resolve("@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff"),
);

const VERBS = [
  "zones",
  "routes",
  "brief",
  "plan",
  "check",
  "simulate",
  "schedule",
  "picture",
  "trace",
  "cost",
  "files",
  "plate",
  "read",
  "practice",
];
const option = (name: string): string | null => {
  const i = process.argv.indexOf(`--${name}`);
  return i > 0 ? (process.argv[i + 1] ?? null) : null;
};
const json = (text: string, what: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    throw new BadInput(`The ${what} is not sound JSON.`);
  }
};

function planOf(text: string): Plan {
  const read = readJobFile(text);
  if (!read.ok) throw new BadInput(`The job file: ${sayFaults(read.faults)}.`);
  const world = worldOf(read.file, option("job") ?? undefined);
  if (!world) throw new BadInput("The file holds no such job.");
  const plan = makePlan(world, null);
  const now = option("now");
  return now ? makePlan(world, plan.context.clock.fromLocal(now)) : plan;
}

/** An exercise: its task where nothing is answered, what comes of an answer where something is. */
function practised(asked: unknown): object {
  const { exercise: id, seed, level, answer: given } = (asked ?? {}) as Record<string, unknown>;
  const e = typeof id === "string" ? exercise(id) : null;
  if (!e) throw new BadInput(`There is no exercise “${String(id)}”: ${EXERCISES.map((x) => x.id).join(", ")}.`);
  const whole = (v: unknown, most: number, name: string): number => {
    if (!Number.isInteger(v) || (v as number) < 1 || (v as number) > most)
      throw new BadInput(`“${name}” is a whole number from 1 to ${most}.`);
    return v as number;
  };
  const [s, l] = [whole(seed, 1e9, "seed"), whole(level, e.levels, "level")];
  const task: Partial<Task> & Pick<Task, "controls"> = e.task(s, l, null);
  delete task.picture;
  if (given === undefined) return { task, answer: start(task as Task) };
  if (given === null || typeof given !== "object")
    throw new BadInput("“answer” is an object of controls by their ids.");
  const lacks = task.controls.filter((c) => !["number", "string"].includes(typeof (given as Answer)[c.id]));
  if (lacks.length) throw new BadInput(`“answer” lacks ${lacks.map((c) => c.id).join(", ")}.`);
  const verdict: Partial<Verdict> = e.judge(s, l, given as Answer, null);
  delete verdict.picture;
  return verdict;
}

async function answer(verb: string, text: string): Promise<string> {
  const out = (v: unknown): string => `${JSON.stringify(v)}\n`;
  if (verb === "zones") {
    const found = readZones(await loadClip(), text);
    return out({
      widthMm: found.widthMm,
      heightMm: found.heightMm,
      zones: found.zones.map((z) => ({
        id: z.id,
        colour: z.colour,
        areaMm2: z.areaMm2,
        perimeterMm: z.perimeterMm,
        narrowestMm: z.narrowestMm,
        pieces: z.pieces,
        holes: z.holes,
        ...(process.argv.includes("--outlines") ? { outline: z.outline } : {}),
      })),
    });
  }
  if (verb === "brief") {
    const brief = json(text, "brief");
    const drawn = brief !== null && typeof brief === "object" && "svg" in brief;
    return writeFile(jobFromBrief(brief, drawn ? await loadClip() : null));
  }
  if (verb === "routes") {
    const brief = json(text, "brief");
    const drawn = brief !== null && typeof brief === "object" && "svg" in brief;
    const file = jobFromBrief(brief, drawn ? await loadClip() : null, true);
    return out(routesReport(worldOf(file)!));
  }
  if (verb === "schedule") {
    const solved = solve(readProblem(json(text, "problem")), { now: () => performance.now() / 1000 });
    if (solved.is !== "answer") throw new NoAnswer(solved.say);
    return out(solved.answer);
  }
  if (verb === "plate" || verb === "read") {
    const spec = check(PlateSpec, json(text, "plate"), "", "default");
    if (!spec.ok) throw new BadInput(`The plate: ${sayFaults(spec.faults)}.`);
    if (verb === "read") return out(readReport(spec.value));
    const { t, m } = plateOf(spec.value);
    const cells = cellsOf(t, m);
    const sheet = plateSheet(t, cells, labelsOf(readFileSync(FONT), labelTexts(t), labelMm(t)));
    return out({
      ...plateReport(spec.value),
      packet: { "plate.svg": writeSvg(sheet), "plate.dxf": writeDxf(sheet), "key.csv": plateKey(t, cells) },
    });
  }
  if (verb === "practice") return out(practised(json(text, "exercise")));
  const plan = planOf(text);
  if (verb === "cost") return out(costReport(plan));
  if (verb === "check") return out({ snags: snagReport(plan) });
  if (verb === "plan") {
    if (plan.stuck && !plan.missing.length) throw new NoAnswer(plan.stuck);
    return out(planReport(plan));
  }
  const id = option("step");
  const p = findStep(plan, id);
  if (!p)
    throw new BadInput(
      `There is no step “${id ?? ""}”; the plan has ${
        turns(plan)
          .map((x) => x.p.step.id)
          .join(", ") || "none"
      }.`,
    );
  return out({
    step: p.step.id,
    zones: simulate(plan, p).map((z) => ({
      zone: z.zone,
      depthUm: z.depthUm,
      layers: z.layers.map(({ kind, finish, coat, topUm, bottomUm, state }) => ({
        kind,
        finish,
        coat,
        topUm,
        bottomUm,
        state,
      })),
      front: z.front,
      back: z.back,
    })),
  });
}

/** What the beam does of a photo, as a PNG. */
function picture(bytes: Uint8Array): Uint8Array {
  const file = option("recipe");
  if (!file) throw new BadInput("Which recipe? --recipe names its file.");
  let text: string;
  try {
    text = readFileSync(file, "utf8");
  } catch {
    throw new BadInput(`The recipe “${file}” can’t be read.`);
  }
  const photo = readPixels(bytes);
  const recipe = readRecipe(json(text, "recipe"), photo.exif);
  if (photo.profile) process.stderr.write(`The picture has ${photo.profile} for its colours; they are read as sRGB.\n`);
  return png(render(photo, recipe), recipe.intervalMm);
}

/** Packets of all visits to the laser, a folder each, in a zip. */
async function files(text: string): Promise<Uint8Array> {
  const read = readJobFile(text);
  if (!read.ok) throw new BadInput(`The job file: ${sayFaults(read.faults)}.`);
  const plan = planOf(text);
  const clip = await loadClip();
  const all = packets(plan, clip);
  if (!all.length) throw new NoAnswer(plan.missing[0]?.say ?? "Nothing of this job goes to the laser.");
  const photo = read.file.photos.find((p) => p.id === plan.context.picture?.photo);
  const pictures: Record<string, Uint8Array> = {};
  for (const work of photo ? pictureWork(plan) : []) {
    const api = pictureApi((b) => Promise.resolve(readPixels(b)));
    await api.open(fromBase64(photo!.data));
    await api.make({ work, watched: null, px: 1 }, () => {});
    const png = api.save();
    if (png) pictures[work.step] = png;
  }
  const folders: Record<string, Files> = {};
  const { title: called } = plan.context.job;
  const title = called.trim() ? labelsOf(readFileSync(FONT), [called], TITLE_MM)[0] : [];
  const set = shields(plan, clip);
  if (set) folders.shields = shieldFiles(plan, set);
  for (const v of all) folders[folderOf(v)] = await packetFiles(plan, v, clip, pictures, undefined, title);
  return zipOf(folders);
}

/** A flat picture as zones, with their outlines. */
async function trace(bytes: Uint8Array): Promise<string> {
  const number = (name: string): number | null => {
    const typed = option(name);
    if (typed === null) return null;
    if (!(Number(typed) > 0)) throw new BadInput(`--${name} is a number above 0, not “${typed}”.`);
    return Number(typed);
  };
  const widthMm = number("width-mm");
  if (widthMm === null) throw new BadInput("How wide? --width-mm says it.");
  const colours = number("colours");
  const photo = readPixels(bytes);
  const made = traceSvg(photo, photo.exif, { colours, widthMm, leastMm2: number("least-mm2") ?? 0 });
  const { heightMm, zones } = readZones(await loadClip(), made.svg);
  return `${JSON.stringify({ widthMm, heightMm, lost: made.lost, zones: zones.map(({ rows: _rows, smallestMm2: _s, ...z }) => z) })}\n`;
}

async function main(): Promise<number> {
  const verb = process.argv[2] ?? "";
  try {
    if (!VERBS.includes(verb)) throw new BadInput(`“${verb}” is not one of ${VERBS.join(", ")}.`);
    const bytes = readFileSync(0);
    if (verb === "picture" && bytes.length) {
      process.stdout.write(picture(bytes));
      return 0;
    }
    if (verb === "files" && bytes.length) {
      process.stdout.write(await files(bytes.toString("utf8")));
      return 0;
    }
    if (verb === "trace" && bytes.length) {
      process.stdout.write(await trace(bytes));
      return 0;
    }
    const text = bytes.toString("utf8");
    if (!text.trim()) throw new BadInput("Nothing came in on standard input.");
    process.stdout.write(await answer(verb, text));
    return 0;
  } catch (e) {
    const known =
      e instanceof BadInput ||
      e instanceof BadPicture ||
      e instanceof RangeError ||
      e instanceof SvgError ||
      e instanceof ProblemError ||
      e instanceof NoAnswer;
    process.stderr.write(`${known ? (e as Error).message : `Something is wrong inside: ${(e as Error).message}`}\n`);
    return e instanceof NoAnswer ? 3 : 2;
  }
}

process.exitCode = await main();

/** A visit’s packet: vectors, pictures, what they are burnt with, one page to print; in a zip or file by file. */
import { strToU8, zipSync, type Zippable } from "fflate";
import { cutLines, type Shield, type ShieldSet } from "../../core/explain/shields";
import { listWords } from "../../core/units/show";
import { byPiece, nestLayers, onBed, toldLoads, packetName, slug, type VisitPacket } from "../../core/explain/packet";
import type { Plan } from "../../core/plan/plan";
import type { Ring } from "../../core/geometry/outline";
import { nameOn } from "../../core/geometry/names";
import { topSpeed } from "../../core/process/beam";
import { focusOn } from "../../core/process/setup";
import type { Clip } from "../../core/vector/clip";
import { writeDxf, writeSvg, type Sheet } from "./vectors";

/** 1 January 1980, the earliest a zip can say */
const EPOCH = new Date(1980, 0, 1);
const r = (v: number, digits = 3): number => Math.round(v * 10 ** digits) / 10 ** digits;

/** What lies on the bed at a load, or the one piece where there is no bed. */
export function sheetOf(plan: Plan, v: VisitPacket, load: number): Sheet {
  const size = v.bedSize ?? v.piece;
  return {
    ...size,
    title: `${plan.context.job.title}, visit ${v.n}${v.bed && v.bed.loads.length > 1 ? `, load ${load + 1}` : ""}`,
    layers: onBed(v, load),
  };
}
/** The nest for a load. */
export const nestSheet = (plan: Plan, v: VisitPacket, clip: Clip, load: number, title: Ring[] = []): Sheet => ({
  ...(v.bedSize ?? v.piece),
  title: `${plan.context.job.title}: nest`,
  layers: nestLayers(v, plan.context, clip, load, title),
});

/** What the layers of a visit are burnt with, in the machine’s own units and in plain ones. */
export function visitJson(plan: Plan, v: VisitPacket, load: number): object {
  const c = plan.context;
  const { machine } = c;
  const top = machine ? topSpeed(machine) : null;
  return {
    visit: 1,
    job: c.job.id,
    title: c.job.title,
    n: v.n,
    load: v.bed ? load + 1 : null,
    loads: v.bed?.loads.length ?? null,
    machine: machine && { id: machine.id, name: machine.name, bedWmm: machine.bedW, bedHmm: machine.bedH },
    mirrored: v.mirrored,
    steps: v.steps,
    pieces: (v.bed?.loads[load] ?? []).map((p) => {
      const name = nameOn(c.job.zones, p.piece);
      return { piece: p.piece, xMm: r(p.x), yMm: r(p.y), ...(name === null ? {} : { name }) };
    }),
    turned: v.bed?.turned ?? false,
    focus: focusOn(c),
    airAssist: machine?.airAssist ?? null,
    layers: v.layers.map((l) => ({
      id: l.id,
      purpose: l.purpose,
      name: l.name,
      how: l.how,
      zone: l.zone,
      step: l.step,
      picture: l.picture,
      setting: l.setting && {
        powerPercent: r(100 * l.setting.power, 2),
        watts: l.watts === null ? null : r(l.watts, 2),
        speedMmPerS: r(l.setting.speed, 2),
        speedPercent: top === null || machine?.maxSpeed == null ? null : r((100 * l.setting.speed) / top, 2),
        intervalMm: l.how === "fill" ? r(l.setting.interval, 4) : null,
        passes: l.setting.passes,
        from: l.setting.from,
      },
    })),
    leaveAlone: v.leaveAlone,
    notes: v.notes,
  };
}

/** A shield to be cut: the sheet that sits in the jig, or the covers that are laid by hand. */
export const shieldSheet = (plan: Plan, set: ShieldSet, s: Shield, hand: boolean): Sheet => ({
  w: set.w,
  h: set.h,
  title: `${plan.context.job.title}: ${hand ? "covers" : "sheet"} for ${listWords(s.opens)}`,
  layers: [
    {
      layer: { id: "00-cut-out", purpose: "cut-out", name: hand ? "Covers, laid by hand" : "Sheet", how: "line" },
      paths: cutLines(hand ? s.handLaid : s.sheet),
    },
  ],
});
export const jigSheet = (plan: Plan, set: ShieldSet): Sheet => ({
  w: set.w,
  h: set.h,
  title: `${plan.context.job.title}: jig for the shields`,
  layers: [
    { layer: { id: "00-nest", purpose: "nest", name: "Jig: pocket and pins", how: "line" }, paths: cutLines(set.jig) },
  ],
});
/** All shields of a job, and the jig that they sit in. */
export function shieldFiles(plan: Plan, set: ShieldSet): Files {
  const files: Files = {};
  const add = (name: string, sheet: Sheet): void => {
    files[`${name}.svg`] = strToU8(writeSvg(sheet));
    files[`${name}.dxf`] = strToU8(writeDxf(sheet));
  };
  const base = slug(plan.context.job.title) || "job";
  add(`${base}_shields_jig`, jigSheet(plan, set));
  set.shields.forEach((s, i) => {
    const name = `${base}_shield-${i + 1}_${slug(s.opens.join(" "))}`;
    add(`${name}_sheet`, shieldSheet(plan, set, s, false));
    if (s.handLaid.length) add(`${name}_covers`, shieldSheet(plan, set, s, true));
  });
  return files;
}

/** Files by their names. */
export type Files = Record<string, Uint8Array>;

/**
 * Everything of a visit. @param pictures PNGs of its steps, by step id @param page sets its page on paper; absent: none is set
 * @param title the job’s name as outlines, for the nest
 */
export async function packetFiles(
  plan: Plan,
  v: VisitPacket,
  clip: Clip,
  pictures: Readonly<Record<string, Uint8Array>> = {},
  page?: () => Promise<Uint8Array>,
  title: Ring[] = [],
): Promise<Files> {
  const files: Files = {};
  const several = byPiece(v) || (v.bed?.loads.length ?? 0) > 1;
  // loads that are alike are one file
  for (const i of toldLoads(v)) {
    const name = packetName(plan, v, several ? i : null);
    const sheet = sheetOf(plan, v, i);
    files[`${name}.svg`] = strToU8(writeSvg(sheet));
    files[`${name}.dxf`] = strToU8(writeDxf(sheet));
    files[`${name}.json`] = strToU8(`${JSON.stringify(visitJson(plan, v, i), null, 1)}\n`);
  }
  if (v.bed) {
    const nest = nestSheet(plan, v, clip, 0, title);
    const name = packetName(plan, v).replace(/_\d+pcs$/, "_nest");
    files[`${name}.svg`] = strToU8(writeSvg(nest));
    files[`${name}.dxf`] = strToU8(writeDxf(nest));
  }
  for (const s of v.steps) if (pictures[s.id]) files[`${packetName(plan, v)}_${s.id}.png`] = pictures[s.id];
  if (page) files[`${packetName(plan, v)}.pdf`] = await page();
  return files;
}

/** Files in a zip, a folder each visit; the same job makes the same bytes. */
export function zipOf(folders: Readonly<Record<string, Files>>): Uint8Array<ArrayBuffer> {
  const all: Zippable = {};
  for (const [folder, files] of Object.entries(folders).sort(([a], [b]) => (a < b ? -1 : 1)))
    for (const [name, bytes] of Object.entries(files).sort(([a], [b]) => (a < b ? -1 : 1)))
      all[folder ? `${folder}/${name}` : name] = [bytes, { level: 6, mtime: EPOCH }];
  return zipSync(all, { mtime: EPOCH }) as Uint8Array<ArrayBuffer>;
}
/** The folder that a visit has in a zip of several. */
export const folderOf = (v: VisitPacket): string => `visit-${v.n}`;

/** What the worker does that lays out what goes to the laser, and writes it. */
import type { Ring } from "../core/geometry/outline";
import { packets, packetName, TITLE_MM, toldLoads, type VisitPacket } from "../core/explain/packet";
import { makePlan } from "../core/plan/plan";
import type { World } from "../core/records/world";
import type { Clip } from "../core/vector/clip";
import { shields, type ShieldSet } from "../core/explain/shields";
import {
  jigSheet,
  nestSheet,
  packetFiles,
  sheetOf,
  shieldFiles,
  shieldSheet,
  zipOf,
  type Files,
} from "../io/export/packet";
import { writeDxf, writeSvg, type Sheet } from "../io/export/vectors";

export interface PacketAsk {
  world: World;
  now: number | null;
}
/** A visit with each of its loads as it lies on the bed. */
export interface LaidVisit {
  visit: VisitPacket;
  name: string;
  /** loads that differ, each as it lies on the bed */
  sheets: { load: number; sheet: Sheet }[];
  nest: Sheet | null;
}

export interface LaidShields {
  set: ShieldSet;
  jig: Sheet;
  sheets: { sheet: Sheet; covers: Sheet | null }[];
}

/** The job’s name as outlines, as a nest has it. */
async function titleRings(font: () => Promise<Uint8Array>, title: string): Promise<Ring[]> {
  const { labelsOf } = await import("../io/lettering");
  return title.trim() ? labelsOf(await font(), [title], TITLE_MM)[0] : [];
}

/** @param font letters for the nest */
export const packetsApi = (kernel: () => Promise<Clip>, font: () => Promise<Uint8Array>) => ({
  async lay({ world, now }: PacketAsk): Promise<LaidVisit[]> {
    try {
      const clip = await kernel();
      const plan = makePlan(world, now, true);
      const title = await titleRings(font, world.job.title);
      return packets(plan, clip).map((visit) => ({
        visit,
        name: packetName(plan, visit),
        sheets: toldLoads(visit).map((i) => ({ load: i, sheet: sheetOf(plan, visit, i) })),
        nest: visit.bed ? nestSheet(plan, visit, clip, 0, title) : null,
      }));
    } catch (e) {
      throw new Error(`What goes to the laser could not be laid out: ${(e as Error).message}`, { cause: e });
    }
  },
  /** The shields of colours that are sprayed beside one another; null: there are none. */
  async shields({ world, now }: PacketAsk): Promise<LaidShields | null> {
    const plan = makePlan(world, now, true);
    const set = shields(plan, await kernel());
    return (
      set && {
        set,
        jig: jigSheet(plan, set),
        sheets: set.shields.map((s) => ({
          sheet: shieldSheet(plan, set, s, false),
          covers: s.handLaid.length ? shieldSheet(plan, set, s, true) : null,
        })),
      }
    );
  },
  async writeShields({ world, now }: PacketAsk): Promise<Uint8Array<ArrayBuffer>> {
    const plan = makePlan(world, now, true);
    const set = shields(plan, await kernel());
    if (!set) throw new Error("There are no shields any more; read the page anew.");
    return zipOf({ "": shieldFiles(plan, set) });
  },
  /** @param n number of the visit @param extra files that were made elsewhere: pictures by step id, and its page */
  async write(
    { world, now }: PacketAsk,
    n: number,
    extra: { pictures: Record<string, Uint8Array>; page: Uint8Array | null },
  ): Promise<Uint8Array<ArrayBuffer>> {
    const clip = await kernel();
    const plan = makePlan(world, now, true);
    const visit = packets(plan, clip).find((v) => v.n === n);
    if (!visit) throw new Error(`There is no visit ${n} any more; read the page anew.`);
    const { page } = extra;
    const files: Files = await packetFiles(
      plan,
      visit,
      clip,
      extra.pictures,
      page ? () => Promise.resolve(page) : undefined,
      await titleRings(font, world.job.title),
    );
    return zipOf({ "": files });
  },
  svg: (sheet: Sheet): string => writeSvg(sheet),
  dxf: (sheet: Sheet): string => writeDxf(sheet),
});
export type PacketsApi = ReturnType<typeof packetsApi>;

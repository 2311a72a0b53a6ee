/** What the worker does that lays out what goes to the laser, and writes it. */
import { packets, packetName, toldLoads, type VisitPacket } from "../core/explain/packet";
import { makePlan } from "../core/plan/plan";
import type { World } from "../core/records/world";
import type { Clip } from "../core/vector/clip";
import { nestSheet, packetFiles, sheetOf, zipOf, type Files } from "../io/export/packet";
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

export const packetsApi = (kernel: () => Promise<Clip>) => ({
  async lay({ world, now }: PacketAsk): Promise<LaidVisit[]> {
    try {
      const clip = await kernel();
      const plan = makePlan(world, now, true);
      return packets(plan, clip).map((visit) => ({
        visit,
        name: packetName(plan, visit),
        sheets: toldLoads(visit).map((i) => ({ load: i, sheet: sheetOf(plan, visit, i) })),
        nest: visit.bed ? nestSheet(plan, visit, clip, 0) : null,
      }));
    } catch (e) {
      throw new Error(`What goes to the laser could not be laid out: ${(e as Error).message}`, { cause: e });
    }
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
    );
    return zipOf({ "": files });
  },
  svg: (sheet: Sheet): string => writeSvg(sheet),
  dxf: (sheet: Sheet): string => writeDxf(sheet),
});
export type PacketsApi = ReturnType<typeof packetsApi>;

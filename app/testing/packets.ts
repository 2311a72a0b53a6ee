/** What goes to the laser of a frozen job, short enough to be kept: settings as they stand, drawings by length and hash. */
import { createHash } from "node:crypto";
import { packets } from "../core/explain/packet";
import { shields } from "../core/explain/shields";
import { makePlan } from "../core/plan/plan";
import { byBeam, kindOf } from "../core/process/kinds";
import type { Clip } from "../core/vector/clip";
import { folderOf, packetFiles, shieldFiles, type Files } from "../io/export/packet";
import { readJobFile, worldOf } from "../io/import/job-file";

const told = (files: Files): object =>
  Object.fromEntries(
    Object.entries(files).map(([name, bytes]) => [
      name,
      name.endsWith(".json")
        ? (JSON.parse(new TextDecoder().decode(bytes)) as object)
        : `${bytes.length} ${createHash("sha256").update(bytes).digest("hex").slice(0, 16)}`,
    ]),
  );

/** @returns by folder and file, and whether anything of the job is done by the beam */
export async function packetsTold(
  text: string,
  clip: Clip,
): Promise<{ beam: boolean; packets: Record<string, object> }> {
  const read = readJobFile(text);
  if (!read.ok) throw new Error("a frozen file can’t be read");
  const plan = makePlan(worldOf(read.file)!, null, true);
  const out: Record<string, object> = {};
  for (const v of packets(plan, clip)) out[folderOf(v)] = told(await packetFiles(plan, v, clip));
  const set = shields(plan, clip);
  if (set) out.shields = told(shieldFiles(plan, set));
  return { beam: plan.placed.some((p) => byBeam(p.step) && kindOf(p.step.kind).tries !== "setting"), packets: out };
}

/** Against what stands in the way: fixes, ways out of a missed window or a date that can't be kept, waivers with a reason. */
import { nowMinutes } from "../../clock";
import { waysOutOf } from "../../core/bench/missed";
import { atBench, standing } from "../../core/bench/next";
import { findFix } from "../../core/judge/judge";
import { makePlan } from "../../core/plan/plan";
import { waysOut } from "../../core/plan/rescue";
import { Text } from "../../core/records/fields";
import type { Job } from "../../core/records/job";
import type { World } from "../../core/records/world";
import { commit, type Put, Refused } from "../../store/acts";
import { readHeads } from "../../store/queries";
import { act, freeId } from "../act";
import { changed, putsOf, type OnJob } from "./job";
import { ownOriginal } from "./picture";

class SnagForm {
  @Text(4) rule!: string;
  @Text(240) where: string = "";
}
class FixForm extends SnagForm {
  @Text(120) fix!: string;
}
class WaiveForm extends SnagForm {
  @Text(400) reason: string = "";
}
class WayForm {
  @Text(60) way!: string;
}
class WayOutForm {
  @Text(400) label!: string;
}

const here = (): number => Math.floor(nowMinutes());
async function applied(w: World, label: string, way: { label: string; apply(w: World): World }): Promise<string> {
  const known = (await readHeads()).map((j) => j.id);
  // a job that comes beside this one gets an id that no other has
  const puts = putsOf(w, way).map((p) => {
    if (p.table !== "jobs" || p.base !== null) return p;
    const id = freeId(p.id, known, "job");
    known.push(id);
    return { ...p, id, next: { ...(p.next as Job), id } };
  });
  // a job that came of one with a picture keeps an original of its own
  const more: Put[] = [];
  for (const p of puts) {
    if (p.table !== "jobs" || p.base !== null || !p.next) continue;
    const own = await ownOriginal(p.next as Job);
    p.next = own.made;
    more.push(...own.puts);
  }
  await commit(label, [...puts, ...more]);
  return way.label;
}
const another = (f: SnagForm) => (x: { rule: number; where: string }) =>
  !(x.rule === Number(f.rule) && x.where === f.where);

export const snagActs = [
  act("fix", FixForm, async (f, { world: w }: OnJob) => {
    const fix = findFix(makePlan(w, here()), Number(f.rule), f.where, f.fix);
    if (!fix) throw new Refused("That snag is gone already.");
    return applied(w, `fix “${fix.label}”`, fix);
  }),
  act("way", WayForm, async (f, { world: w }: OnJob) => {
    const now = here();
    const plan = makePlan(w, now);
    const st = standing(plan, now);
    const way = st.is === "missed" ? waysOutOf(w, atBench(plan), st.step, now).find((x) => x.id === f.way) : undefined;
    if (!way) throw new Refused("The window is no longer shut; nothing had to be done.");
    return applied(w, `“${way.label}” in “${w.job.title}”`, way);
  }),
  act("way-out", WayOutForm, async (f, { world: w }: OnJob) => {
    const now = here();
    const due = w.job.due === null ? null : makePlan(w, now).context.clock.fromLocal(w.job.due);
    const out = due === null ? undefined : waysOut(w, due, now).find((x) => x.label === f.label);
    if (!out) throw new Refused("The due date can be kept by now; nothing was changed.");
    return applied(w, `“${out.label}”`, out);
  }),
  act("waive", WaiveForm, async (f, c: OnJob) => {
    const reason = f.reason.trim();
    if (!reason) throw new Refused("Write down why; the reason is kept with the job.");
    const waiver = { rule: Number(f.rule), where: f.where, reason };
    return changed(c, "waiver in", (j) => ({ waivers: [...j.waivers.filter(another(f)), waiver] }));
  }),
  act("unwaive", SnagForm, (f, c: OnJob) =>
    changed(c, "waiver in", (j) => ({
      waivers: j.waivers.filter(another(f)),
      acknowledged: j.acknowledged.filter((r) => r !== Number(f.rule)),
    })),
  ),
];

/** The wrap-up: how many are good, what went wrong, the end of the job. */
import { context } from "../../core/process/context";
import { nowMinutes } from "../../clock";
import { lotFor } from "../../core/explain/cost";
import { keptWith, withPrices } from "../../core/plan/begun";
import { makePlan } from "../../core/plan/plan";
import { OneOf, Text } from "../../core/records/fields";
import { FlawForm } from "../../core/records/forms";
import type { Flaw, Job, WrapUp } from "../../core/records/job";
import { shopClock } from "../../core/time/zoned";
import { Refused } from "../../store/acts";
import { act, Bare, FieldForm } from "../act";
import { typed } from "../answer";
import { changed, type OnJob } from "./job";

class FlawIdForm {
  @Text(120) id!: string;
}

const wrapped = (c: OnJob, more: (now: WrapUp, j: Job) => Partial<WrapUp>): Promise<void> =>
  changed(c, "wrap-up of", (j) => ({ wrapUp: { ...j.wrapUp, ...more(j.wrapUp, j) } }));

function figure(f: FieldForm, now: WrapUp, pieces: number): Partial<WrapUp> {
  const n = f.value.trim() === "" ? null : typed.whole(f.value);
  if (f.field === "score") return { score: n };
  if (f.field !== "good" && f.field !== "lost") throw new Refused(`There is nothing called “${f.field}” here.`);
  const other = (f.field === "good" ? now.lost : now.good) ?? 0;
  if (n !== null && n + other > pieces)
    throw new Refused(`${n} and ${other} are more than the ${pieces} pieces that were begun.`);
  return { [f.field]: n };
}

class MarkForm {
  @Text(10) n!: string;
  /** empty: nothing is said of it any more */
  @OneOf(["", "good", "mend", "lost"]) is: "" | "good" | "mend" | "lost" = "";
}
/** Pieces with one marked otherwise; the counts are those of the marks. */
function marked(now: WrapUp, n: number, is: MarkForm["is"]): Partial<WrapUp> {
  const others = (now.pieces ?? []).filter((p) => p.n !== n);
  const pieces = is ? [...others, { n, is, note: "" }].sort((a, b) => a.n - b.n) : others;
  const count = (x: string): number | null => (pieces.length ? pieces.filter((p) => p.is === x).length : null);
  return { pieces: pieces.length ? pieces : undefined, good: count("good"), lost: count("lost") };
}

export const wrapUpActs = [
  act("piece-mark", MarkForm, (f, c: OnJob) => {
    const n = typed.whole(f.n);
    const { pieces } = context(c.world);
    if (n < 1 || n > pieces) throw new Refused(`There is no piece ${n}; ${pieces} were begun.`);
    return wrapped(c, (now) => marked(now, n, f.is));
  }),
  act("set", FieldForm, (f, c: OnJob) =>
    wrapped(c, (now) => (f.field === "note" ? { note: f.value } : figure(f, now, context(c.world).pieces))),
  ),
  act("flaw", FlawForm, (f, c: OnJob) =>
    wrapped(c, (now) => {
      const flaw: Flaw = {
        id: `flaw.${now.flaws.length + 1}.${Math.round(nowMinutes() * 60)}`,
        flaw: f.flaw,
        zone: f.zone || null,
        piece: f.piece ? typed.whole(f.piece) : null,
        severity: Number(f.severity),
        note: f.note,
      };
      return { flaws: [...now.flaws, flaw] };
    }),
  ),
  act("flaw-forget", FlawIdForm, (f, c: OnJob) =>
    wrapped(c, (now) => ({ flaws: now.flaws.filter((x) => x.id !== f.id) })),
  ),
  act("close", Bare, (_f, c: OnJob) => {
    const at = nowMinutes();
    const lot = lotFor(c.world.job, (c.world.elsewhere ?? c.world).shop);
    const made = keptWith(makePlan(c.world, Math.floor(at), true), null, at);
    const begun = withPrices(made, c.world.elsewhere ?? c.world, lot ? [lot] : []);
    const closedAt = shopClock(c.world.shop).toLocal(Math.floor(at));
    return changed(c, "wrap-up of", (j) => ({ begun, wrapUp: { ...j.wrapUp, closedAt } }));
  }),
  act("reopen", Bare, (_f, c: OnJob) => wrapped(c, () => ({ closedAt: null }))),
];

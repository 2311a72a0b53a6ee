/** Taps at the bench: each is stored as an entry of its own before anything on screen changes. */
import { own } from "../core/process/kinds";
import { nextPiece, fold, standing as entriesStanding } from "../core/plan/fold";
import { air, airAtMoment } from "../core/models/drying/climate";
import { LogEntry, type LogKind } from "../core/records/log";
import type { Answer } from "../core/records/ids";
import { makePlan } from "../core/plan/plan";
import type { World } from "../core/records/world";
import { onShelf } from "../core/plan/amounts";
import { nowMinutes } from "../clock";
import { zonedClock } from "../core/time/zoned";
import { change, logTap, Refused } from "../store/acts";
import type { Shop } from "../core/records/shop";
import { sense } from "../simulators/sensor";
import type { Product } from "../core/records/product";
import { readWorld } from "../store/queries";
import type { Outcome } from "../ui/kit/field";
import { answer, typed } from "./answer";

/** readings that are kept; older ones have done their work */
const READINGS_KEPT = 2000;

let counter = 0;

async function tap(
  w: World,
  kind: LogKind,
  step: string,
  more: Partial<LogEntry> = {},
  used: { next: Product; base: Product }[] = [],
  instead: LogEntry | null = null,
): Promise<void> {
  const at = nowMinutes();
  const now = airAtMoment(air(w.shop.climate), at, zonedClock(w.shop.zone).minuteOfDay(Math.floor(at)));
  // Ids sort in time: the second, then a count, then chance against a second tab.
  const id =
    `${w.job.id}.${Math.round(at * 60000).toString(36)}.${(counter++).toString(36).padStart(3, "0")}${Math.floor((performance.now() * 1000) % 46656).toString(36)}`.slice(
      0,
      118,
    );
  await logTap(
    [
      { ...new LogEntry(), id, jobId: w.job.id, kind, step, at, c: now.c, rh: now.rh, ...more },
      ...(instead ? [instead] : []),
    ],
    w.log.length,
    used,
  );
}

/** Paint that a finished coat took, counted off the can that was opened first; back on when the tap is taken back. */
function countDown(w: World, productId: string | null, ml: number, sign: 1 | -1): { next: Product; base: Product }[] {
  const p = w.products.find((x) => x.id === productId);
  if (!p?.cans.length || onShelf(p.cans) === null) return [];
  let left = ml;
  const cans = p.cans.map((k) => {
    const has = k.leftMl ?? k.fullMl;
    const d = sign > 0 ? Math.min(has, left) : Math.min(k.fullMl - has, left);
    left -= d;
    return { ...k, leftMl: Math.round((has - sign * d) * 100) / 100 };
  });
  return [{ next: { ...p, cans }, base: p }];
}

export async function benchAct(jobId: string, f: Record<string, string>): Promise<Outcome> {
  return answer(undefined, async () => {
    const w = await readWorld(jobId);
    if (!w) throw new Refused("This job is no longer there; undo its deletion first.");
    const now = Math.floor(nowMinutes());
    const state = fold(w.log);
    const run = state.steps.get(f.step);
    const finish = async (): Promise<void> => {
      if (run?.doneAt != null) throw new Refused("This step is done already.");
      const plan = makePlan(w, now);
      const i = plan.placed.findIndex((p) => p.step.id === f.step);
      const p = plan.placed[i];
      const started = run?.startedAt ?? nowMinutes();
      const use = plan.uses[i];
      await tap(
        w,
        "done",
        f.step,
        {
          stepKind: p?.step.kind ?? "",
          predicted: p?.uncorrected ?? null,
          actual: Math.max(0, nowMinutes() - started),
          ml: use?.ml ?? null,
          productId: use ? (own(p.step, "productId") ?? null) : null,
        },
        use?.ml ? countDown(w, own(p.step, "productId"), use.ml, 1) : [],
      );
    };
    switch (f.intent) {
      case "start":
        return tap(w, "start", f.step);
      case "piece": {
        const n = f.piece ? Number(f.piece) : nextPiece(run, state.aside, w.job.quantity);
        if (n === null) throw new Refused("All pieces are done here; the step can be closed.");
        if (run?.pieces.includes(n)) throw new Refused(`Piece ${n} is done already; take it back if that was a slip.`);
        await tap(w, "piece", f.step, { piece: n });
        const after = fold([
          ...w.log,
          { ...new LogEntry(), id: "~", jobId, kind: "piece", step: f.step, at: nowMinutes(), piece: n },
        ]);
        if (nextPiece(after.steps.get(f.step), after.aside, w.job.quantity) === null)
          return `Piece ${n}: that was the last`;
        return `Piece ${n}`;
      }
      case "aside":
        return tap(w, "aside", f.step, { piece: Number(f.piece) });
      case "done":
        return finish();
      case "check":
        return tap(w, "check", f.step, { answer: f.answer as Answer });
      case "touch":
        return tap(w, "touch", f.step, { note: "touch check: firm, no smell" });
      case "early":
        if (!f.reason?.trim()) throw new Refused("Write down why it is begun early; the risk is kept with the job.");
        return tap(w, "early", f.step, { note: f.reason.trim() });
      case "note":
        if (!f.text.trim()) throw new Refused("The note is empty.");
        return tap(w, "note", f.step, { note: f.text.trim() });
      case "reading": {
        const at = nowMinutes();
        const r = f.sensor
          ? sense(w.shop.climate, at, zonedClock(w.shop.zone).minuteOfDay(Math.floor(at)))
          : { c: typed.temperature(f.c ?? "", w.shop.units), rh: typed.percent(f.rh ?? "") };
        await change<Shop>("reading of the air", "shop", "shop", (s) => ({
          ...s,
          climate: {
            ...s.climate,
            measured: true,
            readings: [...(s.climate.readings ?? []), { at: Math.floor(at), ...r }].slice(-READINGS_KEPT),
          },
        }));
        return `Read: ${Math.round(r.c * 10) / 10} °C, ${Math.round(r.rh * 100)} %`;
      }
      case "earlier": {
        const last = state.last;
        if (!last) throw new Refused("There is no tap to put right.");
        const at = zonedClock(w.shop.zone).fromLocal(f.at.slice(0, 16));
        const before = entriesStanding(w.log)
          .filter((e) => e.id !== last.id)
          .pop();
        if (at > nowMinutes()) throw new Refused("That moment is still to come.");
        if (before && at < Math.floor(before.at))
          throw new Refused(
            `That is before the tap that went before it, ${zonedClock(w.shop.zone).toLocal(Math.floor(before.at)).replace("T", ", ")}. Take back further first.`,
          );
        // The correction keeps everything but the time; the slip stays in the log as taken back.
        const started = state.steps.get(last.step)?.startedAt ?? null;
        await tap(w, "back", last.step, { of: last.id }, [], {
          ...last,
          id: `${last.id.slice(0, 100)}.at${w.log.length.toString(36)}`,
          at,
          actual: last.kind === "done" && started !== null ? Math.max(0, at - started) : last.actual,
        });
        return "Put right";
      }
      case "back": {
        const last = state.last;
        if (!last) throw new Refused("There is nothing to take back.");
        await tap(
          w,
          "back",
          last.step,
          { of: last.id },
          last.kind === "done" && last.ml && last.productId ? countDown(w, last.productId, last.ml, -1) : [],
        );
        return "Taken back";
      }
      default:
        throw new Refused(`There is no act “${f.intent}”.`);
    }
  });
}

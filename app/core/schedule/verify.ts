/**
 * The oracle: does an answer keep all that its problem asks? Written from the file format alone; it shares no code with the search,
 * and counts where the search looks up (spans are walked one by one, pieces are followed each for itself).
 */
import type { Answer, Problem, ScheduledTask } from "./problem";

export interface ScheduleFault {
  kind:
    | "missing"
    | "unknown"
    | "twice"
    | "number"
    | "duration"
    | "earliest"
    | "closed"
    | "pause"
    | "resource"
    | "hold"
    | "opens"
    | "closes"
    | "fixed"
    | "finish"
    | "lateness"
    | "windows"
    | "trips"
    | "moved"
    | "bound"
    | "proved";
  /** task, resource, or lag as `from>to` */
  id: string;
  say: string;
}

const TOLERANCE = 1e-5;

/** Minutes of a clock between two moments, stretch by stretch. */
function elapsed(rates: [number, number][] | null, a: number, b: number): number {
  if (!rates) return b - a;
  if (b < a) return -elapsed(rates, b, a);
  let sum = 0;
  for (let i = 0; i < rates.length; i++) {
    const from = i === 0 ? -Infinity : rates[i][0];
    const to = i + 1 < rates.length ? rates[i + 1][0] : Infinity;
    const inside = Math.min(b, to) - Math.max(a, from);
    if (inside > 0) sum += inside * rates[i][1];
  }
  return sum;
}

/** @returns every fault found; an empty list: the answer is valid */
export function verify(problem: Problem, answer: Pick<Answer, "tasks"> & Partial<Answer>): ScheduleFault[] {
  const faults: ScheduleFault[] = [];
  const fault = (kind: ScheduleFault["kind"], id: string, say: string): void => void faults.push({ kind, id, say });
  const asked = new Map(problem.tasks.map((t) => [t.id, t]));
  const placed = new Map<string, ScheduledTask>();
  for (const t of answer.tasks) {
    if (!asked.has(t.id)) fault("unknown", t.id, `“${t.id}” is no task of the problem`);
    else if (placed.has(t.id)) fault("twice", t.id, `“${t.id}” stands there twice`);
    else if (![t.start, t.end, ...t.pauses.flat()].every((x) => Number.isInteger(x) && x >= 0))
      fault("number", t.id, `“${t.id}” has a time that is no whole minute`);
    else placed.set(t.id, t);
  }
  for (const id of asked.keys())
    if (!placed.has(id) && !faults.some((f) => f.id === id)) fault("missing", id, `“${id}” has no time`);
  const closedOf = new Map(problem.resources.map((r) => [r.id, r.closed]));
  const shutFor = (id: string): [number, number][] => asked.get(id)!.uses.flatMap((u) => closedOf.get(u.resource)!);
  const rates = new Map(problem.clocks.map((c) => [c.id, c.rates]));

  for (const [id, t] of placed) {
    const q = asked.get(id)!;
    const work = q.minutes * (q.perPiece ? q.pieces : 1);
    const paused = t.pauses.reduce((a, [x, y]) => a + y - x, 0);
    if (t.end - t.start - paused !== work)
      fault("duration", id, `“${id}” works ${t.end - t.start - paused} min of ${work}`);
    if (q.fixedStart !== null && t.start !== q.fixedStart)
      fault("fixed", id, `“${id}” is pinned to ${q.fixedStart} and stands at ${t.start}`);
    if (q.fixedStart === null && t.start < q.earliest)
      fault("earliest", id, `“${id}” begins at ${t.start}, before ${q.earliest}`);
    const shut = shutFor(id);
    if (t.pauses.length && !q.pausable) fault("pause", id, `“${id}” pauses, and may not`);
    let at = t.start;
    for (const [a, b] of t.pauses) {
      if (a < at || b <= a || b > t.end) fault("pause", id, `“${id}” has a pause ${a}–${b} that is out of order`);
      // every minute of a pause must be shut time of what it uses
      let m = a;
      while (m < b) {
        const s = shut.find(([x, y]) => x <= m && m < y);
        if (!s) {
          fault("pause", id, `“${id}” pauses at ${m}, when all it uses is open`);
          break;
        }
        m = s[1];
      }
      at = b;
    }
    // stretches of work between the pauses
    const runs: [number, number][] = [];
    let from = t.start;
    for (const [a, b] of t.pauses) {
      runs.push([from, a]);
      from = b;
    }
    runs.push([from, t.end]);
    for (const [a, b] of runs) {
      const s = shut.find(([x, y]) => x < b && a < y && a < b);
      if (s) fault("closed", id, `“${id}” runs ${a}–${b}, shut ${s[0]}–${s[1]}`);
    }
  }

  /** piece k, from 0, of a placed task: when its work begins and when it is done */
  const piece = (id: string, k: number): [number, number] => {
    const q = asked.get(id)!;
    const t = placed.get(id)!;
    if (!q.perPiece) return [t.start, t.end];
    const at = (work: number, ends: boolean): number => {
      let left = work;
      let m = t.start;
      for (const [a, b] of t.pauses) {
        if (ends ? left <= a - m : left < a - m) return m + left;
        left -= a - m;
        m = b;
      }
      return m + left;
    };
    return [k === 0 ? t.start : at(q.minutes * k, false), q.minutes === 0 ? t.start : at(q.minutes * (k + 1), true)];
  };

  const taken = new Map<string, [at: number, change: number, what: string][]>(problem.resources.map((r) => [r.id, []]));
  for (const [id, t] of placed)
    for (const u of asked.get(id)!.uses)
      if (t.end > t.start) taken.get(u.resource)!.push([t.start, u.amount, id], [t.end, -u.amount, id]);
  let broken = 0;
  for (const l of problem.lags) {
    const name = `${l.from}>${l.to}`;
    if (!placed.has(l.from) || !placed.has(l.to)) continue;
    const [a, b] = [asked.get(l.from)!, asked.get(l.to)!];
    const pieces = !l.perPiece ? 1 : a.perPiece ? a.pieces : b.perPiece ? b.pieces : 1;
    let shut = false;
    for (let k = 0; k < pieces; k++) {
      const e = l.perPiece ? piece(l.from, k)[1] : placed.get(l.from)!.end;
      const s = l.perPiece ? piece(l.to, k)[0] : placed.get(l.to)!.start;
      const opened = elapsed(l.clock ? rates.get(l.clock)! : null, e, s);
      if (s < e || opened < l.min - TOLERANCE) {
        fault("opens", name, `“${l.to}” begins ${s - e} min after “${l.from}”, before the wait of ${l.min} is over`);
        break;
      }
      if (
        l.max !== null &&
        elapsed(l.closeClock ? rates.get(l.closeClock)! : null, e, s) > l.max + TOLERANCE &&
        (l.reopens === null || opened < l.reopens - TOLERANCE)
      )
        shut = true;
    }
    if (shut && l.soft) broken++;
    if (shut && !l.soft)
      fault(
        "closes",
        name,
        `“${l.to}” begins after its window behind “${l.from}” has shut${l.reopens === null ? "" : " and before it reopens"}`,
      );
    if (l.holds.length) {
      const from = l.perPiece ? piece(l.from, 0)[1] : placed.get(l.from)!.end;
      const to = l.perPiece ? piece(l.to, pieces - 1)[0] : placed.get(l.to)!.start;
      for (const u of l.holds)
        if (to > from) taken.get(u.resource)!.push([from, u.amount, name], [to, -u.amount, name]);
    }
  }
  for (const r of problem.resources) {
    const events = taken.get(r.id)!.sort((x, y) => x[0] - y[0] || x[1] - y[1]);
    let level = 0;
    let waits = 0;
    for (const [at, change, what] of events) {
      level += change;
      if (!asked.has(what)) waits += change;
      if (change > 0 && level > r.capacity) {
        fault(
          waits > 0 ? "hold" : "resource",
          r.id,
          `${level} of “${r.id}” are taken at ${at}, where there are ${r.capacity}: by “${what}” among them`,
        );
        break;
      }
    }
  }

  const all = [...placed.values()];
  const finish = all.reduce((x, t) => Math.max(x, t.end), 0);
  const late = all.reduce(
    (x, t) => x + asked.get(t.id)!.weight * Math.max(0, t.end - (asked.get(t.id)!.due ?? Infinity)),
    0,
  );
  const moved = all.reduce(
    (x, t) =>
      x + (asked.get(t.id)!.preferStart === null ? 0 : Math.abs(t.start - (asked.get(t.id)!.preferStart as number))),
    0,
  );
  let trips = 0;
  if (problem.trip) {
    const { resource, gap } = problem.trip;
    const hands = all
      .filter((t) => asked.get(t.id)!.uses.some((u) => u.resource === resource))
      .sort((x, y) => x.start - y.start);
    let until: number | null = null;
    for (const t of hands) {
      if (until === null || t.start - until > gap) trips++;
      until = Math.max(until ?? 0, t.end);
    }
  }
  const told = (
    kind: ScheduleFault["kind"],
    key: "finish" | "lateness" | "windowsBroken" | "trips" | "moved",
    is: number,
  ): void => {
    const says = answer[key];
    if (says !== undefined && Math.abs(says - is) > TOLERANCE * Math.max(1, is))
      fault(kind, key, `it says ${key} ${says}, and it is ${is}`);
  };
  if (!faults.some((f) => f.kind === "missing")) {
    told("finish", "finish", finish);
    told("lateness", "lateness", late);
    told("windows", "windowsBroken", broken);
    told("trips", "trips", trips);
    told("moved", "moved", moved);
    if (answer.bounds) {
      const over: [string, number, number][] = [
        ["windowsBroken", answer.bounds.windowsBroken, broken],
        ["lateness", answer.bounds.lateness, late],
        ["finish", answer.bounds.finish, finish],
      ];
      // Each speaks of the least that any schedule reaches.
      for (const [key, bound, is] of over)
        if (bound > is + TOLERANCE * Math.max(1, is))
          fault("bound", key, `no answer can have ${key} below ${bound}, it says, and this one has ${is}`);
      if (answer.bound !== undefined && answer.bound !== answer.bounds.finish)
        fault("bound", "bound", `its bound is ${answer.bound} in one place and ${answer.bounds.finish} in another`);
    }
    if (
      answer.proved &&
      answer.provedFor === "finish" &&
      answer.bounds &&
      Math.ceil(answer.bounds.finish / problem.finishBucket) < Math.ceil(finish / problem.finishBucket)
    )
      fault("proved", "finish", `it claims a proof, with ${finish} against a bound of ${answer.bounds.finish}`);
  }
  return faults;
}

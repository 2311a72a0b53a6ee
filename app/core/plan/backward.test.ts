import { inTurn } from "./placed";
import { snagsOf } from "../judge/judge";
import { a1, constant, e1, shop, swing } from "../testing/worlds";
import { LogEntry } from "../records/log";
import type { World } from "../records/world";
import { countBack, latestStart } from "./backward";
import { makePlan, type Plan } from "./plan";
import { waysOut } from "./rescue";

const due = (w: World, at: string): World => ({ ...w, job: { ...w.job, due: at } });
/**
 * The same world at a moment when all steps before k were done just as planned and k was not begun: planned anew by
 * the bench's own log.
 */
function atMoment(w: World, p: Plan, k: number, t: number): Plan {
  const line = inTurn(p.placed);
  const log = line.slice(0, line.indexOf(p.placed[k])).flatMap((x, i) =>
    (["start", "done"] as const).map((kind) => ({
      ...new LogEntry(),
      id: `l${i}.${kind}`,
      jobId: w.job.id,
      kind,
      step: x.step.id,
      at: (kind === "start" ? x.start : x.end) as number,
    })),
  );
  return makePlan({ ...w, log }, t);
}
const windows = (p: Plan): number => snagsOf(p).filter((s) => s.rule === 21).length;

const WORLDS: [string, World][] = [
  ["E1 at 20 °C", due(e1(), "2027-01-20T16:00")],
  ["E1 with cold nights", due(e1({ shop: { climate: swing(6, 18) } }), "2027-01-26T12:00")],
  ["A1 with recoat windows", due(a1(), "2027-01-19T17:00")],
  [
    "A1 in a narrow day",
    due(
      a1({
        shop: { hours: { ...shop().hours, mon: ["09:00", "11:00"], tue: ["09:00", "11:00"], wed: ["09:00", "11:00"] } },
      }),
      "2027-02-01T12:00",
    ),
  ],
];

describe.each(WORLDS)("counted back: %s", (_name, w) => {
  const p = makePlan(w);
  const by = p.context.clock.fromLocal(w.job.due as string);
  const back = countBack(p)!;

  test("every step has a latest beginning, none before its plan, none that the due date forbids", () => {
    expect(p.ready).not.toBeNull();
    expect(back).toHaveLength(p.placed.length);
    for (const b of back) {
      expect(b.start).not.toBeNull();
      expect(b.slack).toBe((b.start as number) - (p.placed[b.index].start as number));
      expect(b.slack).toBeGreaterThanOrEqual(0);
    }
  });

  test("begun then, the date holds; one minute later it, a window or the hours break", () => {
    for (const b of back) {
      const t = b.start as number;
      const good = atMoment(w, p, b.index, t);
      expect([b.step, good.placed[b.index].start]).toEqual([b.step, t]);
      expect(good.ready).toBeLessThanOrEqual(by);
      expect(windows(good)).toBeLessThanOrEqual(windows(p));
      const late = atMoment(w, p, b.index, t + 1);
      const broken =
        (late.ready ?? Infinity) > by || windows(late) > windows(p) || late.placed[b.index].start !== t + 1;
      expect([b.step, broken]).toEqual([b.step, true]);
    }
  });
});

describe("dates that can't be", () => {
  test("no due date, nothing to count back from; a date that is past leaves no latest beginning", () => {
    expect(countBack(makePlan(e1()))).toBeNull();
    const p = makePlan(due(e1(), "2027-01-11T12:00"));
    for (const b of countBack(p)!) expect([b.start, (b.slack as number) < 0]).toEqual([null, true]);
    expect(latestStart(p, 0, 0)).toBeNull();
  });

  test("what would make it possible is planned to its end and keeps the date", () => {
    const w = due(
      e1({ shop: { climate: constant(12) }, job: { use: ["wet"] }, choices: { depthMm: 1.5 } }),
      "2027-01-14T17:00",
    );
    const p = makePlan(w);
    const by = p.context.clock.fromLocal(w.job.due as string);
    expect(p.ready!).toBeGreaterThan(by);
    const outs = waysOut(w, by, null);
    expect(outs.length).toBeGreaterThan(0);
    for (const o of outs) {
      expect(makePlan(o.apply(w)).ready).toBe(o.ready);
      expect(o.keeps).toBe(o.ready! <= by);
    }
    expect(outs[0].keeps).toBe(true);
    expect(w.shop.climate.c).toBe(12);
  });

  test("where nothing is enough, the nearest are named and say that they are not", () => {
    const w = due(e1({ shop: { climate: constant(12) } }), "2027-01-11T10:00");
    const outs = waysOut(w, makePlan(w).context.clock.fromLocal("2027-01-11T10:00"), null);
    expect(outs.length).toBeGreaterThan(0);
    expect(outs.every((o) => !o.keeps)).toBe(true);
  });

  test("a batch too large says how many would be ready", () => {
    const w = due(e1({ job: { quantity: 400 }, choices: { begin: undefined } }), "2027-01-22T17:00");
    const by = makePlan(w).context.clock.fromLocal(w.job.due as string);
    const fewer = waysOut(w, by, null).find((o) => o.label.startsWith("Make "))!;
    const n = Number(/Make (\d+) of/.exec(fewer.label)![1]);
    expect(makePlan({ ...w, job: { ...w.job, quantity: n } }).ready!).toBeLessThanOrEqual(by);
    expect(makePlan({ ...w, job: { ...w.job, quantity: n + 1 } }).ready!).toBeGreaterThan(by);
  });
});

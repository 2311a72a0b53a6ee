import { a1, e1 } from "../testing/worlds";
import { makePlan } from "../plan/plan";
import { open } from "../judge/judge";
import { LogEntry } from "../records/log";
import type { World } from "../records/world";
import { missedWindow, waysOutOf } from "./missed";
import { standing } from "./next";

/** Steps up to and with `last` done as planned. */
function doneThrough(w: World, last: string): { world: World; end: number } {
  const p = makePlan(w);
  const k = p.placed.findIndex((x) => x.step.id === last);
  const log = p.placed.slice(0, k + 1).flatMap((x, i) =>
    (["start", "done"] as const).map((kind) => ({
      ...new LogEntry(),
      id: `l${String(i).padStart(2, "0")}.${kind}`,
      jobId: w.job.id,
      kind,
      step: x.step.id,
      at: (kind === "start" ? x.start : x.end) as number,
    })),
  );
  return { world: { ...w, log }, end: p.placed[k].end as number };
}
const FIRST = "coat.colour.poppy.1";

describe("a recoat window that was missed", () => {
  const { world, end } = doneThrough(a1(), FIRST);

  test("inside the window there is nothing to offer; past it, it is called missed; after it reopens, all is well", () => {
    expect(standing(makePlan(world, end + 20), end + 20).is).toBe("ready");
    const late = end + 90;
    const p = makePlan(world, late);
    const s = standing(p, late);
    expect(s.is).toBe("missed");
    if (s.is !== "missed") return;
    expect(s.closes).toBeLessThan(late);
    expect(missedWindow(s.step, late)).not.toBeNull();
    const again = s.reopens as number;
    expect(standing(makePlan(world, again), again).is).toBe("ready");
  });

  test("wait, scuff and strip are each a plan to the end, with no window broken and nothing that ruins the piece", () => {
    const late = end + 90;
    const p = makePlan(world, late);
    const s = standing(p, late);
    if (s.is !== "missed") throw new Error("not missed");
    const ways = waysOutOf(world, p, s.step, late);
    expect(ways.map((w) => w.id)).toEqual(["wait", "scuff", "strip"]);
    for (const way of ways) {
      const after = makePlan(way.apply(world), late);
      expect([way.id, after.ready]).toEqual([way.id, way.ready]);
      expect([
        way.id,
        open(after)
          .filter((x) => x.rule === 21 || x.severity === "stop")
          .map((x) => x.why),
      ]).toEqual([way.id, []]);
      expect(after.unfit).toEqual([]);
    }
    const [wait, scuff, strip] = ways;
    // scuffing waits for sandable (24 h), not for the window (48 h)
    expect(scuff.ready!).toBeLessThan(wait.ready!);
    const scuffed = makePlan(scuff.apply(world), late);
    expect(standing(scuffed, late)).toMatchObject({ is: "waiting", need: { state: "sandable" } });
    const next = scuffed.placed.find((x) => x.step.id === "coat.colour.poppy.2")!;
    expect(next.needs.filter((n) => n.state === "recoat")).toEqual([]);
    // stripping lays the coat again and pays its paint twice
    const stripped = makePlan(strip.apply(world), late);
    const coats = (x: typeof p): number =>
      x.placed.filter((y) => y.step.kind === "coat" && y.step.productId === "poppy").length;
    expect(coats(stripped)).toBe(coats(p) + 1);
    expect(
      stripped.amounts.find((x) => x.product === "poppy")!.ml! / p.amounts.find((x) => x.product === "poppy")!.ml!,
    ).toBeCloseTo((coats(p) + 1) / coats(p), 6);
    const stripAt = stripped.placed.findIndex((x) => x.step.kind === "strip");
    expect(stripped.placed[stripAt].after.zones.every((z) => z.films.length === 0)).toBe(true);
    expect(stripped.placed[stripAt + 1].step.kind).toBe("degrease");
    expect(stripped.placed[stripAt + 2].after.zones.every((z) => z.films.length === 1)).toBe(true);
  });

  test("doing it twice makes further steps, not the same ones", () => {
    const late = end + 90;
    const once = waysOutOf(
      world,
      makePlan(world, late),
      makePlan(world, late).placed.find((x) => x.step.id === "coat.colour.poppy.2")!,
      late,
    )[1].apply(world);
    const ids = makePlan(once, late).placed.map((x) => x.step.id);
    expect(new Set(ids).size).toBe(ids.length);
  });

  test("paint that never shuts is never missed", () => {
    const { world: w, end: t } = doneThrough(e1(), "coat.seal.1");
    expect(standing(makePlan(w, t + 50000), t + 50000).is).toBe("ready");
  });
});

/** The worker's own file, with a stand-in for what a worker has of the browser: the same answer as on the main thread, told step by step. */
import { brief } from "../core/testing/briefs";
import { makePlan } from "../core/plan/plan";
import type { World } from "../core/records/world";
import { movesOf } from "../core/explain/why/moves";
import type { WhyAsk, WhyReply } from "./protocol";

type Scope = { onmessage: ((e: { data: WhyAsk }) => void) | null; postMessage: (r: WhyReply) => void };
const scope = globalThis as unknown as Scope;
const told: WhyReply[] = [];
const world = brief(40);
const plan = makePlan(world, null, true);

beforeAll(async () => {
  scope.onmessage = null;
  scope.postMessage = (r) => void told.push(structuredClone(r));
  await import("./why.worker");
});
beforeEach(() => void (told.length = 0));
/** As it goes between threads: a copy without its classes. */
const ask = (data: WhyAsk): void => scope.onmessage!({ data: structuredClone(data) });

test("a copy of the world gives the same answer, with the share done before it", () => {
  for (const figure of [
    { of: "ready" },
    { of: "minutes", step: plan.placed[plan.placed.length - 1].step.id },
  ] as const) {
    told.length = 0;
    ask({ world, now: null, figure });
    const here = movesOf(plan, figure)!;
    expect(told[told.length - 1]).toEqual({ is: "done", moved: here });
    const shares = told.slice(0, -1).map((r) => (r.is === "progress" ? r.share : -1));
    expect(shares).toEqual(Array.from({ length: here.tried }, (_, k) => (k + 1) / here.tried));
  }
});

test("a figure that is not there is no fault; a world that can't be planned is told in a sentence, and the worker lives on", () => {
  ask({ world, now: null, figure: { of: "wait", step: "nobody" } });
  expect(told).toEqual([{ is: "done", moved: null }]);
  told.length = 0;
  ask({ world: { ...world, job: null } as unknown as World, now: null, figure: { of: "ready" } });
  expect(told).toEqual([
    { is: "refused", message: expect.stringMatching(/^What moves this figure could not be worked out: /) },
  ]);
});

/** The worker's own file, with stand-ins for what a worker has of the browser. */
import { readFileSync } from "node:fs";
import { readProblem, type Problem } from "../core/schedule/problem";
import { verify } from "../core/schedule/verify";
import type { ScheduleAsk, ScheduleReply } from "./protocol";

type Scope = {
  onmessage: ((e: { data: ScheduleAsk }) => Promise<void>) | null;
  postMessage: (r: ScheduleReply) => void;
};
const scope = globalThis as unknown as Scope;
const shop = (jobs: number): Problem =>
  readProblem(JSON.parse(readFileSync(`fixtures/schedule/shop-${jobs}.json`, "utf8")));

beforeAll(async () => {
  scope.onmessage = null;
  await import("./schedule.worker");
});
const ask = (data: ScheduleAsk): Promise<void> => scope.onmessage!({ data: structuredClone(data) });
/** What the worker says, as a copy, as it would go between threads. */
const hear = (to: (r: ScheduleReply) => void): void => void (scope.postMessage = (r) => to(structuredClone(r)));

test("what can't be worked out is said, and the worker lives on", async () => {
  const told: ScheduleReply[] = [];
  hear((r) => void told.push(r));
  await ask({ do: "solve", problem: { ...shop(5), lags: [{ from: "nobody" }] } as unknown as Problem });
  expect(told).toEqual([{ is: "refused", message: expect.stringContaining("The schedule could not be worked out") }]);
});

test("told how far it is, and stopped: the best schedule so far comes back, valid, and with no more search", async () => {
  const problem = { ...shop(20), limitSeconds: 600 };
  const told: ScheduleReply[] = [];
  let since = 0;
  hear((r) => {
    told.push(r);
    if (r.is !== "progress") return;
    if (since++ === 3) void ask({ do: "stop" });
  });
  await ask({ do: "solve", problem });
  const end = told[told.length - 1];
  expect(told.slice(0, -1).every((r) => r.is === "progress")).toBe(true);
  if (end.is !== "done" || end.solved.is !== "answer") throw new Error(JSON.stringify(end));
  expect(verify(problem, end.solved.answer)).toEqual([]);
  const last = told[told.length - 2];
  // one turn may have been under way
  expect(last.is === "progress" && end.solved.answer.iterations - last.progress.iterations).toBeLessThanOrEqual(1);
});

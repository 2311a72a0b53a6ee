/** Each worker's own code behind a real wire, with a stand-in for the thread: errors, progress, cancel, and what Comlink leaves open. */
import { readFileSync } from "node:fs";
import { MessageChannel, type MessagePort } from "node:worker_threads";
import { expose, wrap, type Endpoint, type Remote } from "comlink";
import { brief } from "../core/testing/briefs";
import { makePlan } from "../core/plan/plan";
import { readProblem, type Problem } from "../core/schedule/problem";
import { verify } from "../core/schedule/verify";
import { movesOf } from "../core/explain/why/moves";
import type { World } from "../core/records/world";
import { loadClip } from "../door/kernel";
import { Cancelled, inWorker, Stays } from "./call";
import { scheduleApi } from "./schedule-api";
import { waysApi } from "./ways-api";
import { waysInTurn, type Way } from "../core/explain/ways";
import { whyApi } from "./why-api";
import { strToU8 } from "fflate";
import { shopFile, writeFile } from "../io/export/job-file";
import { readJobFile } from "../io/import/job-file";
import { readAnyFile, writeZip } from "../io/zip";
import { randomShop } from "../testing/random-shop";
import { SHELF } from "../core/testing/worlds";
import { LogEntry } from "../core/records/log";
import { zonedClock } from "../core/time/zoned";
import { readLogCsv, readShelfCsv, writeLogCsv, writeShelfCsv } from "../io/csv";
import { filesApi } from "./files-api";
import { readLog, readShelf, readWhole, writeWhole } from "./files";
import { zonesApi } from "./zones-api";

/** Node's port as Comlink's end of a wire: what it listens for comes bare, and goes as an event. */
const endOf = (port: MessagePort): Endpoint => {
  const heard = new Map<unknown, (data: unknown) => void>();
  return {
    postMessage: (m, moved) => port.postMessage(m, moved as never),
    addEventListener: (_type, on) => {
      const hear = (data: unknown): void =>
        typeof on === "function" ? on({ data } as MessageEvent) : on.handleEvent({ data } as MessageEvent);
      heard.set(on, hear);
      port.on("message", hear);
    },
    removeEventListener: (_type, on) => void port.off("message", heard.get(on) as never),
    start: () => port.start(),
  };
};
const open: MessagePort[] = [];
afterEach(() => {
  for (const p of open.splice(0)) p.close();
});
function joined<T>(api: T): Remote<T> {
  const { port1, port2 } = new MessageChannel();
  open.push(port1, port2);
  expose(api, endOf(port1));
  return wrap<T>(endOf(port2));
}
/** Progress goes over a port of its own, which jest would wait for. */
const told = <T>(): { list: T[]; say: (x: T) => void } => {
  const list: T[] = [];
  return { list, say: (x) => void list.push(structuredClone(x)) };
};

describe("ways of a job", () => {
  test("all of them come with the answer, as they were told on the way; what breaks is told in a sentence", () => {
    const w = brief(5);
    const heard = told<Way>();
    // as they cross the wire
    const all = structuredClone(waysApi.ways({ world: w, now: null }, heard.say));
    expect(all).toEqual([...waysInTurn(w, null)]);
    expect(heard.list).toEqual(all);
    const broken = { ...w, job: { ...w.job, substrate: { ...w.job.substrate, id: "cheese" } } };
    expect(() => waysApi.ways({ world: broken, now: null }, heard.say)).toThrow(
      /^The ways could not all be planned: .*cheese/,
    );
  });
});

describe("what moves a figure", () => {
  const world = brief(40);
  const plan = makePlan(world, null, true);
  test("a copy of the world gives the same answer, with the share done before it", () => {
    const last = plan.placed[plan.placed.length - 1].step.id;
    for (const figure of [{ of: "ready" }, { of: "minutes", step: last }] as const) {
      const { list, say } = told<number>();
      const moved = whyApi.moves(structuredClone({ world, now: null, figure }), say);
      const here = movesOf(plan, figure)!;
      expect(moved).toEqual(here);
      expect(list).toEqual(Array.from({ length: here.tried }, (_, k) => (k + 1) / here.tried));
    }
  });
  test("a figure that is not there is no fault; a world that can't be planned is told in a sentence, and the worker lives on", async () => {
    const api = joined({ moves: (ask: Parameters<typeof whyApi.moves>[0]) => whyApi.moves(ask, () => {}) });
    expect(await api.moves({ world, now: null, figure: { of: "wait", step: "nobody" } })).toBeNull();
    const broken = { ...world, job: null } as unknown as World;
    await expect(api.moves({ world: broken, now: null, figure: { of: "ready" } })).rejects.toThrow(
      /^What moves this figure could not be worked out: /,
    );
    expect(await api.moves({ world, now: null, figure: { of: "wait", step: "nobody" } })).toBeNull();
  });
});

describe("schedules", () => {
  const shop = (jobs: number): Problem =>
    readProblem(JSON.parse(readFileSync(`fixtures/schedule/shop-${jobs}.json`, "utf8")));
  test("what can't be worked out is said", async () => {
    const bad = { ...shop(5), lags: [{ from: "nobody" }] } as unknown as Problem;
    await expect(scheduleApi().solve(bad, () => {})).rejects.toThrow(/^The schedule could not be worked out/);
  });
  test("told how far it is, and stopped: the best schedule so far comes back, valid, and with no more search", async () => {
    const problem = { ...shop(20), limitSeconds: 600 };
    const api = scheduleApi();
    const seen: number[] = [];
    const solved = await api.solve(problem, (p) => {
      seen.push(p.iterations);
      if (seen.length === 4) api.stop();
    });
    if (solved.is !== "answer") throw new Error(JSON.stringify(solved));
    expect(verify(problem, solved.answer)).toEqual([]);
    // one turn may have been under way
    expect(solved.answer.iterations - seen[seen.length - 1]).toBeLessThanOrEqual(1);
  });
});

test("drawings: the reader's own sentence comes across, any other fault in one of ours", async () => {
  const api = joined({
    measure: (svg: string) => zonesApi(loadClip).measure(svg, null, () => {}),
    broken: () => zonesApi(() => Promise.reject(new TypeError("no kernel"))).measure("<svg/>", null, () => {}),
  });
  const found = await api.measure(
    '<svg xmlns="http://www.w3.org/2000/svg" width="10mm" height="10mm" viewBox="0 0 10 10"><rect width="5" ' +
      'height="4" fill="#a8235a"/></svg>',
  );
  expect(found.zones.map((z) => z.areaMm2)).toEqual([20]);
  await expect(api.measure("<svg><text>x</text>")).rejects.toThrow(/SVG|XML|closed|size/i);
  await expect(api.broken()).rejects.toThrow("The drawing could not be measured; save it as plain SVG and try again.");
});

describe("a call into a worker", () => {
  /** A thread that answers, stays silent, or breaks. */
  class Thread {
    onerror: (() => void) | null = null;
    ended = false;
    private end: Endpoint;
    constructor(api: object | null) {
      const { port1, port2 } = new MessageChannel();
      open.push(port1, port2);
      if (api) expose(api, endOf(port1));
      this.end = endOf(port2);
    }
    postMessage = (m: unknown, moved?: Transferable[]): void => this.end.postMessage(m, moved);
    addEventListener = (t: string, on: EventListener): void => this.end.addEventListener(t, on);
    removeEventListener = (t: string, on: EventListener): void => this.end.removeEventListener(t, on);
    start = (): void => this.end.start?.();
    terminate(): void {
      this.ended = true;
    }
  }
  type Api = { twice(x: number): number };
  const call = (t: Thread, signal?: AbortSignal): Promise<number> =>
    inWorker<Api, number>({ make: () => t as unknown as Worker, does: "doubles", signal, run: (api) => api.twice(21) });

  test("answers, and the worker is gone with the answer", async () => {
    const t = new Thread({ twice: (x: number) => 2 * x });
    expect(await call(t)).toBe(42);
    expect(t.ended).toBe(true);
  });
  test("word on the way that comes in after the answer is heard no more", async () => {
    type Telling = { twice(x: number, tell: (share: number) => void): number };
    const t = new Thread({
      twice: (x: number, tell: (share: number) => void) => {
        for (let k = 1; k <= 20; k++) void tell(k / 20);
        return 2 * x;
      },
    });
    let state = "";
    const done = inWorker<Telling, number>({
      make: () => t as unknown as Worker,
      does: "doubles",
      run: (api, heard) =>
        api.twice(
          21,
          heard((share: number) => void (state = `at ${share}`)),
        ),
    }).then(() => void (state = "done"));
    await done;
    await new Promise((on) => setTimeout(on, 50));
    expect(state).toBe("done");
  });
  test("where it may stay it answers the next call too, until nobody calls; one that refused or broke does not stay", async () => {
    const stays = new Stays<Api>();
    const made: Thread[] = [];
    const ask = (x: number, api: object = { twice: (n: number) => 2 * n }): Promise<number> =>
      inWorker<Api, number>({
        make: () => (made.push(new Thread(api)), made[made.length - 1]) as unknown as Worker,
        does: "doubles",
        stays,
        run: (there) => there.twice(x),
      });
    expect(await ask(1)).toBe(2);
    expect(await ask(2)).toBe(4);
    expect(made.map((t) => t.ended)).toEqual([false]);
    // two at once: the second has one of its own; of the two that are idle then one stays
    expect(await Promise.all([ask(3), ask(4)])).toEqual([6, 8]);
    expect(made.map((t) => t.ended).sort()).toEqual([false, true]);
    // broken while it lies idle: gone
    made.find((t) => !t.ended)!.onerror!();
    expect(made.map((t) => t.ended)).toEqual([true, true]);
    const refuses = {
      twice: () => {
        throw new Error("Not today.");
      },
    };
    await expect(ask(5, refuses)).rejects.toThrow("Not today.");
    expect(made.map((t) => t.ended)).toEqual([true, true, true]);
    const short = new Stays<Api>(30);
    const idle = new Thread(null);
    short.keep({ worker: idle as unknown as Worker, api: {} as never });
    expect(short.take()!.worker).toBe(idle);
    short.keep({ worker: idle as unknown as Worker, api: {} as never });
    expect(idle.ended).toBe(false);
    await new Promise((on) => setTimeout(on, 60));
    expect(idle.ended).toBe(true);
    expect(short.take()).toBeNull();
  });
  test("a refusal crosses with its sentence", async () => {
    const t = new Thread({
      twice: () => {
        throw new Error("Not today.");
      },
    });
    await expect(call(t)).rejects.toThrow("Not today.");
    expect(t.ended).toBe(true);
  });
  test("one that does not start rejects what waits for it", async () => {
    const t = new Thread(null);
    const waits = call(t);
    t.onerror!();
    await expect(waits).rejects.toThrow(
      "The part of the app that doubles could not be started; reload the page and try again.",
    );
    expect(t.ended).toBe(true);
  });
  test("cancelled: the worker is ended and the call rejects, at once where it was cancelled before", async () => {
    const t = new Thread(null);
    const c = new AbortController();
    const waits = call(t, c.signal);
    c.abort();
    await expect(waits).rejects.toBeInstanceOf(Cancelled);
    expect(t.ended).toBe(true);
    const never = (): Worker => {
      throw new Error("made after all");
    };
    await expect(
      inWorker<Api, number>({ make: never, does: "doubles", signal: c.signal, run: (api) => api.twice(1) }),
    ).rejects.toBeInstanceOf(Cancelled);
  });
});

describe("whole files", () => {
  const file = shopFile(randomShop(3));
  test("read in the worker is what is read here, stage by stage; a damaged one is told alike", async () => {
    const text = writeFile(file);
    for (const bytes of [
      strToU8(text),
      strToU8(text.slice(0, -9)),
      await writeZip(file),
      (await writeZip(file)).slice(9),
    ]) {
      const { list, say } = told<string>();
      expect(await filesApi.read(structuredClone(bytes), say)).toEqual(await readAnyFile(bytes));
      const unpacked = bytes[0] === 0x50 ? ["Unpacking"] : [];
      expect(list.slice(0, unpacked.length + 1)).toEqual([...unpacked, "Reading the records"]);
    }
    // over the wire, faults and all
    const api = joined({ read: (b: Uint8Array) => filesApi.read(b, () => {}) });
    expect(await api.read(strToU8("{}"))).toEqual(readJobFile("{}"));
  });
  test("a log and a Shelf as CSV, faults and all", async () => {
    const shelf = writeShelfCsv(SHELF());
    const entry = { ...new LogEntry(), id: "l", jobId: "a", kind: "note" as const, step: "dust", at: 1 };
    const log = writeLogCsv([entry, { ...entry, id: "k" }], zonedClock("UTC"));
    const { list, say } = told<string>();
    expect(await readShelf(strToU8(shelf), say)).toEqual(readShelfCsv(shelf));
    for (const jobs of [["a"], ["b"]])
      expect(await readLog(strToU8(log), jobs, say)).toEqual(readLogCsv(log, new Set(jobs)));
    expect([readShelfCsv(shelf).ok, readLogCsv(log, new Set(["b"])).ok]).toEqual([true, false]);
    expect(list).toEqual(["Reading the rows", "Reading the rows", "Reading the rows"]);
  });
  test("written in the worker is read back at once, and where there are no workers it is done here", async () => {
    for (const zip of [false, true]) {
      const { list, say } = told<string>();
      const made = await filesApi.write(file, zip, say);
      expect(made.read).toEqual(readJobFile(writeFile(file)));
      expect(made.read.ok).toBe(true);
      expect(list[0]).toBe("Writing");
      expect(list[list.length - 1]).toBe("Checking them");
      const again = await writeWhole(file, zip);
      expect(again.content).toEqual(made.content);
      const bytes = typeof again.content === "string" ? strToU8(again.content) : again.content;
      expect(await readWhole(bytes)).toEqual(made.read);
    }
  });
});

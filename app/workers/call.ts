/**
 * A call into a worker of its own, which is gone with the answer, or stays a while for the next call of its kind. Comlink is the
 * wire: errors cross with their sentence, progress is a function handed over. What Comlink leaves open is closed here: a worker that
 * does not start, or breaks, rejects what waits for it, and so does nobody waiting any more.
 */
import { proxy, wrap, type Remote } from "comlink";

export class Cancelled extends Error {}

interface Call<Api, R> {
  make(): Worker;
  /** what that part of the app does, in a sentence that ends “… could not be started” */
  does: string;
  /** @param heard makes a function that the worker may call, until the answer is there: word on the way may come in after it */
  run(api: Remote<Api>, heard: <T>(f: (x: T) => void) => (x: T) => void): Promise<R>;
  /** fired: the worker is ended and the call rejects with {@link Cancelled} */
  signal?: AbortSignal;
  /** where the worker stays once it has answered, with what it knows by then; absent: it is ended */
  stays?: Stays<Api>;
}
interface Answering<Api> {
  worker: Worker;
  api: Remote<Api>;
}
/** A place for a worker between two calls. One that is asked for while it is away, at work or ended, is another one. */
export class Stays<Api> {
  private idle: Answering<Api> | null = null;
  private ends: ReturnType<typeof setTimeout> | undefined;

  /** @param forMs how long a worker stays that nobody calls: its memory is given back then */
  constructor(private readonly forMs = 600_000) {}

  /** null: nobody is there */
  take(): Answering<Api> | null {
    const { idle } = this;
    clearTimeout(this.ends);
    this.idle = null;
    return idle;
  }
  keep(one: Answering<Api>): void {
    this.end();
    this.idle = one;
    one.worker.onerror = () => this.end();
    this.ends = setTimeout(() => this.end(), this.forMs);
  }
  private end(): void {
    this.take()?.worker.terminate();
  }
}

const answering = <Api>(worker: Worker): Answering<Api> => ({ worker, api: wrap<Api>(worker) });

/** @throws Error with one sentence, the worker's own or ours; Cancelled when the signal fired */
export async function inWorker<Api, R>({ make, does, run, signal, stays }: Call<Api, R>): Promise<R> {
  if (signal?.aborted) throw new Cancelled("cancelled");
  const one = stays?.take() ?? answering<Api>(make());
  const { worker } = one;
  let over = false;
  let well = false;
  const heard = <T>(f: (x: T) => void): ((x: T) => void) => proxy((x: T): void => (over ? undefined : f(x)));
  try {
    const answer = await new Promise<R>((resolve, reject) => {
      const lost = `The part of the app that ${does} could not be started; reload the page and try again.`;
      worker.onerror = () => reject(new Error(lost));
      signal?.addEventListener("abort", () => reject(new Cancelled("cancelled")), { once: true });
      run(one.api, heard).then(resolve, reject);
    });
    well = true;
    return answer;
  } finally {
    over = true;
    if (stays && well) stays.keep(one);
    else worker.terminate();
  }
}

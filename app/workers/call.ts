/**
 * A call into a worker of its own, which is gone with the answer. Comlink is the wire: errors cross with their sentence, progress
 * is a function handed over. What Comlink leaves open is closed here: a worker that does not start, or breaks, rejects what waits
 * for it, and so does nobody waiting any more.
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
}

/** @throws Error with one sentence, the worker's own or ours; Cancelled when the signal fired */
export async function inWorker<Api, R>({ make, does, run, signal }: Call<Api, R>): Promise<R> {
  if (signal?.aborted) throw new Cancelled("cancelled");
  const worker = make();
  let over = false;
  const heard = <T>(f: (x: T) => void): ((x: T) => void) => proxy((x: T): void => (over ? undefined : f(x)));
  try {
    return await new Promise<R>((resolve, reject) => {
      const lost = `The part of the app that ${does} could not be started; reload the page and try again.`;
      worker.onerror = () => reject(new Error(lost));
      signal?.addEventListener("abort", () => reject(new Cancelled("cancelled")), { once: true });
      run(wrap<Api>(worker), heard).then(resolve, reject);
    });
  } finally {
    over = true;
    worker.terminate();
  }
}

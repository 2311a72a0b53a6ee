/** Ask the worker to set a card or labels. @returns the PDF's bytes @throws Error with one sentence */
import type { PaperAsk, PaperReply } from "./protocol";

export function setPaper(ask: PaperAsk): Promise<Uint8Array<ArrayBuffer>> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL("./paper.worker.ts", import.meta.url), { type: "module" });
    const end = (f: () => void): void => {
      worker.terminate();
      f();
    };
    worker.onerror = () =>
      end(() =>
        reject(new Error("The part of the app that sets paper could not be started; reload the page and try again.")),
      );
    worker.onmessage = (e: MessageEvent<PaperReply>) =>
      end(() => (e.data.is === "done" ? resolve(e.data.pdf) : reject(new Error(e.data.message))));
    worker.postMessage(ask);
  });
}

/**
 * Pictures made off the main thread. The worker stays while its picture is looked at, with the original unpacked; a newer wish ends what is
 * being made and begins anew.
 */
import { wrap, proxy, type Remote } from "comlink";
import { Cancelled, inWorker } from "./call";
import type { Sample } from "../core/tone/samples";
import type { Conditions } from "../core/tone/seen";
import type { TooFine } from "../core/tone/fine";
import type { MakeAsk, Made, PictureApi, Shown } from "./picture-api";

export type { Made, Shown };
export interface Lens {
  now: Shown;
  before: Shown;
}
export interface Fine {
  found: TooFine;
  marks: Shown;
}
export interface PictureState {
  /** share that is done; null: nothing is going on */
  share: number | null;
  made: Made | null;
  /** a sentence where it could not be made */
  error: string | null;
  /** it was stopped by hand */
  stopped: boolean;
}
export interface PictureRun {
  subscribe(heard: () => void): () => void;
  get(): PictureState;
  stop(): void;
  again(): void;
  lens(x: number, y: number, size: number, see: Conditions): Promise<Lens | null>;
  /** the finished face in other light; the place made in another way; what is drawn too fine. Null: nothing is made yet */
  see(px: number, see: Conditions): Promise<Shown | null>;
  sample(s: Sample, x: number, y: number, size: number): Promise<Shown | null>;
  fine(watched: number[] | null, px: number, heard: (share: number) => void): Promise<Fine | null>;
  save(): Promise<Uint8Array<ArrayBuffer> | null>;
}

interface Live {
  photo: string;
  worker: Worker;
  api: Remote<PictureApi>;
  opened: Promise<void>;
  busy: boolean;
}
const LOST = "The part of the app that makes pictures could not be started; reload the page and try again.";

let live: Live | null = null;
function end(): void {
  live?.worker.terminate();
  live = null;
}
/** The worker that has a picture open; another one is begun where it is at work or has another open. */
function workerFor(photo: string, bytes: Uint8Array<ArrayBuffer>, lost: (e: Error) => void): Live {
  if (live && live.photo === photo && !live.busy) return live;
  end();
  const worker = new Worker(new URL("./picture.worker.ts", import.meta.url), { type: "module" });
  const api = wrap<PictureApi>(worker);
  worker.onerror = () => lost(new Error(LOST));
  live = { photo, worker, api, opened: api.open(bytes), busy: false };
  return live;
}

/** the newest run: the same wish is it */
let newest: { key: string; run: PictureRun } | null = null;

export function makePicture(photo: string, bytes: Uint8Array<ArrayBuffer>, ask: MakeAsk): PictureRun {
  const key = JSON.stringify([photo, ask]);
  if (newest?.key === key && !newest.run.get().error && !newest.run.get().stopped) return newest.run;
  const before = newest?.run.get().made ?? null;
  const heard = new Set<() => void>();
  let state: PictureState = { share: 0, made: before, error: null, stopped: false };
  let at: Live | null = null;
  const tell = (next: Partial<PictureState>): void => {
    state = { ...state, ...next };
    heard.forEach((f) => f());
  };
  const go = (): void => {
    let over = false;
    const lost = (e: Error): void => {
      if (over) return;
      over = true;
      if (live === at) end();
      tell({ share: null, error: e instanceof Cancelled ? null : e.message });
    };
    const mine = workerFor(photo, bytes, lost);
    at = mine;
    mine.busy = true;
    mine.opened
      .then(() =>
        mine.api.make(
          ask,
          proxy((share: number) => !over && live === mine && tell({ share })),
        ),
      )
      .then((made) => {
        over = true;
        mine.busy = false;
        tell({ share: null, made, error: null, stopped: false });
      })
      .catch(lost);
  };
  const ready = (): Live | null => (at && live === at && !at.busy && state.made ? at : null);
  const run: PictureRun = {
    get: () => state,
    subscribe: (f) => {
      heard.add(f);
      return () => heard.delete(f);
    },
    stop: () => {
      if (!at?.busy) return;
      end();
      tell({ share: null, stopped: true });
    },
    again: () => {
      tell({ share: 0, error: null, stopped: false });
      go();
    },
    lens: async (x, y, size, see) => (await ready()?.api.lens(x, y, size, see)) ?? null,
    see: async (px, see) => (await ready()?.api.see(px, see)) ?? null,
    sample: async (s, x, y, size) => (await ready()?.api.sample(s, x, y, size)) ?? null,
    fine: async (watched, px, heard) => {
      const mine = ready();
      if (!mine) return null;
      // it may take long on a large picture: a newer wish ends it
      mine.busy = true;
      try {
        return await mine.api.fine(watched, px, proxy(heard));
      } finally {
        mine.busy = false;
      }
    },
    save: async () => (await ready()?.api.save()) ?? null,
  };
  newest = { key, run };
  go();
  return run;
}

/** What the beam does of a picture at a step, as the file for the laser, made in a worker of its own. @throws Error with one sentence */
export const pngOf = (bytes: Uint8Array<ArrayBuffer>, work: MakeAsk["work"]): Promise<Uint8Array<ArrayBuffer> | null> =>
  inWorker<PictureApi, Uint8Array<ArrayBuffer> | null>({
    make: () => new Worker(new URL("./picture.worker.ts", import.meta.url), { type: "module" }),
    does: "makes pictures",
    run: async (api, hears) => {
      await api.open(bytes);
      await api.make(
        { work, watched: null, px: 1 },
        hears(() => {}),
      );
      return api.save();
    },
  });

/** What can be wrong with a browser's storage, told plainly: full, closed to us, made by a newer version, not readable. */

export interface Trouble {
  kind: "full" | "closed" | "newer" | "broken-off" | "unreadable";
  say: string;
}

const SAY: Record<Trouble["kind"], string> = {
  full:
    "The browser’s storage for this page is full. Nothing of this was stored, and what was there is still " +
    "there. Save the whole shop as a file, then make room: delete photos or finished jobs, or free space " +
    "on this computer.",
  closed:
    "This browser does not let the page keep anything, as in a private window or with site data switched " +
    "off. Open Rich Layer in an ordinary window, or allow site data for it.",
  newer:
    "What is stored here was written by a newer Rich Layer than this one. Reload to get the newer one; nothing was changed.",
  "broken-off":
    "The browser broke off in the middle of storing. Nothing of this was stored, and what was there is still there. Try again; " +
    "if it happens again, reload the page.",
  unreadable:
    "The browser’s storage cannot be read. Nothing was changed. What can still be read can be saved as it is, below.",
};

/** Names of all errors in a chain: the database wraps what the browser said. */
function names(e: unknown, depth = 0): string[] {
  if (!e || typeof e !== "object" || depth > 5) return [];
  const x = e as { name?: string; inner?: unknown; cause?: unknown; message?: string };
  return [x.name ?? "", x.message ?? "", ...names(x.inner, depth + 1), ...names(x.cause, depth + 1)];
}

/** A transaction of the database that was aborted, and not a wait, a lock or a worker that somebody called off. */
const isBrokenOff = (e: unknown): boolean => {
  const { name, inner } = (e ?? {}) as { name?: string; inner?: unknown };
  return (
    name === "AbortError" && !(typeof DOMException === "function" && e instanceof DOMException) && inner !== undefined
  );
};

/** @returns null for an error that has nothing to do with storage */
export function troubleOf(e: unknown): Trouble | null {
  const all = names(e).join(" ");
  const is = (kind: Trouble["kind"]): Trouble => ({ kind, say: SAY[kind] });
  if (/Quota|storage is full|disk/i.test(all)) return is("full");
  if (/VersionError/.test(all)) return is("newer");
  if (/MissingAPI|SecurityError|InvalidStateError|denied|not allowed/i.test(all)) return is("closed");
  if (isBrokenOff(e)) return is("broken-off");
  if (/OpenFailed|UnknownError|DatabaseClosed|DataError|NotFoundError|NotReadable|backing store|DexieError/.test(all))
    return is("unreadable");
  return null;
}

/** The browser's own copy as it lies there, whatever its version: for rescue, when nothing else can read it. */
export async function rawExport(name = "rich-layer"): Promise<string> {
  const open = await new Promise<IDBDatabase>((resolve, reject) => {
    const r = indexedDB.open(name);
    r.onsuccess = () => resolve(r.result);
    r.onerror = () => reject(r.error ?? new Error("the database cannot be opened"));
    r.onblocked = () => reject(new Error("another tab holds the database; close it and try again"));
  });
  const out: Record<string, unknown[]> = {};
  const lost: Record<string, string> = {};
  for (const store of [...open.objectStoreNames]) {
    out[store] = [];
    await new Promise<void>((resolve) => {
      const r = open.transaction(store, "readonly").objectStore(store).openCursor();
      r.onsuccess = () => {
        if (!r.result) return resolve();
        out[store].push(r.result.value);
        r.result.continue();
      };
      r.onerror = (e) => {
        e.preventDefault();
        lost[store] = r.error?.message ?? "not readable";
        resolve();
      };
    });
  }
  const version = open.version;
  open.close();
  return `${JSON.stringify({ rescued: name, version, stores: out, lost }, null, 1)}\n`;
}

type Waiting = "blocked" | "superseded" | null;
let state: Waiting = null;
const listeners = new Set<(s: Waiting) => void>();
/** A version upgrade waits for another tab (`blocked`), or another tab has upgraded (`superseded`). */
export const waiting = {
  get: (): Waiting => state,
  set(s: Waiting): void {
    state = s;
    for (const l of listeners) l(s);
  },
  on(l: (s: Waiting) => void): () => void {
    listeners.add(l);
    return () => void listeners.delete(l);
  },
};

/**
 * Which pages of this browser are open, by a lock that each holds while it lives: so that undo takes back what was done here and
 * leaves alone what somebody is doing in another tab. A page that was closed or reloaded lives no more, and its acts are anybody's.
 */
const LOCK = "richlayer.tab.";
let me: string | null = null;

/** This page's own id; from the first call on it is known to live. */
export function thisTab(): string {
  if (me) return me;
  // not randomUUID, which a page over plain http in the shop's own network does not have
  me = crypto.getRandomValues(new Uint32Array(4)).join("-");
  // Held until the page goes: the promise never ends.
  void globalThis.navigator?.locks?.request(LOCK + me, () => new Promise(() => {})).catch(() => {});
  return me;
}

/** Ids of all open pages; empty where the browser has no locks, or does not let this page ask. */
export async function livingTabs(): Promise<ReadonlySet<string>> {
  try {
    const held = (await globalThis.navigator?.locks?.query())?.held ?? [];
    return new Set(held.flatMap((l) => (l.name?.startsWith(LOCK) ? [l.name.slice(LOCK.length)] : [])));
  } catch {
    return new Set();
  }
}

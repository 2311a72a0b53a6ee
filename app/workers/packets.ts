/** Ask the worker what goes to the laser. */
import { inWorker } from "./call";
import type { LaidShields, LaidVisit, PacketAsk, PacketsApi } from "./packets-api";

const make = (): Worker => new Worker(new URL("./packets.worker.ts", import.meta.url), { type: "module" });
const does = "lays out what goes to the laser";

/** @throws Error with one sentence */
export const layPackets = (ask: PacketAsk): Promise<LaidVisit[]> =>
  inWorker<PacketsApi, LaidVisit[]>({ make, does, run: (api) => api.lay(ask) });
/** A visit’s packet as a zip. @throws Error with one sentence */
export const writePacket = (
  ask: PacketAsk,
  n: number,
  extra: { pictures: Record<string, Uint8Array>; page: Uint8Array | null },
): Promise<Uint8Array<ArrayBuffer>> =>
  inWorker<PacketsApi, Uint8Array<ArrayBuffer>>({ make, does, run: (api) => api.write(ask, n, extra) });
/** Shields of colours sprayed beside one another; null: there are none. @throws Error with one sentence */
export const layShields = (ask: PacketAsk): Promise<LaidShields | null> =>
  inWorker<PacketsApi, LaidShields | null>({ make, does, run: (api) => api.shields(ask) });
/** All of them and their jig as a zip. @throws Error with one sentence */
export const writeShields = (ask: PacketAsk): Promise<Uint8Array<ArrayBuffer>> =>
  inWorker<PacketsApi, Uint8Array<ArrayBuffer>>({ make, does, run: (api) => api.writeShields(ask) });

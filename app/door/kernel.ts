/** The polygon kernel loaded from disk, for the door and the unit tests. */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import type { Clipper2ZFactoryFunction } from "clipper2-wasm/dist/clipper2z";
import { clipOver, type Clip } from "../core/vector/clip";

let ready: Promise<Clip> | null = null;

/** Loads once a process. */
export function loadClip(): Promise<Clip> {
  return (ready ??= (async () => {
    const folder = join(dirname(createRequire(import.meta.url).resolve("clipper2-wasm/package.json")), "dist/es");
    const factory = (await import("clipper2-wasm/dist/es/clipper2z.js")).default as unknown as Clipper2ZFactoryFunction;
    return clipOver(await factory({ wasmBinary: readFileSync(join(folder, "clipper2z.wasm")).buffer as ArrayBuffer }));
  })());
}

/** The polygon kernel, loaded once a worker. */
import factory from "clipper2-wasm/dist/es/clipper2z.js";
import wasmUrl from "clipper2-wasm/dist/es/clipper2z.wasm?url";
import type { Clipper2ZFactoryFunction } from "clipper2-wasm/dist/clipper2z";
import { clipOver, type Clip } from "../core/vector/clip";

let kernel: Promise<Clip> | null = null;
export const loadKernel = (): Promise<Clip> =>
  (kernel ??= (factory as Clipper2ZFactoryFunction)({ locateFile: () => wasmUrl }).then(clipOver));

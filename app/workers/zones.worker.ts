/** Measures drawings off the main thread; the polygon kernel is loaded here and nowhere else in the page. */
import factory from "clipper2-wasm/dist/es/clipper2z.js";
import wasmUrl from "clipper2-wasm/dist/es/clipper2z.wasm?url";
import type { Clipper2ZFactoryFunction } from "clipper2-wasm/dist/clipper2z";
import { expose } from "comlink";
import { clipOver, type Clip } from "../core/vector/clip";
import { unpack } from "./unpack";
import { zonesApi } from "./zones-api";

let kernel: Promise<Clip> | null = null;
const load = (): Promise<Clip> =>
  (kernel ??= (factory as Clipper2ZFactoryFunction)({ locateFile: () => wasmUrl }).then(clipOver));

expose(zonesApi(load, unpack));

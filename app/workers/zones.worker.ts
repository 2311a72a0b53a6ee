/** Measures drawings off the main thread; the polygon kernel is loaded here and nowhere else in the page. */
import factory from "clipper2-wasm/dist/es/clipper2z.js";
import wasmUrl from "clipper2-wasm/dist/es/clipper2z.wasm?url";
import type { Clipper2ZFactoryFunction } from "clipper2-wasm/dist/clipper2z";
import { clipOver, type Clip } from "../core/vector/clip";
import { SvgError } from "../core/vector/svg";
import { readZones } from "../core/vector/zones";
import type { Ask, Reply } from "./protocol";

let kernel: Promise<Clip> | null = null;
const load = (): Promise<Clip> =>
  (kernel ??= (factory as Clipper2ZFactoryFunction)({ locateFile: () => wasmUrl }).then(clipOver));
const say = (r: Reply): void => postMessage(r);

onmessage = async (e: MessageEvent<Ask>) => {
  const { id, svg, widthMm } = e.data;
  try {
    const found = readZones(await load(), svg, widthMm === null ? null : { widthMm }, (share) =>
      say({ id, is: "progress", share }),
    );
    say({ id, is: "done", found });
  } catch (err) {
    say({
      id,
      is: "refused",
      message:
        err instanceof SvgError
          ? err.message
          : "The drawing could not be measured; save it as plain SVG and try again.",
    });
  }
};

/** Makes pictures off the main thread. */
import { expose, transfer } from "comlink";
import { pictureApi } from "./picture-api";
import { unpack } from "./unpack";

const api = pictureApi(unpack);
type Shown = { data: Uint8ClampedArray<ArrayBuffer> };
const handed = <T>(x: T, ...shown: Shown[]): T =>
  transfer(
    x as object,
    shown.map((s) => s.data.buffer),
  ) as T;
expose({
  open: api.open,
  make: (...ask: Parameters<typeof api.make>) => {
    const m = api.make(...ask);
    return handed(m, m.looks.finished, m.looks.burnt, m.looks.original);
  },
  lens: (...ask: Parameters<typeof api.lens>) => {
    const m = api.lens(...ask);
    return m && handed(m, m.now, m.before);
  },
  see: (...ask: Parameters<typeof api.see>) => {
    const m = api.see(...ask);
    return m && handed(m, m);
  },
  sample: (...ask: Parameters<typeof api.sample>) => {
    const m = api.sample(...ask);
    return m && handed(m, m);
  },
  fine: (...ask: Parameters<typeof api.fine>) => {
    const m = api.fine(...ask);
    return m && handed(m, m.marks);
  },
  save: api.save,
});

/** Sets cards and labels on paper off the main thread; the PDF library and its fonts are loaded here, when they are asked for. */
import latin from "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url";
import latinBold from "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url";
import latinExt from "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-400-normal.woff?url";
import signs from "@fontsource/bricolage-grotesque/files/bricolage-grotesque-latin-400-normal.woff?url";
import { expose } from "comlink";
import type { FontFiles } from "../io/export/pdf/page";
import { paperApi } from "./paper-api";

const bytes = async (url: string): Promise<Uint8Array> => new Uint8Array(await (await fetch(url)).arrayBuffer());
let fonts: Promise<FontFiles> | null = null;
/** The second font has the signs (µ among them) that the first lacks. */
const load = (): Promise<FontFiles> =>
  (fonts ??= Promise.all([latin, latinBold, latinExt, signs].map(bytes)).then(([regular, bold, ...more]) => ({
    regular,
    bold,
    more,
  })));

expose(paperApi(load));

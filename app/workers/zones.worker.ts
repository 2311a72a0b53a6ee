/** Measures drawings off the main thread. */
import latin from "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url";
import latinBold from "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url";
import { expose } from "comlink";
import { loadKernel } from "./kernel";
import { unpack } from "./unpack";
import { zonesApi } from "./zones-api";

const font = async (bold: boolean): Promise<Uint8Array> =>
  new Uint8Array(await (await fetch(bold ? latinBold : latin)).arrayBuffer());

expose(zonesApi(loadKernel, unpack, font));

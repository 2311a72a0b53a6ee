/** Lays out and writes what goes to the laser, off the main thread. */
import latinBold from "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url";
import { expose } from "comlink";
import { loadKernel } from "./kernel";
import { packetsApi } from "./packets-api";

const font = async (): Promise<Uint8Array> => new Uint8Array(await (await fetch(latinBold)).arrayBuffer());

expose(packetsApi(loadKernel, font));

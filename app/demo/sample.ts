/** The Quillmoor Seed Library: a made-up client with jobs at several stages. Dates are relative to the moment passed in. */
import { measureSvg } from "../workers/zones";
import { buildSample, type Measure } from "./build";
import type { RichLayerFile } from "../core/records/file";

const inWorker: Measure = (svg) => measureSvg(svg, null, new AbortController().signal, () => {});
export const sampleShop = (now: number, zone: string): Promise<RichLayerFile> => buildSample(now, zone, inWorker);

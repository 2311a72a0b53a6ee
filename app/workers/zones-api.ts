/** What the worker that measures drawings does. @throws Error with the reader's own sentence */
import type { Clip } from "../core/vector/clip";
import type { Pixels } from "../core/tone/source";
import { pictureHead } from "../io/import/pixels";
import { traceSvg, type TraceAsk, type TraceFound } from "../io/import/trace";
import { SvgError } from "../core/vector/svg";
import { readZones, type FoundArtwork } from "../core/vector/zones";

export const zonesApi = (
  kernel: () => Promise<Clip>,
  unpack: (bytes: Uint8Array<ArrayBuffer>) => Promise<Pixels> = () =>
    Promise.reject(new Error("No picture is read here.")),
) => ({
  /** A flat picture as a drawing of few colours. */
  async trace(bytes: Uint8Array<ArrayBuffer>, ask: TraceAsk): Promise<TraceFound> {
    return traceSvg(await unpack(bytes), pictureHead(bytes).exif, ask);
  },
  async measure(
    svg: string,
    widthMm: number | null,
    progress: (share: number) => void,
    anyway = false,
  ): Promise<FoundArtwork> {
    try {
      return readZones(
        await kernel(),
        svg,
        widthMm === null ? null : { widthMm },
        progress,
        anyway ? Infinity : undefined,
      );
    } catch (e) {
      if (e instanceof SvgError) throw e;
      throw new Error("The drawing could not be measured; save it as plain SVG and try again.", { cause: e });
    }
  },
});
export type ZonesApi = ReturnType<typeof zonesApi>;

/** What the worker that measures drawings does. @throws Error with the reader's own sentence */
import type { Clip } from "../core/vector/clip";
import { SvgError } from "../core/vector/svg";
import { readZones, type FoundArtwork } from "../core/vector/zones";

export const zonesApi = (kernel: () => Promise<Clip>) => ({
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

/** What the worker that measures drawings does. @throws Error with the reader's own sentence */
import type { Clip } from "../core/vector/clip";
import { combine, type Fitted, type ShapeFound, type ShapeOp } from "../core/geometry/shapes";
import { pathOf, type Ring } from "../core/geometry/outline";
import type { NameRow } from "../core/geometry/names";
import type { NameBlock } from "../core/records/job";
import type { NamesFound } from "../io/names";
import type { Pixels } from "../core/tone/source";
import { pictureHead } from "../io/import/pixels";
import { traceSvg, type TraceAsk, type TraceFound } from "../io/import/trace";
import { SvgError } from "../core/vector/svg";
import { readZones, type FoundArtwork } from "../core/vector/zones";

export const zonesApi = (
  kernel: () => Promise<Clip>,
  unpack: (bytes: Uint8Array<ArrayBuffer>) => Promise<Pixels> = () =>
    Promise.reject(new Error("No picture is read here.")),
  font: (bold: boolean) => Promise<Uint8Array> = () => Promise.reject(new Error("No font is read here.")),
) => ({
  /** Two outlines joined, cut or shared; a border round one. */
  async combine(op: ShapeOp, a: string, b: string, mm: number): Promise<ShapeFound> {
    return combine(op, a, b, mm, await kernel());
  },
  /** Labels as outlines, capitals so high. */
  async labels(texts: string[], capMm: number): Promise<Ring[][]> {
    const { labelsOf } = await import("../io/lettering");
    return labelsOf(await font(true), texts, capMm);
  },
  /** Lines of text as one zone’s outline, in the middle of a block. */
  async letter(lines: string[], w: number, h: number, bold: boolean): Promise<LetterFound> {
    const { letter } = await import("../io/lettering");
    const clip = await kernel();
    const { rings, ...fit } = letter(await font(bold), lines, w, h);
    return { ...fit, ...combine("join", pathOf(clip.fill(rings, "nonzero")), "", 0, clip) };
  },
  /** A name a piece, each fitted into the block. @param own a font file of the maker’s own; null: the one that ships */
  async names(
    own: Uint8Array | null,
    rows: NameRow[],
    block: NameBlock,
    progress: (share: number) => void,
  ): Promise<NamesFound> {
    const { setNames } = await import("../io/names");
    return setNames(own ?? (await font(block.bold)), rows, block, await kernel(), progress);
  },
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
export interface LetterFound extends ShapeFound, Fitted {
  lacks: string[];
}
export type ZonesApi = ReturnType<typeof zonesApi>;

/** What the worker that sets paper does. */
import type { PaperAsk } from "../io/export/exports";
import { labelsPdf } from "../io/export/pdf/labels";
import { letterPdf } from "../io/export/pdf/letter";
import { namesPdf } from "../io/export/pdf/names";
import { visitPdf } from "../io/export/pdf/visit";
import type { FontFiles } from "../io/export/pdf/page";
import { workCardPdf } from "../io/export/pdf/work-card";

export const paperApi = (fonts: () => Promise<FontFiles>) => ({
  async set(ask: PaperAsk): Promise<Uint8Array<ArrayBuffer>> {
    try {
      const pdf =
        ask.do === "card"
          ? await workCardPdf(ask.card, await fonts(), ask.made)
          : ask.do === "labels"
            ? await labelsPdf(ask.sheet, await fonts(), ask.made)
            : ask.do === "letter"
              ? await letterPdf(ask.letter, await fonts(), ask.made)
              : ask.do === "names"
                ? await namesPdf(ask.sheet, await fonts(), ask.made)
                : await visitPdf(ask.page, await fonts(), ask.made);
      return pdf as Uint8Array<ArrayBuffer>;
    } catch (e) {
      throw new Error(`The paper could not be set: ${(e as Error).message}`, { cause: e });
    }
  },
});
export type PaperApi = ReturnType<typeof paperApi>;

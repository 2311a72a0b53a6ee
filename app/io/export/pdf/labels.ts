/** Labels for the backs of the pieces, three across and eight down on A4: job, piece number, which edge is the top, QR mark. */
import type { PDFPage } from "@cantoo/pdf-lib";
import { A4, MM, Paper, type FontFiles } from "./page";
import { qrText } from "./work-card";

export const ACROSS = 3;
export const DOWN = 8;
const W = 64 * MM;
const H = 33.5 * MM;

export interface LabelSheet {
  jobId: string;
  title: string;
  client: string;
  due: string | null;
  pieces: number;
  /** what each piece carries, in order; empty: nothing of its own */
  names?: string[];
}

/** @param from number of the first piece, for sheets printed in parts */
export async function labelsPdf(l: LabelSheet, fonts: FontFiles, made: number, from = 1): Promise<Uint8Array> {
  const paper = await Paper.make(`${l.title}: labels`, fonts, made);
  const left = (A4.w - ACROSS * W) / 2;
  const top = (A4.h - DOWN * H) / 2;
  let page: PDFPage | null = null;
  for (let n = from; n <= l.pieces; n++) {
    const k = (n - from) % (ACROSS * DOWN);
    if (k === 0 || !page) page = paper.page();
    const x = left + (k % ACROSS) * W;
    const y = top + Math.floor(k / ACROSS) * H;
    paper.frame(page, x, y, W, H);
    paper.qr(page, qrText(l.jobId), x + W - 58, y + 10, 50);
    const room = W - 76;
    const lines = paper.wrap(l.title, 11, room, true).slice(0, 2);
    lines.forEach((t, i) => paper.text(page as PDFPage, t, x + 8, y + 20 + i * 14, 11, { bold: true }));
    paper.text(page, `${n} of ${l.pieces}`, x + 8, y + 26 + lines.length * 14, 14, { bold: true });
    const small = [l.names?.[n - 1] ?? "", l.client, l.due ? `due ${l.due}` : ""].filter(Boolean);
    small.forEach((t, i) =>
      paper.text(
        page as PDFPage,
        paper.wrap(t, 8, W - 20)[0] ?? "",
        x + 8,
        y + H - 8 - (small.length - 1 - i) * 11,
        8,
        { grey: true },
      ),
    );
    paper.text(page, "top", x + W / 2 - 6, y + 8, 7, { grey: true });
  }
  if (l.pieces < from) paper.page();
  return paper.save();
}

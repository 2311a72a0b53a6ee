/** A quote or a delivery note on one sheet: who, for whom, what, how many, at what price, and the job's QR mark. */
import type { Letter } from "../../../core/explain/letter";
import { A4, Paper, type FontFiles } from "./page";
import { qrText } from "./work-card";

const LEFT = 56;
const RIGHT = A4.w - 56;
const WIDTH = RIGHT - LEFT;

export async function letterPdf(l: Letter, fonts: FontFiles, made: number): Promise<Uint8Array> {
  const paper = await Paper.make(`${l.title}: ${l.kind.toLowerCase()}`, fonts, made);
  const page = paper.page();
  let y = 64;
  const line = (text: string, size: number, more: { bold?: boolean; grey?: boolean } = {}, max = WIDTH): void => {
    for (const t of paper.wrap(text, size, max, more.bold)) {
      y += size * 1.4;
      paper.text(page, t, LEFT, y, size, more);
    }
  };
  paper.qr(page, qrText(l.jobId), RIGHT - 56, 56, 56);
  line(l.shop, 12, { bold: true }, WIDTH - 70);
  y += 10;
  line(l.kind, 22, { bold: true }, WIDTH - 70);
  line(l.date, 10, { grey: true }, WIDTH - 70);
  y += 12;
  if (l.client) line(`For ${l.client}`, 11, { bold: true });
  y += 10;
  line(l.title, 13, { bold: true });
  for (const t of l.what) line(t, 10);
  y += 22;
  const at = { n: RIGHT - 200, each: RIGHT - 150, sum: RIGHT - 70 };
  const priced = l.total !== null;
  const head = (t: string, x: number): void => paper.text(page, t, x, y, 9, { grey: true });
  head("What", LEFT);
  head("How many", priced ? at.n - 24 : at.sum);
  if (priced) {
    head("Each", at.each + 10);
    head("In all", at.sum);
  }
  y += 6;
  paper.rule(page, LEFT, y, WIDTH);
  for (const r of l.rows) {
    const lines = paper.wrap(r.what, 11, at.n - LEFT - 40);
    y += 16;
    paper.text(page, String(r.n), priced ? at.n : at.sum, y, 11);
    if (priced) {
      paper.text(page, r.each, at.each + 10, y, 11);
      paper.text(page, r.sum, at.sum, y, 11);
    }
    lines.forEach((t, i) => paper.text(page, t, LEFT, y + i * 15, 11));
    y += (lines.length - 1) * 15;
  }
  y += 8;
  paper.rule(page, LEFT, y, WIDTH);
  if (l.total !== null) {
    y += 20;
    paper.text(page, "In all", at.each + 10, y, 12, { bold: true });
    paper.text(page, l.total, at.sum, y, 12, { bold: true });
  }
  y += 24;
  for (const t of l.notes) {
    line(t, 10);
    y += 6;
  }
  return paper.save();
}

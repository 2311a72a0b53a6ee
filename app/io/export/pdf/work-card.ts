/**
 * The work card on paper: steps with boxes to tick, amounts, waits, settings, cautions, waivers, where figures come
 * from, and the job's QR mark.
 */
import type { PDFPage } from "@cantoo/pdf-lib";
import type { Card } from "../../../core/explain/card";
import { A4, Paper, type FontFiles } from "./page";

const LEFT = 40;
const WIDTH = A4.w - 2 * LEFT;
const FOOT = A4.h - 46;

const of = (n: number): string => `${n} ${n === 1 ? "piece" : "pieces"}`;
/** Pieces begun, and how many of them are spares. */
const count = (begun: number, ordered: number): string =>
  begun > ordered ? `${of(begun)} (${ordered} ordered, ${begun - ordered} spare)` : of(begun);

/** What the QR mark says, and what outside readers look for. */
export const qrText = (jobId: string): string => `richlayer:job:${jobId}`;

export async function workCardPdf(card: Card, fonts: FontFiles, made: number): Promise<Uint8Array> {
  const paper = await Paper.make(`${card.title}: work card`, fonts, made);
  let page: PDFPage = paper.page();
  let y = 0;
  let pages = 1;
  const foot = (): void =>
    paper.text(page, `${card.title} · work card · as of ${card.asOf} · page ${pages}`, LEFT, A4.h - 24, 8, {
      grey: true,
    });
  const need = (h: number): void => {
    if (y + h <= FOOT) return;
    foot();
    page = paper.page();
    pages++;
    y = 44;
  };
  const para = (
    text: string,
    size: number,
    x: number,
    max: number,
    opt: { bold?: boolean; grey?: boolean } = {},
  ): void => {
    const lines = paper.wrap(text, size, max, opt.bold);
    need(Math.min(lines.length, 30) * size * 1.35); // a sentence is not torn over two pages
    for (const l of lines) {
      need(size * 1.35);
      y += size * 1.35;
      paper.text(page, l, x, y, size, opt);
    }
  };
  const head = (text: string): void => {
    need(34);
    y += 14;
    para(text, 12.5, LEFT, WIDTH, { bold: true });
    y += 4;
    paper.rule(page, LEFT, y, WIDTH);
  };

  y = 40;
  paper.qr(page, qrText(card.jobId), LEFT + WIDTH - 74, 36, 74);
  para(card.title, 20, LEFT, WIDTH - 90, { bold: true });
  para(
    `${count(card.pieces, card.ordered)} of ${card.on}${card.client ? `, for ${card.client}` : ""}`,
    10.5,
    LEFT,
    WIDTH - 90,
  );
  para(`Route ${card.route} · laser: ${card.machine} · air: ${card.air}`, 10.5, LEFT, WIDTH - 90);
  para(
    [
      card.ready ? `Ready ${card.ready}` : "No ready time yet",
      ...(card.due ? [`due ${card.due}`] : []),
      ...(card.startBy ? [`start by ${card.startBy}`] : []),
    ].join(" · "),
    10.5,
    LEFT,
    WIDTH - 90,
    { bold: true },
  );
  if (card.credit) para(`Artwork: ${card.credit}`, 9.5, LEFT, WIDTH - 90, { grey: true });
  y = Math.max(y, 116);
  if (card.hazards.length) {
    head("Cautions of this plan. Data sheets and local rules come first");
    for (const h of card.hazards) {
      y += 2;
      para(h, 9.5, LEFT, WIDTH);
    }
  }
  if (card.waivers.length || card.unfit.length) {
    head("Waived, and what no longer fits");
    for (const w of [...card.waivers, ...card.unfit]) {
      y += 2;
      para(w, 9.5, LEFT, WIDTH);
    }
  }
  head("Paint for the whole job");
  if (!card.amounts.length) para("None yet.", 9.5, LEFT, WIDTH);
  for (const a of card.amounts) para(`${a.product} (${a.finish.toLowerCase()}): ${a.ml}, ${a.stock}`, 9.5, LEFT, WIDTH);
  head("Steps");
  for (const s of card.steps) {
    need(52);
    y += 10;
    const top = y + 11;
    paper.box(page, LEFT, top, 11, s.done);
    para(`${s.n}. ${s.title}${s.zones ? ` · ${s.zones}` : ""}`, 11, LEFT + 20, WIDTH - 20, { bold: true });
    para(`${s.when} · ${s.takes} · ${s.lines.join(" · ")}`, 9.5, LEFT + 20, WIDTH - 20);
    para(s.cues.join(". "), 9.5, LEFT + 20, WIDTH - 20, { grey: true });
    para(`Look for: ${s.lookFor}`, 9.5, LEFT + 20, WIDTH - 20);
    for (const c of s.cautions) para(c, 9.5, LEFT + 20, WIDTH - 20, { bold: true });
    need(16);
    y += 14;
    let x = LEFT + 20;
    for (const a of ["good", "mend", "stop"]) {
      paper.box(page, x, y, 8);
      paper.text(page, a, x + 12, y - 1, 9);
      x += 54;
    }
    paper.text(page, "done at", x + 6, y - 1, 9, { grey: true });
    paper.rule(page, x + 42, y + 1, 110);
    if (s.wait) {
      y += 3;
      para(s.wait, 9.5, LEFT + 20, WIDTH - 20, { bold: true });
    }
    y += 3;
    paper.rule(page, LEFT + 20, y + 2, WIDTH - 20);
  }
  head("Where these figures come from");
  for (const o of card.origins) {
    y += 2;
    para(`${o.of}: ${o.says}.`, 9.5, LEFT, WIDTH);
  }
  if (card.moves.length) {
    head("What moves the ready time most");
    for (const m of card.moves) {
      y += 2;
      para(m, 9.5, LEFT, WIDTH);
    }
  }
  foot();
  return paper.save();
}

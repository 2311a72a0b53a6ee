/** A proof sheet of names for who ordered them: each as it will be drawn, in plain type beside it, with its piece and a box to tick. */
import type { PDFPage } from "@cantoo/pdf-lib";
import type { NameSheet } from "../../../core/explain/names";
import { ringsOf } from "../../../core/geometry/outline";
import { bounds } from "../../../core/vector/clip";
import { A4, Paper, type FontFiles } from "./page";

const LEFT = 48;
const ACROSS = 2;
const GAP = 18;
const CELL_W = (A4.w - 2 * LEFT - GAP) / ACROSS;
const CELL_H = 62;
const DRAWN_H = 30;
const TOP = 132;
const DOWN = Math.floor((A4.h - TOP - 70) / CELL_H);

export async function namesPdf(s: NameSheet, fonts: FontFiles, made: number): Promise<Uint8Array> {
  const paper = await Paper.make(`${s.title}: names`, fonts, made);
  let page: PDFPage | null = null;
  const each = ACROSS * DOWN;
  const sheets = Math.ceil(s.names.length / each);
  s.names.forEach((name, i) => {
    const k = i % each;
    if (k === 0) {
      page = paper.page();
      paper.text(page, paper.wrap(`${s.title}: how each name is written`, 15, A4.w - 2 * LEFT, true)[0], LEFT, 60, 15, {
        bold: true,
      });
      const about = `${s.client ? `For ${s.client}. ` : ""}${s.names.length} pieces, sheet ${i / each + 1} of ${sheets}.`;
      paper.text(page, about, LEFT, 78, 10, { grey: true });
      const ask = "Please read each name letter by letter and tick it. What is ticked is made as it stands here.";
      paper.text(page, ask, LEFT, 96, 10);
      paper.text(page, "Accepted, name and date: ____________________________", LEFT, A4.h - 40, 10);
    }
    const on = page as unknown as PDFPage;
    const x = LEFT + (k % ACROSS) * (CELL_W + GAP);
    const y = TOP + Math.floor(k / ACROSS) * CELL_H;
    paper.box(on, x, y + 14, 11);
    paper.text(on, String(name.n), x + 18, y + 14, 9, { grey: true });
    const rings = ringsOf(name.outline);
    const box = bounds(rings);
    const room = CELL_W - 44;
    const scale = Math.min(room / s.block.w, DRAWN_H / s.block.h);
    if (box)
      paper.outline(
        on,
        rings.map((r) => ({
          closed: true,
          points: r.map(([px, py]): [number, number] => [
            x + 44 + (px - box.x0) * scale,
            y + 2 + (py - box.y0) * scale,
          ]),
        })),
        true,
      );
    const typed = paper.wrap(`${name.text}${name.colour ? ` (${name.colour})` : ""}`, 9, room)[0] ?? "";
    paper.text(on, typed, x + 44, y + DRAWN_H + 14, 9);
    paper.rule(on, x, y + CELL_H - 8, CELL_W);
  });
  if (!s.names.length) paper.page();
  return paper.save();
}

/** One page for a visit to the laser: the bed drawn, each layer with its setting, what is left alone, boxes to tick. */
import type { VisitPacket } from "../../../core/explain/packet";
import type { Sheet } from "../vectors";
import { A4, Paper, type FontFiles } from "./page";
import { qrText } from "./work-card";

const LEFT = 48;
const WIDTH = A4.w - 2 * LEFT;
const DRAWN = 300;

export interface VisitPage {
  jobId: string;
  title: string;
  visit: VisitPacket;
  sheet: Sheet;
  /** each layer in words: name, setting */
  rows: { name: string; setting: string }[];
}

export async function visitPdf(v: VisitPage, fonts: FontFiles, made: number): Promise<Uint8Array> {
  const paper = await Paper.make(`${v.title}: visit ${v.visit.n}`, fonts, made);
  const page = paper.page();
  let y = 56;
  const line = (
    text: string,
    size: number,
    more: { bold?: boolean; grey?: boolean } = {},
    x = LEFT,
    max = WIDTH,
  ): void => {
    for (const t of paper.wrap(text, size, max, more.bold)) {
      y += size * 1.4;
      paper.text(page, t, x, y, size, more);
    }
  };
  paper.qr(page, qrText(v.jobId), A4.w - LEFT - 50, 48, 50);
  line(`${v.title}: visit ${v.visit.n} to ${v.visit.machine ?? "the laser"}`, 15, { bold: true }, LEFT, WIDTH - 60);
  line(
    `${v.visit.title}${v.visit.mirrored ? ". Mirrored: worked from the back" : ""}`,
    10,
    { grey: true },
    LEFT,
    WIDTH - 60,
  );
  y += 14;
  const scale = Math.min(WIDTH / v.sheet.w, DRAWN / v.sheet.h);
  paper.frame(page, LEFT, y, v.sheet.w * scale, v.sheet.h * scale);
  for (const { layer, paths } of v.sheet.layers)
    paper.outline(
      page,
      paths.map((p) => ({
        ...p,
        points: p.points.map(([px, py]) => [LEFT + px * scale, y + py * scale] as [number, number]),
      })),
      layer.how === "fill",
    );
  y += v.sheet.h * scale + 12;
  for (const row of v.rows) {
    y += 16;
    paper.box(page, LEFT, y, 9);
    paper.text(page, row.name, LEFT + 16, y, 10, { bold: true });
    for (const t of paper.wrap(row.setting, 9, WIDTH - 16)) {
      y += 12;
      paper.text(page, t, LEFT + 16, y, 9);
    }
  }
  y += 10;
  line("Leave alone in the laser’s program:", 10, { bold: true });
  for (const t of v.visit.leaveAlone) line(`· ${t}`, 9);
  for (const t of v.visit.notes) {
    y += 4;
    line(t, 9, { grey: true });
  }
  return paper.save();
}

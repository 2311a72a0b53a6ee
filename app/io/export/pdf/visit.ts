/** One page for a visit to the laser: the bed drawn, each layer with its setting, what is left alone, boxes to tick. */
import type { VisitPacket } from "../../../core/explain/packet";
import { ringsOf } from "../../../core/geometry/outline";
import { listWords } from "../../../core/units/show";
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
  if (v.visit.weeding.length) weeding(paper, v);
  return paper.save();
}

const MAPS_ACROSS = 2;
/** A page of what is lifted after the visit: dark what comes off, outlined what stays. */
function weeding(paper: Paper, { title, visit }: VisitPage): void {
  const each = (WIDTH - 20) / MAPS_ACROSS;
  const { w, h } = visit.piece;
  const edge = visit.layers.filter((l) => l.purpose === "frame").flatMap((l) => l.paths);
  const scale = Math.min(each / w, 180 / h);
  const rows = Math.max(1, Math.floor((A4.h - 150) / (h * scale + 56)));
  let page = paper.page();
  visit.weeding.forEach((m, i) => {
    const k = i % (rows * MAPS_ACROSS);
    if (k === 0) {
      if (i > 0) page = paper.page();
      paper.text(page, paper.wrap(`${title}: to lift after visit ${visit.n}`, 14, WIDTH, true)[0], LEFT, 60, 14, {
        bold: true,
      });
      paper.text(page, "Dark: what comes off, as the piece lies then. Outlined: what stays.", LEFT, 78, 10, {
        grey: true,
      });
    }
    const x = LEFT + (k % MAPS_ACROSS) * (each + 20);
    const y = 100 + Math.floor(k / MAPS_ACROSS) * (h * scale + 56);
    const lines = (d: string): { closed: true; points: [number, number][] }[] =>
      ringsOf(d).map((r) => ({ closed: true, points: r.map(([px, py]) => [x + px * scale, y + py * scale]) }));
    const at = ([px, py]: [number, number]): [number, number] => [x + px * scale, y + py * scale];
    paper.outline(
      page,
      edge.map((p) => ({ ...p, points: p.points.map(at) })),
      false,
    );
    for (const z of m.stays) paper.outline(page, lines(z.path), false);
    for (const z of m.opens) paper.outline(page, lines(z.path), true);
    const under = y + h * scale + 14;
    paper.text(page, paper.wrap(`${m.title}${m.mirrored ? " (mirrored)" : ""}`, 9, each, true)[0], x, under, 9, {
      bold: true,
    });
    const what = m.opens.length ? listWords(m.opens.map((z) => z.name)) : "the rest of the mask";
    paper.text(page, paper.wrap(what, 9, each)[0], x, under + 12, 9);
  });
}

/** Paper for cards and labels: pages, wrapped text with fonts inside, boxes to tick, a QR square. Points, origin at the top left. */
import { PDFDocument, rgb, type PDFFont, type PDFPage } from "@cantoo/pdf-lib";
import fontkit from "@cantoo/fontkit";
import QRCode from "qrcode";

/** Font files (static woff or TTF). `more` are asked, in order, for characters the first does not have. */
export interface FontFiles {
  regular: Uint8Array;
  bold: Uint8Array;
  more: Uint8Array[];
}
interface Face {
  font: PDFFont;
  has(code: number): boolean;
}
export const A4 = { w: 595.28, h: 841.89 };
export const MM = 72 / 25.4;
const INK = rgb(0.13, 0.11, 0.15);
const GREY = rgb(0.4, 0.36, 0.42);
const LINE = rgb(0.72, 0.68, 0.64);

export class Paper {
  private constructor(
    readonly doc: PDFDocument,
    private faces: { regular: Face[]; bold: Face[] },
  ) {}

  /** @param made moment written into the file, ms since 1970: the same input makes the same bytes */
  static async make(title: string, fonts: FontFiles, made: number): Promise<Paper> {
    const doc = await PDFDocument.create();
    doc.registerFontkit(fontkit as never);
    doc.setTitle(title);
    doc.setProducer("Rich Layer");
    doc.setCreator("Rich Layer");
    doc.setCreationDate(new Date(made));
    doc.setModificationDate(new Date(made));
    const embed = async (bytes: Uint8Array): Promise<Face> => {
      const font = await doc.embedFont(bytes, { subset: true });
      const set = new Set(font.getCharacterSet());
      return { font, has: (c) => set.has(c) };
    };
    const more = await Promise.all(fonts.more.map(embed));
    return new Paper(doc, { regular: [await embed(fonts.regular), ...more], bold: [await embed(fonts.bold), ...more] });
  }

  page(): PDFPage {
    return this.doc.addPage([A4.w, A4.h]);
  }

  /** Stretches of text by the font that has their characters; what no font has becomes a question mark. */
  private runs(text: string, bold: boolean): { text: string; font: PDFFont }[] {
    const faces = bold ? this.faces.bold : this.faces.regular;
    const out: { text: string; font: PDFFont }[] = [];
    for (const ch of text.replace(/[\u0000-\u001f\u007f]/g, " ")) {
      const face = faces.find((f) => f.has(ch.codePointAt(0) as number));
      const [c, font] = face ? [ch, face.font] : ["?", faces[0].font];
      const last = out[out.length - 1];
      if (last?.font === font) last.text += c;
      else out.push({ text: c, font });
    }
    return out;
  }
  width(text: string, size: number, bold = false): number {
    return this.runs(text, bold).reduce((w, r) => w + r.font.widthOfTextAtSize(r.text, size), 0);
  }

  /** Lines no wider than `max`; a word longer than that is cut. */
  wrap(text: string, size: number, max: number, bold = false): string[] {
    const lines: string[] = [];
    let line = "";
    for (let word of text.split(/\s+/).filter(Boolean)) {
      const joined = line ? `${line} ${word}` : word;
      if (this.width(joined, size, bold) <= max) {
        line = joined;
        continue;
      }
      if (line) lines.push(line);
      while (this.width(word, size, bold) > max && word.length > 1) {
        let n = word.length - 1;
        while (n > 1 && this.width(word.slice(0, n), size, bold) > max) n--;
        lines.push(word.slice(0, n));
        word = word.slice(n);
      }
      line = word;
    }
    if (line) lines.push(line);
    return lines;
  }

  /** One line of text with its foot at y. */
  text(page: PDFPage, text: string, x: number, y: number, size: number, { bold = false, grey = false } = {}): void {
    let at = x;
    for (const r of this.runs(text, bold)) {
      page.drawText(r.text, { x: at, y: A4.h - y, size, font: r.font, color: grey ? GREY : INK });
      at += r.font.widthOfTextAtSize(r.text, size);
    }
  }
  box(page: PDFPage, x: number, y: number, side: number, ticked = false): void {
    page.drawRectangle({ x, y: A4.h - y, width: side, height: side, borderColor: INK, borderWidth: 0.8 });
    if (!ticked) return;
    page.drawLine({
      start: { x: x + side * 0.2, y: A4.h - y + side * 0.5 },
      end: { x: x + side * 0.42, y: A4.h - y + side * 0.22 },
      color: INK,
      thickness: 1,
    });
    page.drawLine({
      start: { x: x + side * 0.42, y: A4.h - y + side * 0.22 },
      end: { x: x + side * 0.82, y: A4.h - y + side * 0.8 },
      color: INK,
      thickness: 1,
    });
  }
  rule(page: PDFPage, x: number, y: number, w: number): void {
    page.drawLine({ start: { x, y: A4.h - y }, end: { x: x + w, y: A4.h - y }, color: LINE, thickness: 0.6 });
  }
  frame(page: PDFPage, x: number, y: number, w: number, h: number): void {
    page.drawRectangle({ x, y: A4.h - y - h, width: w, height: h, borderColor: LINE, borderWidth: 0.5 });
  }
  /** Lines or areas, points from the top left. */
  outline(page: PDFPage, paths: readonly { points: [number, number][]; closed: boolean }[], filled: boolean): void {
    if (!paths.length) return;
    const path = paths
      .map((p) => `M${p.points.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join("L")}${p.closed ? "Z" : ""}`)
      .join("");
    page.drawSvgPath(path, {
      x: 0,
      y: A4.h,
      ...(filled ? { color: LINE } : { borderColor: INK, borderWidth: 0.4 }),
    });
  }
  /** A QR square of `side`, its upper left corner at (x, y). */
  qr(page: PDFPage, data: string, x: number, y: number, side: number): void {
    const { modules } = QRCode.create(data, { errorCorrectionLevel: "M" });
    const px = side / modules.size;
    // Dark modules side by side are one stroke: a sheet of labels stays small.
    for (let r = 0; r < modules.size; r++)
      for (let c = 0, run = 0; c <= modules.size; c++) {
        if (c < modules.size && modules.get(r, c)) run++;
        else if (run) {
          page.drawRectangle({
            x: x + (c - run) * px,
            y: A4.h - y - (r + 1) * px,
            width: run * px + 0.02,
            height: px + 0.02,
            color: INK,
          });
          run = 0;
        }
      }
  }
  save(): Promise<Uint8Array> {
    return this.doc.save();
  }
}

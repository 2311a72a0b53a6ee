/** A photo of a test plate: its corners are pulled to those of the cells, what is read is shown on it and taken over at a press. */
import clsx from "clsx";
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { useFetcher } from "react-router";
import { gridOf, readPhoto, type ReadCell } from "../core/explain/plate-photo";
import { linear } from "../core/models/film/colour";
import { cellAt, cornersOf, homography, type PhotoPixels, type Point } from "../core/models/laser/plate-photo";
import type { Outcome } from "../core/records/outcome";
import { plural } from "../core/units/show";
import { cellColour, HAND_HELD, photograph } from "../simulators/plate-camera";
import type { PlateShown } from "../views/test";
import { DropFile } from "./kit/drop";
import { Fold } from "./kit/fold";

const KINDS = { "image/jpeg": [".jpg", ".jpeg"], "image/png": [".png"], "image/webp": [".webp"] };
const LIMIT = 40_000_000;
/** px, longest side that is looked at */
const LONG_PX = 1400;
/** px that an arrow key moves a corner by, of the picture */
const NUDGE = 2;
const CORNERS = ["left above", "right above", "right below", "left below"];
const UNDER = { whole: "gone", partly: "touched", gone: "eaten" } as const;
/** What a cell shows, in a word. */
function wordOf(c: ReadCell): string {
  if (c.unsure) return "?";
  if (c.mark !== undefined) return String(c.mark);
  return c.top === "gone" && c.under ? UNDER[c.under] : (c.top ?? "");
}

interface Taken {
  photo: PhotoPixels;
  url: string;
  marks: Point[];
}
const shares = (w: number, h: number): Point[] =>
  [
    [0.15, 0.15],
    [0.85, 0.15],
    [0.85, 0.85],
    [0.15, 0.85],
  ].map(([x, y]): Point => [x * w, y * h]);
/** A picture’s pixels and something to show. */
async function opened(canvas: OffscreenCanvas): Promise<Omit<Taken, "marks">> {
  const { width: w, height: h } = canvas;
  const { data } = canvas.getContext("2d", { willReadFrequently: true })!.getImageData(0, 0, w, h);
  return { photo: { w, h, data }, url: URL.createObjectURL(await canvas.convertToBlob({ type: "image/png" })) };
}
async function fromFile(file: File): Promise<Taken> {
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file, { imageOrientation: "from-image" });
  } catch {
    throw new Error(`“${file.name}” is not a picture that can be read.`);
  }
  const k = Math.min(1, LONG_PX / Math.max(bitmap.width, bitmap.height));
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(bitmap.width * k)),
    Math.max(1, Math.round(bitmap.height * k)),
  );
  canvas.getContext("2d", { willReadFrequently: true })!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return { ...(await opened(canvas)), marks: shares(canvas.width, canvas.height) };
}
/** A made-up photo of this plate, by the simulated camera: its corners are known. */
async function fromCamera(p: PlateShown, seed: number): Promise<Taken> {
  const stack = p.stack!;
  const hex = {
    top: linear(stack.top),
    under: linear(stack.under),
    below: stack.below === null ? null : linear(stack.below),
  };
  const first = p.first ?? 1;
  const truth = { c1: first * (0.85 + (seed % 4) * 0.1), s1: 0.12, c2: hex.below ? first * 2.2 : null, s2: 0.12 };
  const energies = new Map(p.cells.map((c) => [`${c.row} ${c.col}`, c.e ?? first]));
  const shot = photograph(gridOf(p.t), hex.top, (row, col) => cellColour(hex, truth, energies.get(`${row} ${col}`)!), {
    ...HAND_HELD,
    seed,
  });
  const canvas = new OffscreenCanvas(shot.photo.w, shot.photo.h);
  const pen = canvas.getContext("2d", { willReadFrequently: true })!;
  pen.putImageData(new ImageData(new Uint8ClampedArray(shot.photo.data), shot.photo.w, shot.photo.h), 0, 0);
  return { ...(await opened(canvas)), marks: shot.marks };
}

export function PlatePhoto({ p, n }: { p: PlateShown; n: number }) {
  const { t } = p;
  const fetcher = useFetcher<Outcome>();
  const [taken, take] = useState<Taken | null>(null);
  const [read, found] = useState<ReadCell[] | null>(null);
  const [wrong, refuse] = useState<string | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const open = async (from: () => Promise<Taken>): Promise<void> => {
    refuse(null);
    found(null);
    try {
      take(await from());
    } catch (e) {
      refuse((e as Error).message);
    }
  };
  const move = (i: number, to: Point): void => {
    if (!taken) return;
    found(null);
    const { w, h } = taken.photo;
    const at: Point = [Math.min(w, Math.max(0, to[0])), Math.min(h, Math.max(0, to[1]))];
    take({ ...taken, marks: taken.marks.map((m, k) => (k === i ? at : m)) });
  };
  const pulled = (i: number) => (e: PointerEvent<HTMLButtonElement>) => {
    const r = box.current?.getBoundingClientRect();
    if (!e.currentTarget.hasPointerCapture(e.pointerId) || !r || !taken) return;
    move(i, [((e.clientX - r.left) / r.width) * taken.photo.w, ((e.clientY - r.top) / r.height) * taken.photo.h]);
  };
  const keyed = (i: number) => (e: KeyboardEvent) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!by || !taken) return;
    e.preventDefault();
    const k = NUDGE * (e.shiftKey ? 10 : 1);
    move(i, [taken.marks[i][0] + k * by[0], taken.marks[i][1] + k * by[1]]);
  };
  const look = (): void => {
    if (!taken || !p.made) return refuse("The machine that it was made on is no longer in the Workshop.");
    try {
      found(readPhoto(t, p.made, p.stack, p.first, taken.photo, taken.marks));
      refuse(null);
    } catch (e) {
      refuse((e as Error).message);
    }
  };
  const sure = read?.filter((c) => !c.unsure) ?? [];
  const rest = (read?.length ?? 0) - sure.length;
  return (
    <Fold summary="Read a photo of it" className="mt-2">
      <p className="text-small text-muted">
        Wiped clean, from above, no lamp mirrored in it. Nothing of the photo is kept but what is read; each cell can be
        put right by hand.
      </p>
      <DropFile
        label={`Photo of plate ${n}`}
        what="a picture"
        kinds={KINDS}
        limit={LIMIT}
        onFile={(file) => void open(() => fromFile(file))}
        onRefused={refuse}
      >
        {(choose) => (
          <span className="flex flex-wrap items-center gap-4">
            <button type="button" className="btn" onClick={choose}>
              Choose the photo
            </button>
            {t.question !== "darken" && p.stack && (
              <button
                type="button"
                className="link-act"
                onClick={() => void open(() => fromCamera(p, t.id.length + n))}
              >
                A made-up one, to try it
              </button>
            )}
          </span>
        )}
      </DropFile>
      {(wrong ?? fetcher.data?.error) && (
        <p role="alert" className="text-wrong">
          {wrong ?? fetcher.data?.error}
        </p>
      )}
      {taken && (
        <>
          <p className="text-small">
            Pull the four corners to those of the cells, labels left out; by keys with the arrows.
          </p>
          <div
            ref={box}
            className="relative w-full max-w-160 touch-none select-none"
            data-photo={`${taken.photo.w} ${taken.photo.h}`}
          >
            <img src={taken.url} alt={`Photo of plate ${n}`} className="block w-full" draggable={false} />
            <Overlay t={t} of={taken} read={read} />
            {taken.marks.map(([x, y], i) => (
              <button
                key={CORNERS[i]}
                type="button"
                aria-label={`Corner ${CORNERS[i]}`}
                data-corner={i}
                className="absolute grid size-11 -translate-1/2 cursor-move place-items-center"
                style={{ left: `${(100 * x) / taken.photo.w}%`, top: `${(100 * y) / taken.photo.h}%` }}
                onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
                onPointerMove={pulled(i)}
                onKeyDown={keyed(i)}
              >
                <span className="size-4 rounded-full border-3 border-paper bg-act outline-2 outline-ink" />
              </button>
            ))}
          </div>
          <div className="flex flex-wrap items-center gap-4">
            <button type="button" className="btn" onClick={look}>
              Read the cells
            </button>
            {read && (
              <>
                <p role="status" data-photo-read={`${sure.length} ${rest}`}>
                  {plural(sure.length, "cell")} read
                  {rest > 0 && `; ${rest === 1 ? "one is" : `${rest} are`} not sure and left to your eye`}.
                </p>
                <button
                  type="button"
                  className="btn btn-main"
                  disabled={!sure.length || fetcher.state !== "idle"}
                  onClick={() => {
                    const cells = sure.map(({ unsure: _, ...c }) => c);
                    void fetcher.submit(
                      { intent: "test-photo", id: t.id, cells: JSON.stringify(cells) },
                      { method: "post" },
                    );
                  }}
                >
                  Take what is read
                </button>
              </>
            )}
          </div>
        </>
      )}
    </Fold>
  );
}

/** The cells as they lie in the photo, and what was read of them. */
function Overlay({ t, of, read }: { t: PlateShown["t"]; of: Taken; read: ReadCell[] | null }) {
  const g = gridOf(t);
  const to = homography(cornersOf(g), of.marks);
  if (!to) return null;
  const cells =
    read ?? t.powers.flatMap((_p, row) => t.speeds.map((_v, col): ReadCell => ({ row, col, unsure: false })));
  return (
    <svg
      viewBox={`0 0 ${of.photo.w} ${of.photo.h}`}
      className="pointer-events-none absolute inset-0 size-full"
      aria-hidden="true"
    >
      {cells.map((c) => {
        const [x, y] = cellAt(g, c.row, c.col);
        const ring = [
          [x, y],
          [x + g.cellMm, y],
          [x + g.cellMm, y + g.cellMm],
          [x, y + g.cellMm],
        ].map((q) => to(q as unknown as Point));
        const [mx, my] = to([x + g.cellMm / 2, y + g.cellMm / 2]);
        return (
          <g key={`${c.row} ${c.col}`}>
            <polygon
              points={ring.map((q) => q.join()).join(" ")}
              className={clsx("fill-none stroke-paper", c.unsure && "opacity-80")}
              strokeWidth={of.photo.w / 400}
              strokeDasharray={c.unsure ? of.photo.w / 100 : undefined}
            />
            <text
              x={mx}
              y={my}
              textAnchor="middle"
              dominantBaseline="middle"
              fontSize={of.photo.w / 42}
              className="fill-paper stroke-ink"
              strokeWidth={of.photo.w / 300}
              paintOrder="stroke"
            >
              {wordOf(c)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

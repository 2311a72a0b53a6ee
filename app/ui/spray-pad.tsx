/** A face sprayed by one's own hand: press and move, or arrow keys with the space bar; what lies on it is the model's film. */
import clsx from "clsx";
import { useEffect, useMemo, useRef, useState } from "react";
import { hex, linear, mix } from "../core/models/film/colour";
import { fanWidth, SAG_UPRIGHT_UM, SprayFilm } from "../core/models/film/spray";
import { pathText, samplesOf, type Control, type Sample } from "../core/practice/exercise";
import { SLOWER } from "../core/practice/laying";
import { PAD } from "./inks";

type Path = Extract<Control, { kind: "path" }>;
/** ms between two samples of the hand */
const EVERY_MS = 33;
/** longest that the can may be open and moved, ms */
const LONGEST_MS = 180_000;
/** ms that count as having gone by between two strokes */
const APART_MS = 200;
/** mm that an arrow key moves the can, and with Shift */
const STEP_MM = 2;
const FAR_MM = 10;
/** mm of room around the face, for passes that begin beside it */
const ROUND_MM = 45;

/** Colours by how much lies there, in steps of a hundredth of twice what is wanted; the last: it runs. */
function palette(): [number, number, number][] {
  const of = (h: string): [number, number, number] =>
    [1, 3, 5].map((i) => parseInt(h.slice(i, i + 2), 16)) as [number, number, number];
  const [bare, paint] = [linear(PAD.bare), linear(PAD.paint)];
  return [...Array.from({ length: 101 }, (_v, i) => of(hex(mix(bare, paint, i / 100)))), of(PAD.runs)];
}
let colours: [number, number, number][] | null = null;

export function SprayPad({
  c,
  distance,
  value,
  set,
}: {
  c: Path;
  /** mm between nozzle and face */
  distance: number;
  value: string;
  set: (path: string) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const hand = useRef<{ film: SprayFilm; all: Sample[]; text: string; began: number | null }>(null);
  const [at, setAt] = useState({ x: -ROUND_MM / 2, y: c.h / 4 });
  const [open, setOpen] = useState(false);
  const now = useRef({ ...at, open: false, distance });
  now.current.distance = distance;

  const draw = (): void => {
    const { film } = hand.current!;
    const on = canvas.current?.getContext("2d");
    if (!on) return;
    colours ??= palette();
    const image = on.createImageData(film.across, film.down);
    film.um.forEach((um, i) => {
      const step = um > SAG_UPRIGHT_UM ? 101 : Math.min(100, Math.round((50 * um) / c.wanted));
      image.data.set([...colours![step], 255], 4 * i);
    });
    on.putImageData(image, 0, 0);
  };
  /** The film of a way that was not gone here: put better, or wiped. */
  const replay = (text: string): void => {
    const film = new SprayFilm(c.w, c.h);
    const all = samplesOf(text);
    all.forEach((s, i) => {
      const next = all[i + 1];
      if (s.open && next)
        film.stroke([s.x, s.y], [next.x, next.y], (next.ms - s.ms) / 1000 / SLOWER, now.current.distance);
    });
    hand.current = { film, all, text, began: null };
    draw();
  };
  useEffect(() => {
    if (hand.current?.text !== value) replay(value);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- for each way that comes from elsewhere
  }, [value]);
  // what lies there was sprayed from where the can is held: at another distance it is another film
  useEffect(() => {
    if (hand.current?.all.length) replay(hand.current.text);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- for each distance
  }, [distance]);

  const tell = (): void => {
    const h = hand.current!;
    h.text = pathText(h.all);
    set(h.text);
  };
  /** One sample: what was sprayed since the last one is laid. */
  const sample = (ms: number): void => {
    const h = hand.current!;
    const { x, y, open: is, distance: mm } = now.current;
    const last = h.all[h.all.length - 1];
    if (last?.open) h.film.stroke([last.x, last.y], [x, y], Math.max(0, ms - last.ms) / 1000 / SLOWER, mm);
    h.all.push({ ms, x, y, open: is });
    if (last?.open) draw();
  };
  /** From the first press on time runs while the can is open. */
  const clock = (): number => {
    const h = hand.current!;
    const last = h.all[h.all.length - 1]?.ms ?? 0;
    h.began ??= performance.now() - (h.all.length ? last + APART_MS : 0);
    return performance.now() - h.began;
  };
  const trigger = (on: boolean): void => {
    if (on === now.current.open || !hand.current) return;
    const ms = clock();
    if (on && ms > LONGEST_MS) return;
    now.current.open = on;
    setOpen(on);
    sample(ms);
    if (!on) {
      hand.current.began = null;
      tell();
      return;
    }
    const step = (): void => {
      if (!now.current.open) return;
      const t = clock();
      const last = hand.current!.all[hand.current!.all.length - 1];
      if (t - last.ms >= EVERY_MS) sample(t);
      if (t > LONGEST_MS) trigger(false);
      else requestAnimationFrame(step);
    };
    requestAnimationFrame(step);
  };
  const move = (x: number, y: number): void => {
    const within = {
      x: Math.min(c.w + ROUND_MM, Math.max(-ROUND_MM, x)),
      y: Math.min(c.h + ROUND_MM, Math.max(-ROUND_MM, y)),
    };
    Object.assign(now.current, within);
    setAt(within);
  };
  const follow = (e: React.PointerEvent<HTMLDivElement>): void => {
    const box = e.currentTarget.getBoundingClientRect();
    const k = (c.w + 2 * ROUND_MM) / box.width;
    move((e.clientX - box.left) * k - ROUND_MM, (e.clientY - box.top) * k - ROUND_MM);
  };
  const key = (e: React.KeyboardEvent): void => {
    const mm = e.shiftKey ? FAR_MM : STEP_MM;
    const ways: Record<string, [number, number]> = {
      ArrowLeft: [-mm, 0],
      ArrowRight: [mm, 0],
      ArrowUp: [0, -mm],
      ArrowDown: [0, mm],
    };
    if (e.key === " ") {
      e.preventDefault();
      if (!e.repeat) trigger(!now.current.open);
    } else if (ways[e.key]) {
      e.preventDefault();
      move(now.current.x + ways[e.key][0], now.current.y + ways[e.key][1]);
    }
  };
  const grid = useMemo(() => new SprayFilm(c.w, c.h), [c.w, c.h]);
  const [W, H] = [c.w + 2 * ROUND_MM, c.h + 2 * ROUND_MM];
  const fan = fanWidth(distance);
  const share = (mm: number, of: number): string => `${(100 * mm) / of}%`;
  return (
    <div>
      <p className="text-small text-muted">
        {c.label}: press and move over the face, begin and end beside it. By keys: arrows move the can (Shift: further),
        space opens and shuts it.
      </p>
      <div
        role="application"
        tabIndex={0}
        aria-label={`Face of ${c.w} × ${c.h} mm to be sprayed; the can is ${open ? "open" : "shut"}`}
        data-spray-pad={open ? "open" : "shut"}
        className="relative mt-1 w-full touch-none overflow-hidden border border-strong bg-lifted select-none"
        style={{ aspectRatio: `${W} / ${H}` }}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          follow(e);
          trigger(true);
        }}
        onPointerMove={follow}
        onPointerUp={() => trigger(false)}
        onPointerCancel={() => trigger(false)}
        onKeyDown={key}
        onBlur={() => trigger(false)}
      >
        <canvas
          ref={canvas}
          width={grid.across}
          height={grid.down}
          className="absolute border border-strong"
          style={{
            left: share(ROUND_MM, W),
            top: share(ROUND_MM, H),
            width: share(c.w, W),
            height: share(c.h, H),
          }}
        />
        <div
          aria-hidden="true"
          className={clsx(
            "pointer-events-none absolute -translate-x-1/2 -translate-y-1/2 rounded-full border-2",
            open ? "border-act" : "border-dashed border-strong",
          )}
          style={{
            left: share(at.x + ROUND_MM, W),
            top: share(at.y + ROUND_MM, H),
            width: share(fan, W),
            height: share(fan, H),
          }}
        />
      </div>
      <p className="mt-1 flex flex-wrap items-center gap-3">
        <button type="button" className="btn" onClick={() => set("")} disabled={!value}>
          Wipe it clean
        </button>
        <span className="tag">The ring is the fan where it meets the face.</span>
      </p>
    </div>
  );
}

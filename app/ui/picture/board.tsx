/** The picture on its piece as it is being made: pulled by hand or keys, looked at under a lens, beside the original. */
import { useEffect, useId, useRef, useState, useSyncExternalStore } from "react";
import { blankOf } from "../../core/geometry/blank";
import { pictureBox } from "../../core/geometry/picture";
import type { Job } from "../../core/records/job";
import type { Picture } from "../../core/records/picture";
import { said } from "../../core/units/said";
import type { UnitSystem } from "../../core/units/show";
import type { PictureRun, Shown } from "../../workers/picture";
import { Share } from "../kit/bits";
import { STEPS, usePulling } from "../pulling";
import { Pixels } from "./shown";

/** pixels of the laser that the lens shows, each way */
export const LENS_PX = 56;
/** how far an arrow key moves the lens, of the picture */
const LENS_STEP = 0.02;
const LOOKS = [
  ["finished", "Finished piece"],
  ["original", "Original"],
  ["burnt", "What is burnt"],
] as const;
type Look = (typeof LOOKS)[number][0];

export function Board({
  run,
  job,
  picture,
  units,
}: {
  run: PictureRun;
  job: Job;
  picture: Picture;
  units: UnitSystem;
}) {
  const state = useSyncExternalStore(run.subscribe, run.get, run.get);
  const id = useId();
  const [look, see] = useState<Look>("finished");
  const { w, h } = job.substrate;
  const { dx, dy, refused, handlers } = usePulling(
    { dx: picture.dx ?? 0, dy: picture.dy ?? 0 },
    "picture-at",
    (el) => w / el.getBoundingClientRect().width,
  );
  const box = pictureBox({ ...picture, dx, dy }, job);
  const shape = blankOf(job.substrate);
  const [one, ten, tenth] = [STEPS.plain, STEPS.shift, STEPS.alt].map((mm) => said(`${mm} mm`, units));
  const made = state.made;
  return (
    <div className="flex flex-col gap-3">
      <div role="group" aria-label="What is shown" className="flex flex-wrap gap-2">
        {LOOKS.map(([key, name]) => (
          <button key={key} type="button" className="btn" aria-pressed={look === key} onClick={() => see(key)}>
            {name}
          </button>
        ))}
      </div>
      <div className="grid gap-4 sm:grid-cols-[minmax(0,1fr)_--spacing(56)]">
        <div>
          <div
            role="group"
            tabIndex={0}
            aria-label="The picture on its piece"
            aria-describedby={`${id}k`}
            data-picture-at={`${dx} ${dy}`}
            {...handlers}
            className="relative mx-auto max-h-[62vh] w-full cursor-grab touch-none overflow-hidden active:cursor-grabbing"
            style={{ aspectRatio: `${w} / ${h}`, maxWidth: `calc(62vh * ${w / h})` }}
          >
            <svg className="absolute size-0" aria-hidden="true">
              <clipPath id={`${id}c`} clipPathUnits="objectBoundingBox">
                <path d={shape.path} transform={`scale(${1 / w} ${1 / h})`} clipRule="evenodd" />
              </clipPath>
            </svg>
            <div className="absolute inset-0 bg-sunken" style={{ clipPath: `url(#${id}c)` }}>
              {made && (
                <div
                  className="absolute"
                  style={{
                    left: `${(100 * box.x0) / w}%`,
                    top: `${(100 * box.y0) / h}%`,
                    width: `${(100 * picture.w) / w}%`,
                    height: `${(100 * picture.h) / h}%`,
                  }}
                >
                  <Pixels
                    of={made.looks[look]}
                    label={`${job.title}: ${LOOKS.find(([k]) => k === look)![1].toLowerCase()}`}
                    className="size-full"
                  />
                </div>
              )}
            </div>
            <svg
              viewBox={`0 0 ${w} ${h}`}
              className="pointer-events-none absolute inset-0 size-full"
              aria-hidden="true"
            >
              <path d={shape.path} fill="none" stroke="var(--color-over-edge)" strokeWidth={Math.max(w, h) * 0.004} />
            </svg>
          </div>
          <p id={`${id}k`} className="tag mt-1">
            Pull it to where it belongs
            <span className="max-lg:hidden">
              , or nudge it by the arrow keys: {one}, with Shift {ten}, with Alt {tenth}
            </span>
            .
          </p>
          {refused && <p className="text-wrong">{refused}</p>}
        </div>
        <Lens run={run} ready={state.share === null && made !== null} of={made} />
      </div>
      <div aria-live="polite" className="min-h-line">
        {state.share !== null && (
          <div role="status" className="flex items-center gap-3">
            <Share of={state.share} label="Making the picture" />
            Making it…{" "}
            <button type="button" className="link-act" onClick={run.stop}>
              Stop
            </button>
          </div>
        )}
        {(state.error || state.stopped) && (
          <p role="alert" className={state.error ? "text-wrong" : ""}>
            {state.error ?? "Stopped: what is shown is what was made before."}{" "}
            <button type="button" className="link-act" onClick={run.again}>
              Make it
            </button>
          </p>
        )}
      </div>
    </div>
  );
}

/** A place of what is burnt, as the spot leaves it, each pixel of the laser large enough to be seen. */
function Lens({ run, ready, of }: { run: PictureRun; ready: boolean; of: object | null }) {
  const [at, put] = useState({ x: 0.5, y: 0.4 });
  const [shown, show] = useState<Shown | null>(null);
  const wish = useRef(0);
  useEffect(() => {
    if (!ready) return;
    const mine = ++wish.current;
    void run.lens(at.x, at.y, LENS_PX).then((s) => mine === wish.current && s && show(s));
  }, [run, ready, of, at]);
  const to = (x: number, y: number): void => put({ x: Math.min(1, Math.max(0, x)), y: Math.min(1, Math.max(0, y)) });
  return (
    <div className="flex flex-col gap-1">
      <div
        role="group"
        tabIndex={0}
        aria-label={`Lens at ${Math.round(at.x * 100)} % from the left, ${Math.round(at.y * 100)} % from the top`}
        data-lens={`${at.x} ${at.y}`}
        className="aspect-square w-full max-w-56 border border-line bg-sunken"
        onKeyDown={(e) => {
          const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
          if (!by) return;
          e.preventDefault();
          to(at.x + by[0] * LENS_STEP, at.y + by[1] * LENS_STEP);
        }}
      >
        {shown && (
          <Pixels
            of={shown}
            label="What the beam leaves there, enlarged"
            className="size-full [image-rendering:pixelated]"
          />
        )}
      </div>
      <p className="tag">Under the lens: single dots, as wide as the spot leaves them. Arrow keys move it.</p>
      <label className="tag flex items-center gap-2">
        across
        <input
          type="range"
          min="0"
          max="100"
          value={Math.round(at.x * 100)}
          onChange={(e) => to(Number(e.target.value) / 100, at.y)}
          className="min-h-line w-full accent-act"
        />
      </label>
      <label className="tag flex items-center gap-2">
        down
        <input
          type="range"
          min="0"
          max="100"
          value={Math.round(at.y * 100)}
          onChange={(e) => to(at.x, Number(e.target.value) / 100)}
          className="min-h-line w-full accent-act"
        />
      </label>
    </div>
  );
}

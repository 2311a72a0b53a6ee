/** The picture on its piece as it is being made: pulled by hand or keys, looked at under a lens, beside the original. */
import { useEffect, useId, useState, useSyncExternalStore } from "react";
import { blankOf } from "../../core/geometry/blank";
import { pictureBox } from "../../core/geometry/picture";
import type { Job } from "../../core/records/job";
import type { Picture } from "../../core/records/picture";
import { said } from "../../core/units/said";
import type { UnitSystem } from "../../core/units/show";
import { AS_IT_IS, type Conditions } from "../../core/tone/seen";
import type { Fine, Lens as LensShown, PictureRun, Shown } from "../../workers/picture";
import { Share } from "../kit/bits";
import { STEPS, usePulling } from "../pulling";
import { Pixels } from "./shown";

/** pixels of the laser that the lens shows, each way */
export const LENS_PX = 56;
/** A place of the picture, shares of it. */
export interface Place {
  x: number;
  y: number;
}
const UNDER = [
  ["sealed", "Sealed with gloss, or wet"],
  ["lamp", "By a lamp in the evening"],
] as const;
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
  px,
  place,
  onPlace,
}: {
  run: PictureRun;
  job: Job;
  picture: Picture;
  units: UnitSystem;
  /** longest side on the screen, pixels */
  px: number;
  /** where the lens is */
  place: Place;
  onPlace: (p: Place) => void;
}) {
  const state = useSyncExternalStore(run.subscribe, run.get, run.get);
  const id = useId();
  const [look, see] = useState<Look>("finished");
  const [under, put] = useState<Conditions>(AS_IT_IS);
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
  const ready = state.share === null && made !== null;
  const other = useAnswer<Shown>(under === AS_IT_IS || !ready ? null : () => run.see(px, under), [
    run,
    made,
    under,
    ready,
  ]);
  const marks = useFine(run, made, picture.watched?.ring ?? null, px);
  const shownNow = (look === "finished" && under !== AS_IT_IS && other) || made?.looks[look];
  return (
    <div className="flex flex-col gap-3">
      <div role="group" aria-label="What is shown" className="flex flex-wrap gap-2">
        {LOOKS.map(([key, name]) => (
          <button key={key} type="button" className="btn" aria-pressed={look === key} onClick={() => see(key)}>
            {name}
          </button>
        ))}
      </div>
      {look === "finished" && (
        <div role="group" aria-label="How it is looked at" className="flex flex-wrap gap-2">
          {UNDER.map(([key, name]) => (
            <button
              key={key}
              type="button"
              className="btn"
              aria-pressed={under[key]}
              onClick={() => {
                const next = { ...under, [key]: !under[key] };
                put(next.sealed || next.lamp ? next : AS_IT_IS);
              }}
            >
              {name}
            </button>
          ))}
        </div>
      )}
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
              {made && shownNow && (
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
                    of={shownNow}
                    label={`${job.title}: ${LOOKS.find(([k]) => k === look)![1].toLowerCase()}`}
                    className="size-full"
                  />
                  {marks.fine && (
                    <Pixels
                      of={marks.fine.marks}
                      label="Places that are too fine"
                      className="absolute inset-0 size-full"
                    />
                  )}
                  {made.lost && made.lost.boxes.length > 0 && (
                    <svg
                      viewBox="0 0 1 1"
                      preserveAspectRatio="none"
                      className="absolute inset-0 size-full"
                      aria-hidden="true"
                      data-lost-boxes={made.lost.boxes.length}
                    >
                      {made.lost.boxes.map((b) => (
                        <rect
                          key={b.join()}
                          x={b[0] - 0.004}
                          y={b[1] - 0.004}
                          width={b[2] - b[0] + 0.008}
                          height={b[3] - b[1] + 0.008}
                          fill="none"
                          stroke="var(--color-wrong)"
                          strokeWidth="2"
                          vectorEffect="non-scaling-stroke"
                        />
                      ))}
                    </svg>
                  )}
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
        <Lens
          run={run}
          ready={ready}
          of={made}
          under={under}
          at={place}
          onPlace={onPlace}
          what={
            picture.render !== "grey"
              ? "single dots as wide as the spot leaves them"
              : picture.dig && job.areas?.over
                ? "what each place is dug to"
                : "what each power leaves"
          }
        />
      </div>
      {ready && !picture.dig && <FineWords marks={marks} watched={(picture.watched?.ring.length ?? 0) > 0} />}
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

/** What a question to the worker is answered with: the newest asked counts. @param ask null: nothing is asked */
export function useAnswer<T>(ask: (() => Promise<T | null>) | null, of: unknown[]): T | null {
  const [answer, hear] = useState<T | null>(null);
  useEffect(() => {
    if (!ask) return;
    let newest = true;
    void ask().then((a) => newest && a && hear(a));
    return () => {
      newest = false;
    };
    // what it is about says when to ask anew
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, of);
  return answer;
}

interface Marks {
  fine: Fine | null;
  busy: boolean;
  /** share of it that has been looked at */
  share: number;
  /** asked, and there was no spot to measure by */
  unknown: boolean;
  ask: () => void;
  away: () => void;
}
const NO_MARKS = { fine: null, busy: false, share: 0, unknown: false };
/** What is drawn finer than the spot: looked for on a press, since it takes a while on a large picture. */
function useFine(run: PictureRun, made: object | null, watched: number[] | null, px: number): Marks {
  const [state, put] = useState<Pick<Marks, "fine" | "busy" | "share" | "unknown"> & { of: object | null }>({
    of: null,
    ...NO_MARKS,
  });
  // marks of another picture are not shown on this one
  const now = state.of === made ? state : NO_MARKS;
  return {
    ...now,
    ask: () => {
      put({ of: made, ...NO_MARKS, busy: true });
      void run
        .fine(watched, px, (share) => put({ of: made, ...NO_MARKS, busy: true, share }))
        .then((fine) => put({ of: made, ...NO_MARKS, fine, unknown: fine === null }));
    },
    away: () => put({ of: made, ...NO_MARKS }),
  };
}
const percent = (share: number): string =>
  share < 0.0005 ? "none" : `${share < 0.1 ? (share * 100).toFixed(1) : Math.round(share * 100)} %`;
function FineWords({ marks, watched }: { marks: Marks; watched: boolean }) {
  const of = watched ? "the marked part" : "it";
  const { fine } = marks;
  const none = fine && fine.found.enlarge === 1;
  return (
    <div aria-live="polite" className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <button type="button" className="btn" disabled={marks.busy} onClick={fine ? marks.away : marks.ask}>
        {marks.busy
          ? `Looking… ${Math.round(marks.share * 100)} %`
          : fine
            ? "Marks away"
            : `Mark what of ${of} is finer than the spot`}
      </button>
      {marks.unknown && <p>The spot is not known: choose a machine first.</p>}
      {fine && (
        <p data-fine={fine.found.enlarge ?? "never"}>
          {none
            ? `Drawn in two tones, all of ${of} is as wide as the spot or wider.`
            : `Drawn in two tones, ${percent(fine.found.burnt)} of the strokes and ${percent(fine.found.left)} of the gaps ` +
              "are finer than the spot. " +
              (fine.found.enlarge === null
                ? "Even eight times as large they would be."
                : `${fine.found.enlarge} times as large they would hold.`)}
        </p>
      )}
    </div>
  );
}

/** A place of what is burnt as the spot leaves it, pixels of the laser large enough to be seen; and the same before its tones. */
function Lens({
  run,
  ready,
  of,
  under,
  at,
  onPlace,
  what,
}: {
  run: PictureRun;
  ready: boolean;
  of: object | null;
  under: Conditions;
  at: Place;
  onPlace: (p: Place) => void;
  /** what is seen under it */
  what: string;
}) {
  const shown = useAnswer<LensShown>(ready ? () => run.lens(at.x, at.y, LENS_PX, under) : null, [
    run,
    ready,
    of,
    at,
    under,
  ]);
  const to = (x: number, y: number): void =>
    onPlace({ x: Math.min(1, Math.max(0, x)), y: Math.min(1, Math.max(0, y)) });
  return (
    <div className="flex flex-col gap-1">
      <div
        role="group"
        tabIndex={0}
        aria-label={`Lens at ${Math.round(at.x * 100)} % from the left, ${Math.round(at.y * 100)} % from the top`}
        data-lens={`${at.x} ${at.y}`}
        className="grid w-full max-w-56 grid-cols-2 gap-1 border border-line bg-sunken sm:grid-cols-1"
        onKeyDown={(e) => {
          const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
          if (!by) return;
          e.preventDefault();
          to(at.x + by[0] * LENS_STEP, at.y + by[1] * LENS_STEP);
        }}
      >
        {shown && (
          <>
            <Pixels
              of={shown.now}
              label="What the beam leaves there, enlarged"
              className="aspect-square w-full [image-rendering:pixelated]"
            />
            <Pixels
              of={shown.before}
              label="The same place before its tones were changed"
              className="aspect-square w-full [image-rendering:pixelated]"
            />
          </>
        )}
      </div>
      <p className="tag">Under the lens: {what}, and the same place as it was. Arrow keys move it.</p>
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

/** The whole shop over some days: what hands, machines, oven and spray corner do, and every job with its work and waits. */
import {
  DndContext,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useSensor,
  useSensors,
  type DragMoveEvent,
  type DragStartEvent,
} from "@dnd-kit/core";
import clsx from "clsx";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import {
  memo,
  startTransition,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type SyntheticEvent,
} from "react";
import { Link } from "react-router";
import { InTurn } from "../kit/in-turn";
import type { JobRow, Lane } from "../../core/explain/whole";
import { drawnLane, drawnRow, type Drawn, type DrawnWait, type Stretch } from "../../views/shop-calendar";

const share = (v: number): string => `${(v * 100).toFixed(3)}%`;
const NAME = "grid grid-cols-[--spacing(44)_minmax(0,1fr)] max-lg:grid-cols-[--spacing(26)_minmax(0,1fr)]";

/** A bar that is being pulled to another moment. */
export interface Pulled {
  job: string;
  step: string;
  at: number;
}
/** minutes that an arrow moves a bar by */
const BY_KEY = 30;
export const Chart = memo(function Chart({
  of,
  onStep,
  pulled,
  onPull,
  onLet,
}: {
  of: Stretch;
  onStep: (job: string, step: string) => void;
  pulled: Pulled | null;
  onPull: (p: Pulled) => void;
  /** null: left where it was */
  onLet: (p: Pulled | null) => void;
}) {
  const width = useRef(1);
  const taken = useRef<{ job: string; bar: Drawn } | null>(null);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    // on a phone the page is moved by the same finger: a bar is held first
    useSensor(TouchSensor, { activationConstraint: { delay: 300, tolerance: 8 } }),
  );
  const moved = (e: DragMoveEvent): void => {
    if (!taken.current) return;
    const { job, bar } = taken.current;
    onPull({ job, step: bar.step, at: of.axis.back(bar.left + e.delta.x / width.current) });
  };
  const begun = (e: DragStartEvent): void => {
    const target = e.activatorEvent.target as HTMLElement | null;
    const step = target?.closest<HTMLElement>("[data-bar]")?.dataset.bar;
    const job = of.jobs.find((j) => j.id === e.active.id);
    const bar = job && drawnRow(job, of.axis).drawn.find((x) => x.step === step);
    taken.current = bar ? { job: String(e.active.id), bar } : null;
    width.current = Math.max(1, target?.closest("[data-row]")?.clientWidth ?? 1);
  };
  return (
    <DndContext
      sensors={sensors}
      autoScroll={false}
      onDragStart={begun}
      onDragMove={moved}
      onDragEnd={() => onLet(pulled)}
      onDragCancel={() => onLet(null)}
      accessibility={{ announcements: SILENT, screenReaderInstructions: { draggable: "" } }}
    >
      <div data-chart={of.days.length}>
        <div className={`${NAME} text-small`}>
          <span />
          <div className="relative h-7 max-lg:h-11">
            {of.days.map((d) => (
              <span
                key={d.day}
                className={clsx(
                  "absolute top-0 truncate border-l max-lg:px-0.5 border-line px-1",
                  d.today ? "font-semibold" : "text-muted",
                )}
                style={{ left: share(d.left), width: share(d.width) }}
              >
                <span className="max-lg:hidden">{d.today ? `Today, ${d.label}` : d.label}</span>
                <span className="text-wrap lg:hidden">{d.short}</span>
              </span>
            ))}
          </div>
        </div>
        <ul aria-label="Hands and machines" className="border-t border-line">
          {of.lanes.map((l) => (
            <LaneLine key={l.id} lane={l} of={of} />
          ))}
        </ul>
        <InTurn of={of}>
          {(x) => <JobRows of={x} pulled={pulled} onStep={onStep} onPull={onPull} onLet={onLet} />}
        </InTurn>
        <p className="tag mt-2">
          Each job in its own paint. Hatched: waiting, with a mark where its window shuts. Nights are narrow, shut days
          grey. Double line: due. Red line: now. A bar opens its step below; pulled along, or moved with Alt and the
          arrow keys, it says what would break before it is let go.
        </p>
      </div>
    </DndContext>
  );
});
/** what is pulled is told beneath the chart, in words of its own */
const silent = (): undefined => undefined;
const SILENT = { onDragStart: silent, onDragOver: silent, onDragEnd: silent, onDragCancel: silent };

/** bars from which on a lane is drawn as a whole */
const CROWD = 80;
/** least share of a row that a bar is drawn with */
const LEAST = 0.0015;
const seen = (b: Drawn & { job: JobRow }): { left: number; width: number; colour: string } => ({
  left: b.left,
  width: Math.max(LEAST, b.width),
  colour: b.job.colour,
});
/** What hands, a machine or a place is taken up by. */
const LaneLine = memo(function LaneLine({ lane: l, of }: { lane: Lane; of: Stretch }) {
  const bars = useMemo(() => drawnLane(l, of), [l, of]);
  return (
    <li data-lane={l.id} className={`${NAME} items-center border-b border-line`}>
      <span className="truncate py-1 pr-2 text-small font-semibold">{l.name}</span>
      <div className="relative h-8 bg-line/40" role="img" aria-label={`${l.name}: ${laneWords(bars)}`}>
        <Ground of={of} />
        {bars.length > CROWD && (
          <span
            className="absolute inset-x-0 inset-y-1"
            style={{ backgroundImage: striped(bars.map(seen), "transparent") }}
          />
        )}
        {(bars.length > CROWD ? [] : bars).map((b) => (
          <span
            key={b.key}
            title={`${b.job.title}: ${b.title}`}
            className={clsx("absolute inset-y-1 border border-ink/50", b.done && "opacity-40")}
            style={{ left: share(b.left), width: `max(3px, ${share(b.width)})`, background: b.job.colour }}
          />
        ))}
        <Now of={of} />
      </div>
    </li>
  );
});

/** jobs from which on only those in sight are on the page */
const MANY = 20;
/** height of a row, px */
const ROW = 45;
interface Rows {
  of: Stretch;
  pulled: Pulled | null;
  onStep: (job: string, step: string) => void;
  onPull: (p: Pulled) => void;
  onLet: (p: Pulled | null) => void;
}
/** Every job in a row; of very many those that are in sight. */
function JobRows(r: Rows) {
  const { jobs } = r.of;
  return (
    <ul aria-label="Jobs" className="mt-4 border-t border-line" data-jobs={jobs.length}>
      {jobs.length > MANY ? <InSight {...r} /> : jobs.map((j) => <JobLine key={j.id} job={j} {...r} />)}
    </ul>
  );
}
function InSight(r: Rows) {
  const { jobs } = r.of;
  const first = useRef<HTMLLIElement>(null);
  const [top, setTop] = useState(0);
  useEffect(() => {
    // the first rows are on the page by then
    startTransition(() => setTop((first.current?.getBoundingClientRect().top ?? 0) + window.scrollY));
  }, []);
  const v = useWindowVirtualizer({
    count: jobs.length,
    estimateSize: () => ROW,
    overscan: 4,
    scrollMargin: top,
    // drawn on the way, so that the page scrolls on
    useFlushSync: false,
    getItemKey: (i) => jobs[i].id,
  });
  const items = v.getVirtualItems();
  const above = items.length ? items[0].start - top : 0;
  const below = items.length ? v.getTotalSize() - (items[items.length - 1].end - top) : 0;
  return (
    <>
      <li ref={first} aria-hidden="true" style={{ height: above }} />
      {items.map((it) => (
        <JobLine key={it.key} job={jobs[it.index]} {...r} among={jobs.length} place={it.index + 1} />
      ))}
      <li aria-hidden="true" style={{ height: below }} />
    </>
  );
}

/** A job: when it is ready, its work and its waits. @param among of so many, where not all of them are on the page */
const JobLine = memo(function JobLine({
  job,
  of,
  pulled,
  onStep,
  onPull,
  onLet,
  among,
  place,
}: Rows & { job: JobRow; among?: number; place?: number }) {
  const j = useMemo(() => drawnRow(job, of.axis), [job, of.axis]);
  const { setNodeRef, listeners } = useDraggable({ id: j.id });
  // taken hold of by a bar only
  const holds = Object.fromEntries(
    Object.entries(listeners ?? {}).map(([on, f]) => [
      on,
      (e: SyntheticEvent) => {
        if ((e.target as HTMLElement).closest("[data-bar]")) (f as (e: SyntheticEvent) => void)(e);
      },
    ]),
  );
  return (
    <li
      data-job={j.id}
      className={`${NAME} items-center border-b border-line`}
      aria-setsize={among}
      aria-posinset={place}
    >
      <span className="min-w-0 py-1 pr-2">
        <Link className="block truncate font-semibold hover:underline" to={`/jobs/${j.id}/calendar`} title={j.title}>
          {j.title}
        </Link>
        <span
          className={clsx("block truncate text-fine", j.slack !== null && j.slack < 0 ? "text-wrong" : "text-muted")}
        >
          {j.ready ?? "no ready time"}
        </span>
      </span>
      <div ref={setNodeRef} data-row={j.id} className="relative h-11" {...holds}>
        <Ground of={of} />
        {j.waits.map((w) => (
          <WaitBar key={w.key} of={w} />
        ))}
        {j.drawn.map((b) => (
          <WorkBar
            key={b.key}
            job={j}
            of={b}
            axis={of.axis}
            pulled={pulled}
            onStep={onStep}
            onPull={onPull}
            onLet={onLet}
          />
        ))}
        {j.dueAtShare !== null && (
          <span
            className="absolute inset-y-0 border-r-3 border-double border-wrong"
            style={{ left: share(j.dueAtShare) }}
            title={`due ${j.due}`}
          />
        )}
        <Now of={of} />
      </div>
    </li>
  );
});

/** One piece of work: pressed it opens, pulled or moved by keys it is tried elsewhere. */
function WorkBar({
  job,
  of: b,
  axis,
  pulled,
  onStep,
  onPull,
  onLet,
}: {
  job: { id: string; title: string; colour: string };
  of: Drawn;
  axis: Stretch["axis"];
  pulled: Pulled | null;
  onStep: (job: string, step: string) => void;
  onPull: (p: Pulled) => void;
  onLet: (p: Pulled | null) => void;
}) {
  const mine = pulled?.job === job.id && pulled.step === b.step ? pulled : null;
  const keys = (e: KeyboardEvent): void => {
    const by = { ArrowLeft: -BY_KEY, ArrowRight: BY_KEY }[e.key];
    if (by && (e.altKey || mine) && !b.done) {
      e.preventDefault();
      onPull({ job: job.id, step: b.step, at: (mine?.at ?? axis.back(b.left)) + by });
    } else if (mine && (e.key === "Enter" || e.key === "Escape")) {
      e.preventDefault();
      onLet(e.key === "Enter" ? mine : null);
    }
  };
  return (
    <>
      <button
        type="button"
        data-bar={b.done ? undefined : b.step}
        title={b.title}
        aria-label={`${job.title}: ${b.title}`}
        onClick={() => !mine && onStep(job.id, b.step)}
        onKeyDown={keys}
        onBlur={() => mine && onLet(null)}
        className={clsx(
          "says absolute top-1.5 h-6 border border-ink/60",
          b.done ? "opacity-40" : "cursor-grab",
          b.pinned && "outline-2 outline-offset-1 outline-act",
        )}
        style={{ left: share(b.left), width: `max(5px, ${share(b.width)})`, background: job.colour }}
      />
      {mine && (
        <span
          aria-hidden="true"
          data-ghost={b.step}
          className="pointer-events-none absolute top-0.5 z-10 h-8 border-2 border-dashed border-ink"
          style={{ left: share(axis.at(mine.at)), width: `max(7px, ${share(b.width)})` }}
        />
      )}
    </>
  );
}
const laneWords = (bars: readonly { job: JobRow }[]): string =>
  bars.length ? `${bars.length} pieces of work, ${bars[0].job.title} first` : "free";

/** Stretches of colour along a row as one background: any number of them is one thing to draw. */
const striped = (list: readonly { left: number; width: number; colour: string }[], between: string): string => {
  let at = 0;
  const stops = list.flatMap(({ left, width, colour }) => {
    const [from, to] = [Math.max(at, left), Math.max(at, left + width)];
    const parts = [`${between} ${share(at)} ${share(from)}`, `${colour} ${share(from)} ${share(to)}`];
    at = to;
    return parts;
  });
  return `linear-gradient(to right, ${[...stops, `${between} ${share(at)} 100%`].join(", ")})`;
};
const SHUT = "color-mix(in srgb, var(--line) 50%, transparent)";
/** Nights and shut days, open hours, a line where a day begins. */
const groundOf = (of: Stretch): string => {
  const open = of.days.flatMap((d) => (d.open ? [{ ...d.open, colour: "var(--lifted)" }] : []));
  const days = `repeating-linear-gradient(to right, var(--line) 0 1px, transparent 1px ${share(1 / of.days.length)})`;
  return `${days}, ${striped(open, SHUT)}`;
};
const grounds = new WeakMap<Stretch, string>();
function Ground({ of }: { of: Stretch }) {
  const ground = grounds.get(of) ?? grounds.set(of, groundOf(of)).get(of)!;
  return <span className="absolute inset-0" style={{ backgroundImage: ground }} />;
}
const Now = ({ of }: { of: Stretch }) =>
  of.now !== null && <span className="absolute -inset-y-px w-0.75 bg-wrong" style={{ left: share(of.now) }} />;

function WaitBar({ of: w }: { of: DrawnWait }) {
  return (
    <>
      <span
        className="hatch absolute top-3.5 h-2.5"
        title={w.words}
        style={{ left: share(w.left), width: share(w.width) }}
      />
      {w.shuts !== null && (
        <span
          className="absolute top-1 h-8 border-r-2 border-dashed border-waiting"
          title="its window shuts"
          style={{ left: share(w.shuts) }}
        />
      )}
    </>
  );
}

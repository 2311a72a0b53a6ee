import type { Route } from "./+types/calendar";
import { memo, useCallback, useDeferredValue, useMemo, useState, useSyncExternalStore } from "react";
import { flushSync } from "react-dom";
import { Link, redirect, useSubmit } from "react-router";
import { nowMinutes } from "../clock";
import { readDay, readShop, readWorldsOf } from "../store/queries";
import { houseAct } from "../acts/house";
import { formOf } from "../acts/answer";
import { shopClock, showWhen } from "../core/time/zoned";
import { workCalendar } from "../core/time/hours";
import { showMinutes } from "../core/units/show";
import { startShop, type ShopRun } from "../workers/shop";
import { barsOn, shopStretch, type Stretch } from "../views/shop-calendar";
import { ActButton, TextField } from "../ui/kit/field";
import { Empty } from "../ui/kit/bits";
import { Fold } from "../ui/kit/fold";
import { InTurn } from "../ui/kit/in-turn";
import { DoneTogether, JobsAmong, Long, StepFold } from "../ui/shop/among";
import { Chart, type Pulled } from "../ui/shop/chart";
import { shiftOf } from "../core/explain/shift";
import { type OpensTo, Trips } from "../ui/shop/trips";
import { openedIn } from "../views/opened";
import { PromiseForm, WhatIfs } from "../ui/shop/asking";
import { saveFile } from "../ui/files";

/** jobs that are laid */
const MOST = 400;
const STRETCHES = [7, 14, 28];
const SEARCH_S = 10;
const DAY = 1440;

export async function clientLoader({ request }: Route.ClientLoaderArgs) {
  const base = await readShop();
  if (!base) throw redirect("/");
  const now = Math.floor(nowMinutes());
  const day = await readDay(MOST);
  const worlds = await readWorldsOf(
    day.heads.map((h) => h.id),
    false,
  );
  const q = new URL(request.url).searchParams;
  const clock = shopClock(base.shop);
  const asked = /^\d{4}-\d\d-\d\d$/.test(q.get("from") ?? "") ? clock.fromLocal(`${q.get("from")}T12:00`) : now;
  const days = STRETCHES.includes(Number(q.get("days"))) ? Number(q.get("days")) : STRETCHES[0];
  // asked of the shop as it stood: once something is stored it is another one, and not searched again unasked
  const mark = String(day.newest);
  const [better, anew] = [q.get("better") === mark, q.get("anew") === mark];
  const run = startShop({ worlds, now, seconds: better ? SEARCH_S : 0, anew }, `${day.stamp} ${better} ${anew}`);
  return {
    shop: base.shop,
    now,
    local: clock.toLocal(now),
    first: clock.dayNumber(asked),
    days,
    mark,
    asked: better ? `better=${mark}` : anew ? `anew=${mark}` : "",
    run,
    worlds,
    more: day.more,
    laid: worlds.some((w) => w.job.queue?.laid),
    jobs: worlds
      .filter((w) => w.job.route)
      .map((w) => ({ value: w.job.id, label: `${w.job.title}, ${w.job.quantity} pieces` })),
  };
}
export const clientAction = async ({ request }: Route.ClientActionArgs) => houseAct(await formOf(request));

export default function ShopCalendar({ loaderData: d }: Route.ComponentProps) {
  const state = useSyncExternalStore(d.run.subscribe, d.run.get, d.run.get);
  const clock = shopClock(d.shop);
  // what was found is drawn in turns, so that the page goes on answering meanwhile
  const rows = useDeferredValue(state.rows);
  const dateOf = (day: number): string => clock.toLocal(clock.atDay(day, DAY / 2)).slice(0, 10);
  // what was asked of the search is asked while one leafs through the days
  const to = (first: number, days = d.days): string => `?from=${dateOf(first)}&days=${days}&${d.asked}`;
  return (
    <main
      id="main"
      data-view="shop-calendar"
      data-laid={state.done ? "whole" : undefined}
      className="mx-auto w-full max-w-page px-5 py-5"
    >
      <title>Calendar · Rich Layer</title>
      <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-2">
        <h1>Calendar</h1>
        <nav aria-label="Days shown" className="flex flex-wrap items-center gap-2">
          <Link className="btn" to={to(d.first - d.days)}>
            Earlier
          </Link>
          <Link className="btn" to={`?days=${d.days}&${d.asked}`}>
            Today
          </Link>
          <Link className="btn" to={to(d.first + d.days)}>
            Later
          </Link>
          {STRETCHES.map((n) => (
            <Link key={n} className="btn" to={to(d.first, n)} aria-current={n === d.days ? "page" : undefined}>
              {n} days
            </Link>
          ))}
        </nav>
      </div>
      {d.worlds.length === 0 ? (
        <Empty title="Nothing is to be laid yet">
          <p>
            Here all open jobs stand on one calendar: what hands and machines do, what waits and until when, what is
            late.
          </p>
          <Link className="btn btn-main" to="/jobs/new">
            New job
          </Link>
        </Empty>
      ) : (
        <>
          <Standing d={d} run={d.run} />
          {rows && <Laid d={d} rows={rows} />}
        </>
      )}
    </main>
  );
}
/** What was found, drawn; drawn again only where it is another one. */
const Laid = memo(function Laid({ d, rows }: { d: Data; rows: Rows }) {
  const [at, open] = useState<{ job: string; step: string } | null>(null);
  const [pulled, pull] = useState<Pulled | null>(null);
  const onStep = useCallback((job: string, step: string) => open({ job, step }), []);
  const [printing, print] = useState(false);
  const submit = useSubmit();
  const onLet = useCallback(
    (p: Pulled | null) => {
      pull(null);
      if (!p) return;
      const value = { intent: "queue", id: p.job, field: "pin-at", value: String(p.at), step: p.step };
      void submit(value, { method: "post", preventScrollReset: true });
    },
    [submit],
  );
  const stretch = useMemo(() => {
    const clock = shopClock(d.shop);
    const calendar = workCalendar(clock, d.shop.hours, d.shop.daysOff, d.shop.otherHours);
    return shopStretch(rows, clock, calendar, d.first, d.days);
  }, [d, rows]);
  const seen = useMemo(() => ({ rows, stretch }), [rows, stretch]);
  return (
    <>
      <InTurn of={stretch}>
        {(x) => <Chart of={x} onStep={onStep} pulled={pulled} onPull={pull} onLet={onLet} />}
      </InTurn>
      <PulledWords d={d} rows={rows} pulled={pulled} />
      {at && <StepFold key={`${at.job}${at.step}`} rows={rows} at={at} onShut={() => open(null)} />}
      <div className="mt-6 grid gap-10 lg:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
        <section aria-labelledby="t1">
          <div className="mb-2 flex flex-wrap items-baseline justify-between gap-3">
            <h2 id="t1">Trips to the bench</h2>
            <span className="flex flex-wrap gap-4">
              <button
                type="button"
                className="link-act"
                onClick={() => {
                  // on paper all of them stand
                  flushSync(() => print(true));
                  window.print();
                  print(false);
                }}
              >
                Print these days
              </button>
              <button
                type="button"
                className="link-act"
                onClick={() =>
                  void import("../io/export/ics").then(({ writeShopCalendar }) =>
                    saveFile(
                      "shop.ics",
                      writeShopCalendar(d.shop.name, rows.trips, nowMinutes() * 60_000),
                      "text/calendar",
                    ),
                  )
                }
              >
                Save them as a calendar file
              </button>
            </span>
          </div>
          <InTurn of={seen}>{(x) => <TripsOf d={d} {...x} printing={printing} />}</InTurn>
        </section>
        <div className="print:hidden">
          <InTurn of={seen}>{(x) => <Beside {...x} />}</InTurn>
          <section aria-labelledby="p1" className="mt-6">
            <h2 id="p1" className="mb-2">
              Before a date is promised
            </h2>
            <PromiseForm worlds={d.worlds} now={d.now} local={d.local} jobs={d.jobs} />
          </section>
          <section aria-labelledby="w1" className="mt-6">
            <h2 id="w1" className="mb-2">
              What if
            </h2>
            <WhatIfs worlds={d.worlds} now={d.now} />
          </section>
          <Fold summary="Hours of single days" className="mt-6 border-t border-line pt-1">
            <ul className="flex flex-col gap-2">
              {stretch.days.map((x) => (
                <li key={x.date} className="flex items-end gap-3" data-day={x.date}>
                  <TextField
                    name="value"
                    label={x.label}
                    value={x.hours || "shut"}
                    hint="two times; shut; empty: as usual"
                    extra={{ intent: "day-hours", day: x.date }}
                  />
                </li>
              ))}
            </ul>
          </Fold>
        </div>
      </div>
    </>
  );
});
/** Visits to the bench in these days. */
const TripsOf = memo(function TripsOf({
  d,
  rows,
  stretch,
  printing,
}: {
  d: Data;
  rows: Rows;
  stretch: Stretch;
  printing: boolean;
}) {
  if (!stretch.trips.length) return <p className="text-muted">Nobody is needed at the bench in these days.</p>;
  return (
    <Long of={stretch.trips} what="trips" all={printing} lines={(t) => t.items.length}>
      {(trips) => <Trips trips={trips} opens={opensIn(d, rows)} />}
    </Long>
  );
});
/** lines that a job takes among the others */
const JOB_LINES = 3;
/** Jobs among one another, and what of them is done together. */
const Beside = memo(function Beside({ rows, stretch }: { rows: Rows; stretch: Stretch }) {
  return (
    <>
      <section aria-labelledby="j1">
        <h2 id="j1" className="mb-2">
          Jobs among one another
        </h2>
        <Long of={rows.jobs} what="jobs" lines={() => JOB_LINES}>
          {(jobs) => <JobsAmong jobs={jobs} held={rows.left.filter((l) => l.held)} />}
        </Long>
      </section>
      {rows.together.length > 0 && (
        <section aria-labelledby="d1" className="mt-6">
          <h2 id="d1" className="mb-2">
            Done together
          </h2>
          <p className="mb-2">
            {showMinutes(rows.together.reduce((sum, s) => sum + s.winsMin, 0))} less of work in all
            {rows.together.length > stretch.together.length &&
              `, ${stretch.together.length} of ${rows.together.length} times in these days`}
            .
          </p>
          <DoneTogether list={stretch.together} />
        </section>
      )}
    </>
  );
});

/** What comes of a bar that is being pulled, before it is let go. */
function PulledWords({ d, rows, pulled }: { d: Data; rows: Rows; pulled: Pulled | null }) {
  // the hand goes before, the reckoning follows
  const late = useDeferredValue(pulled);
  const tried = useMemo(() => {
    const world = late && d.worlds.find((w) => w.job.id === late.job);
    if (!world) return null;
    const lanes = rows.lanes.map((l) => ({ ...l, bars: barsOn(l, rows.jobs) }));
    return shiftOf(shownIn(world, rows), d.now, rows.starts[late.job] ?? [], late.step, late.at, lanes);
  }, [late, d.worlds, d.now, rows]);
  if (!pulled) return null;
  const clock = shopClock(d.shop);
  const title = rows.jobs.find((j) => j.id === pulled.job)?.bars.find((b) => b.step === pulled.step)?.title;
  return (
    <div
      role="status"
      data-pulled={pulled.step}
      className="sticky bottom-0 max-lg:bottom-13 z-20 mt-3 border-t-2 border-ink bg-lifted px-4 py-3"
    >
      <p>
        <strong>{title}</strong>: {showWhen(clock, pulled.at)}
      </p>
      {tried && (
        <ul>
          {tried.breaks.map((b) => (
            <li key={b} className="text-wrong">
              {b}
            </li>
          ))}
          {tried.moves.map((m) => (
            <li key={m}>{m}</li>
          ))}
          {!tried.breaks.length && !tried.moves.length && <li className="text-muted">Nothing else moves.</li>}
        </ul>
      )}
      <p className="tag">Let go to pin it there; by keys: arrows by half an hour, Enter lets go, Escape leaves it.</p>
    </div>
  );
}

/** A job as the calendar shows it: with what it does together with others. */
const shownIn = (w: Data["worlds"][number], rows: Rows, laid = w.job.queue?.laid): Data["worlds"][number] => ({
  ...w,
  job: { ...w.job, queue: { ...w.job.queue, laid, shared: rows.shared[w.job.id] } },
});
/** Figures of trips open in the world of their job, with the beginnings that are shown. */
const opensIn = (d: Data, rows: Rows): OpensTo => {
  const byId = new Map(d.worlds.map((w) => [w.job.id, w]));
  return (job, step, of, title) => {
    const w = byId.get(job)!;
    const laid = (rows.starts[job] ?? []).map(([s, at]) => ({ step: s, at }));
    return openedIn(shownIn(w, rows, laid), d.now, { of, step }, title);
  };
};

type Data = Route.ComponentProps["loaderData"];
type Rows = NonNullable<ReturnType<ShopRun["get"]>["rows"]>;

/** How good it is, what is late, what moved; and what can be done about it. */
function Standing({ d, run }: { d: Data; run: ShopRun }) {
  const { rows, searching, done, error } = useSyncExternalStore(run.subscribe, run.get, run.get);
  return (
    <div className="mb-4 flex flex-wrap items-start justify-between gap-x-8 gap-y-3 border-y border-line py-3">
      <div aria-live="polite" className="max-w-prose">
        {!rows && !error && <p role="status">Laying all jobs together…</p>}
        {error && (
          <p role="alert" className="text-wrong">
            {error}
          </p>
        )}
        {rows && rows.jobs.length > 0 && (
          <>
            <p data-says>
              {rows.says.done && `All of it is done ${rows.says.done}. `}
              <span className={rows.says.late.startsWith("Nothing") ? "" : "text-wrong"}>{rows.says.late}</span>{" "}
              {rows.says.windows && <span className="text-wrong">{rows.says.windows} </span>}
              {done ? rows.says.won : ""}
            </p>
            {rows.moved.length > 0 && (
              <ul data-moved={rows.moved.length}>
                {rows.moved.map((m) => (
                  <li key={m.job}>
                    {m.title} is {m.later ? "later" : "sooner"}: {m.now}, was {m.was}.
                  </li>
                ))}
              </ul>
            )}
            <p className="tag">
              {rows.gone
                ? "The jobs go by this calendar."
                : d.laid
                  ? "The jobs still go by what was taken before."
                  : "Each job is still planned as if it were alone in the shop."}
              {d.more > 0 && ` ${d.more} more open jobs are not laid.`}
            </p>
          </>
        )}
        {rows?.left.map((l) => (
          <p key={l.job} className="text-waiting">
            <Link className="text" to={`/jobs/${l.job}`}>
              {l.title}
            </Link>{" "}
            is not laid: {l.why[0].toLowerCase() + l.why.slice(1)}
          </p>
        ))}
        {rows && !done && !searching && !error && <p role="status">Looking for works that can be done together…</p>}
        {searching && (
          <p role="status">
            Searching, {searching.iterations} tried in {Math.round(searching.seconds)} s
            {searching.objective &&
              searching.objective.lateness > 0 &&
              `; late by ${showMinutes(searching.objective.lateness)} so far`}
            .{" "}
            <button type="button" className="link-act" onClick={run.stop}>
              Stop, the best so far will do
            </button>
          </p>
        )}
      </div>
      <div className="flex flex-wrap gap-3">
        {rows && done && rows.jobs.length > 0 && !rows.gone && (
          <ActButton
            className="btn btn-main"
            act={{ intent: "lay-shop", starts: JSON.stringify(rows.starts), shared: JSON.stringify(rows.shared) }}
          >
            Go by this
          </ActButton>
        )}
        <Link className="btn" to={`?better=${d.mark}`}>
          Search for better
        </Link>
        <NotThisEvening shop={d.shop} now={d.now} />
        {d.laid && (
          <>
            <Link className="btn" to={`?anew=${d.mark}`}>
              Lay all anew
            </Link>
            <ActButton act={{ intent: "lay-alone" }}>Each job alone</ActButton>
          </>
        )}
      </div>
    </div>
  );
}

/** when an evening begins */
const EVENING = 17 * 60;
/** Today ends before the evening: one press, where it would not. */
function NotThisEvening({ shop, now }: { shop: Data["shop"]; now: number }) {
  const clock = shopClock(shop);
  const open = workCalendar(clock, shop.hours, shop.daysOff, shop.otherHours).openAt(now);
  if (!open || clock.dayNumber(open.from) !== clock.dayNumber(now)) return null;
  const evening = clock.atDay(clock.dayNumber(now), EVENING);
  const ends = Math.max(evening, Math.ceil(now / 5) * 5);
  if (open.from >= ends || open.to <= ends) return null;
  const [day, from] = clock.toLocal(open.from).split("T");
  const value = `${from} to ${clock.toLocal(ends).slice(11)}`;
  return <ActButton act={{ intent: "day-hours", day, value }}>Not this evening</ActButton>;
}

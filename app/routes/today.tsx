import type { Route } from "./+types/today";
import { lazy, Suspense } from "react";
import { Link } from "react-router";
import { nowMinutes } from "../clock";
import { showMinutes } from "../core/units/show";
import { readDay, readHeads, readLastSaved, readShop, readWorldsOf } from "../store/queries";
import { firstSteps, STILL_NEW, stillNew } from "../views/first-steps";
import type { TodayShown } from "../views/today";
import { Empty } from "../ui/kit/bits";
import { DryClock } from "../ui/dry-clock";
import { Thumb } from "../ui/thumb";
import { Why } from "../ui/kit/why";
import { Trips } from "../ui/shop/trips";

const FirstSteps = lazy(() => import("../ui/first-steps"));

/** trips that are shown */
const SHOWN_TRIPS = 4;
/** jobs of the day that are planned and shown */
const SHOWN = 24;

let kept: { key: string; shown: TodayShown } | null = null;
const NOTHING: TodayShown = {
  rows: [],
  trips: [],
  laid: false,
  clashes: 0,
  opens: () => {
    throw new Error("there is no trip");
  },
};
/** Where the jobs of the day stand; planned anew when the minute or anything stored is another one. */
async function shownOf(ids: string[], stamp: string, now: number): Promise<TodayShown> {
  const key = `${now} ${stamp}`;
  if (kept?.key !== key)
    kept = {
      key,
      shown: ids.length ? (await import("../views/today")).todayView(await readWorldsOf(ids), now) : NOTHING,
    };
  return kept.shown;
}

/** When the shop was last saved, by its own days; the calendar is fetched only where there is something to say. */
async function sayLast(ms: number, now: number): Promise<{ days: number; on: string }> {
  const { showDay, shopClock } = await import("../core/time/zoned");
  const clock = shopClock((await readShop())?.shop ?? { zone: "UTC" });
  return { days: clock.dayNumber(now) - clock.dayNumber(ms / 60000), on: showDay(clock, ms / 60000) };
}

export async function clientLoader() {
  const now = Math.floor(nowMinutes());
  const day = await readDay(SHOWN);
  const { rows, trips, clashes, opens, laid } = await shownOf(
    day.heads.map((h) => h.id),
    day.stamp,
    now,
  );
  const saved = await readLastSaved();
  // A reminder once there is something to lose: work logged, and no spare copy for a week.
  const last = saved === null ? null : await sayLast(saved, now);
  const remind = rows.some((r) => r.begun) && (last === null || last.days >= 7);
  const thumbs = new Map(day.heads.map((h) => [h.id, h.thumb]));
  return {
    rows: rows.map((r) => ({ ...r, thumb: thumbs.get(r.id) ?? null })),
    trips,
    opens,
    laid,
    clashes,
    more: day.more,
    now,
    remind: remind ? { last } : null,
    first: await first(day.heads.length, saved),
  };
}

/** What a shop that is new still wants; null: it is new no more. */
async function first(open: number, saved: number | null) {
  const base = open > STILL_NEW ? null : await readShop();
  if (!base) return null;
  const jobs = (await readHeads()).length;
  const steps = firstSteps(base, jobs, saved !== null);
  return stillNew(steps, jobs) ? { steps, shop: base.shop } : null;
}

export default function Today({ loaderData }: Route.ComponentProps) {
  const { rows, trips, opens, laid, clashes, more, now, remind, first } = loaderData;
  return (
    <main id="main" data-view="today" className="mx-auto w-full max-w-page px-5 py-5">
      <title>Today · Rich Layer</title>
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h1>Today</h1>
        <Link to="/jobs/new" className={rows.length ? "btn" : "btn btn-main"}>
          New job
        </Link>
      </div>
      {remind && (
        <p className="mb-4 border-y border-line py-2 text-waiting">
          {remind.last === null
            ? "The shop has never been saved as a file from this browser."
            : `The shop was last saved as a file on ${remind.last.on}, ${remind.last.days} days ago.`}{" "}
          A browser can lose what it keeps.{" "}
          <Link className="text alone" to="/workshop/files">
            Save a spare copy
          </Link>
        </p>
      )}
      {!rows.length && (
        <Empty title="Nothing is under way">
          <p>Here stand the jobs of the day: what to do now, what is drying and when its window opens, what is due.</p>
          <p>
            Begin with a job: who it is for, how many, on what. Paints, machine and hours are asked for where they are
            needed.
          </p>
        </Empty>
      )}
      {trips.length > 0 && (
        <section aria-labelledby="trips" className="mb-8">
          <h2 id="trips" className="mb-2">
            At the bench
          </h2>
          <Trips trips={trips} most={SHOWN_TRIPS} opens={opens} bench />
          <p className="tag mt-2">
            {clashes > 0 && (
              <span className="text-wrong">
                {clashes} {clashes === 1 ? "piece" : "pieces"} of work of the next days want the same hands or machine
                at once:
                {laid ? " something changed since the jobs were laid" : " each job is planned by itself"}.{" "}
              </span>
            )}
            <Link className="text" to="/calendar">
              {clashes > 0 ? "Lay all jobs together" : "All trips, on the calendar of the shop"}
            </Link>
            .
          </p>
        </section>
      )}
      {rows.length > 0 && <h2 className="mb-2">Jobs</h2>}
      <ul className="divide-y divide-line border-y border-line empty:hidden">
        {rows.map((r) => (
          <li
            key={r.id}
            className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.3fr)_auto] items-center gap-x-6 gap-y-2 py-4 max-lg:grid-cols-1"
          >
            <div className="flex items-start gap-4">
              <Thumb of={r.thumb} ground={r.looks.ground} fills={r.looks.zones} />
              <div className="min-w-0">
                <h3>
                  <Link to={`/jobs/${r.id}`} className="hover:underline">
                    {r.title}
                  </Link>
                </h3>
                <p className="text-muted">
                  {r.quantity} {r.quantity === 1 ? "piece" : "pieces"}
                  {r.client ? `, for ${r.client}` : ""}
                </p>
                {r.snags > 0 && (
                  <p className="text-wrong">
                    {r.snags} {r.snags === 1 ? "snag" : "snags"} open
                  </p>
                )}
              </div>
            </div>
            <div>
              {r.is === "ready" && (
                <p>
                  <strong>
                    {r.begun ? "Now: " : "First: "}
                    {r.step}
                  </strong>
                  {r.minutes !== null && (
                    <span className="text-muted">
                      ,{" "}
                      <Why quiet inline of={r.whyMinutes}>
                        about {showMinutes(r.minutes)}
                      </Why>
                    </span>
                  )}
                </p>
              )}
              {r.is === "lacking" && <p className="text-waiting">{r.lacks}</p>}
              {r.is === "done" && <p className="text-ready">All steps done; wrap it up.</p>}
              {r.wait && (
                <>
                  <p>
                    Then: <strong>{r.step}</strong>
                  </p>
                  <DryClock
                    state={r.wait.state}
                    words={r.wait.words}
                    from={r.wait.from}
                    opens={r.wait.opens}
                    closes={r.wait.closes}
                    now={now}
                    why={r.wait.why}
                  />
                </>
              )}
              <p className="text-muted">
                {r.ready ? (
                  <Why quiet inline of={r.whyReady}>
                    Ready {r.ready}
                  </Why>
                ) : (
                  "No ready time yet"
                )}
                {r.due && (
                  <>
                    {" "}
                    · due <span data-given>{r.due}</span>
                    {r.slack !== null && (
                      <span className={r.slack < 0 ? "text-wrong" : ""}>
                        {" "}
                        (
                        <Why quiet inline of={r.whySlack}>
                          {r.slack < 0 ? `${showMinutes(-r.slack)} late` : `${showMinutes(r.slack)} to spare`}
                        </Why>
                        )
                      </span>
                    )}
                  </>
                )}
              </p>
            </div>
            <div className="flex gap-2">
              {r.is === "done" ? (
                <Link to={`/jobs/${r.id}/wrap-up`} className="btn">
                  Wrap up
                </Link>
              ) : r.is === "lacking" ? (
                <Link to={`/jobs/${r.id}`} className="btn">
                  Go on planning
                </Link>
              ) : (
                <Link to={`/jobs/${r.id}/bench`} className="btn">
                  Go to the bench
                </Link>
              )}
            </div>
          </li>
        ))}
      </ul>
      {more > 0 && (
        <p className="mt-4 text-muted">
          {more} more open {more === 1 ? "job" : "jobs"}, not begun and due later:{" "}
          <Link className="text" to="/jobs">
            all jobs
          </Link>
          .
        </p>
      )}
      {first && (
        <Suspense fallback={<p className="mt-6 min-h-59 text-muted">First steps…</p>}>
          <FirstSteps steps={first.steps} shop={first.shop} />
        </Suspense>
      )}
    </main>
  );
}

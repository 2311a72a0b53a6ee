import clsx from "clsx";
import { calendarView, outRows } from "../views/calendar";
import type { Opened } from "../views/opened";
import type { Route } from "./+types/job-calendar";
import { Suspense, useMemo } from "react";
import { Await, Link } from "react-router";
import { countBackInTurn, type Latest } from "../core/plan/backward";
import type { Plan } from "../core/plan/plan";
import { waysOutInTurn } from "../core/plan/rescue";
import { showWhen } from "../core/time/zoned";
import { showMinutes } from "../core/units/show";
import { Empty } from "../ui/kit/bits";
import { ActButton } from "../ui/kit/field";
import { formOf } from "../acts/answer";
import { jobAct } from "../acts/job";
import { Why } from "../ui/kit/why";
import { useFace } from "../ui/kit/ways";
import { TakeAway } from "./take-away";
import { opened, openedLatest } from "../views/opened";
import { readJob } from "./job-data";
import { Table, type Column } from "../ui/kit/table";

export const clientAction = async ({ request, params }: Route.ClientActionArgs) =>
  jobAct(params.id, await formOf(request));

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { plan, world, now } = await readJob(params.id);
  const { clock } = plan.context;
  const due = world.job.due ? clock.fromLocal(world.job.due) : null;
  const kept = due !== null && plan.ready !== null && plan.ready <= due;
  const asks = due !== null && !kept && !plan.missing.length;
  return {
    ...calendarView(plan, now),
    // Both are worked out after the page is there: each is many plans.
    back: kept ? inTurn(countBackInTurn(plan)) : null,
    outs: asks ? inTurn(waysOutInTurn(world, due, now)).then((outs) => outRows(world, now, clock, outs)) : null,
  };
}

let newest = 0;
/**
 * A search driven to its end without holding the page up: the first part after it has been painted, each next one when there is time.
 * It stops for good when a newer one has begun or the page has been left: nobody waits for it then.
 */
const inTurn = <T,>(search: Generator<void, T>): Promise<T> =>
  new Promise((done, no) => {
    const mine = ++newest;
    let page: string | null = null;
    const on = (): void => {
      page ??= location.pathname;
      if (mine !== newest || location.pathname !== page || !page.endsWith("/calendar")) return;
      try {
        const r = search.next();
        if (r.done) done(r.value);
        else setTimeout(on, 4);
      } catch (e) {
        no(e as Error);
      }
    };
    setTimeout(on, 300);
  });

interface Out {
  i: number;
  label: string;
  keeps: boolean;
  ready: string | null;
  why: Opened;
}

function WaysOut({ outs }: { outs: Out[] }) {
  return (
    <div className="my-2 border-y border-line py-2">
      <h3>{outs.some((o) => o.keeps) ? "What would keep it" : "Nothing tried keeps it; these come nearest"}</h3>
      <ul>
        {outs.map((o) => (
          <li key={o.label} data-way-out={o.i} className="border-t border-line py-1.5">
            {o.label}
            {o.ready ? (
              <>
                :{" "}
                <Why quiet inline of={o.why}>
                  ready {o.ready}
                </Why>
              </>
            ) : (
              ": still never"
            )}
            .{" "}
            <ActButton className="link-act" act={{ intent: "way-out", label: o.label }}>
              Do so
            </ActButton>
          </li>
        ))}
      </ul>
    </div>
  );
}

interface Line {
  /** number in the batch; null: piece 1 goes through it alone */
  index: number | null;
  id: string;
  title: string;
  start: string | null;
  minutes: string;
  /** minutes of work, to sort by */
  takes: number;
  pauses: number;
  wait: string | null;
}

/** Every step with its times; with the latest beginnings once they are known. */
function InOrder({ plan, list, back }: { plan: Plan; list: Line[]; back: Latest[] | null }) {
  const columns = useMemo((): Column<Line>[] => {
    const clock = plan.context.clock;
    const latest = (s: Line): Latest | undefined => (s.index === null ? undefined : back?.[s.index]);
    const late: Column<Line>[] = [
      {
        id: "latest",
        name: "At the latest",
        cell: (s) => {
          const at = latest(s)?.start ?? null;
          return at === null ? (
            "–"
          ) : (
            <Why quiet of={openedLatest(plan, "latest", s.id, at)}>
              {showWhen(clock, at)}
            </Why>
          );
        },
      },
      {
        id: "slack",
        name: "Slack",
        by: (s) => latest(s)?.slack ?? Infinity,
        cell: (s) => {
          const { start: at = null, slack = null } = latest(s) ?? {};
          return at === null || slack === null ? (
            "–"
          ) : (
            <Why quiet of={openedLatest(plan, "slack", s.id, at)}>
              {showMinutes(slack)}
            </Why>
          );
        },
      },
    ];
    return [
      {
        id: "step",
        name: "Step",
        cell: (s) => (
          <>
            <Link className="hover:underline" to={`../layers?step=${s.id}`} relative="path">
              {s.title}
            </Link>
            {s.index === null && <span className="tag"> first piece alone</span>}
          </>
        ),
      },
      {
        id: "begins",
        name: "Begins",
        cell: (s) =>
          s.start === null ? (
            "no time yet"
          ) : (
            <Why quiet of={opened(plan, { of: "begins", step: s.id })}>
              {s.start}
            </Why>
          ),
      },
      ...(back ? late : []),
      {
        id: "takes",
        name: "Takes",
        by: (s) => s.takes,
        cell: (s) => (
          <>
            <Why of={opened(plan, { of: "minutes", step: s.id })}>{s.minutes}</Why>
            {s.pauses > 0 && <span className="tag"> over {s.pauses + 1} days</span>}
          </>
        ),
      },
      {
        id: "then",
        name: "Then",
        cell: (s) =>
          s.wait && (
            <Why quiet of={opened(plan, { of: "wait", step: s.id })}>
              {s.wait}
            </Why>
          ),
      },
    ];
  }, [plan, back]);
  return (
    <Table
      label="Steps in order"
      rows={list}
      columns={columns}
      rowId={(s) => s.id}
      rowProps={(s) => ({ "data-step": s.id })}
    />
  );
}

/** hours over a day's bar */
const HOURS = { "24": ["0", "6", "12", "18", "24"], "12": ["0", "6 am", "noon", "6 pm", "midnight"] };

export default function Calendar({ loaderData: d }: Route.ComponentProps) {
  const face = useFace();
  return (
    <main id="main" data-view="calendar" className="mx-auto w-full max-w-page px-5 py-5">
      <title>{`${d.title}: calendar · Rich Layer`}</title>
      {!d.days.length ? (
        <Empty title="Nothing to put in a calendar yet">
          {d.missing.map((m) => (
            <p key={m}>{m}</p>
          ))}
          <Link className="text alone" to="../layers" relative="path">
            Go to the layers
          </Link>
        </Empty>
      ) : (
        <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_--spacing(102)]">
          <section aria-labelledby="c1">
            <h2 id="c1" className="mb-2">
              Day by day
            </h2>
            <div
              className="grid grid-cols-[--spacing(25)_1fr] items-center gap-x-3 text-fine text-muted"
              aria-hidden="true"
            >
              <span />
              <span className="flex justify-between">
                {HOURS[face].map((h) => (
                  <span key={h}>{h}</span>
                ))}
              </span>
            </div>
            <ol>
              {d.days.map((day) => (
                <li
                  key={day.day}
                  className="grid grid-cols-[--spacing(25)_1fr] items-center gap-x-3 border-t border-line py-1.5"
                >
                  <span className="font-semibold">{day.label}</span>
                  {day.last > day.day ? (
                    <p className="hatch px-2 py-1">
                      <span className="bg-paper px-1">
                        {day.last - day.day + 1} days of{" "}
                        {day.pieces.every((p) => p.kind === "wait") ? "waiting" : "the same"}:{" "}
                        {day.pieces.map((p, i) => (
                          <span key={p.key}>
                            {i > 0 && "; "}
                            {p.kind === "wait" ? (
                              <Why quiet inline of={opened(d.plan, { of: "wait", step: p.step })}>
                                {p.title}
                              </Why>
                            ) : (
                              p.title
                            )}
                          </span>
                        ))}
                      </span>
                    </p>
                  ) : (
                    <div
                      className="relative h-11 bg-line"
                      role="img"
                      aria-label={`${day.label}: ${day.pieces.map((p) => p.title).join("; ") || "nothing"}`}
                    >
                      {day.open && (
                        <span
                          className="absolute inset-y-0 bg-lifted"
                          style={{ left: `${day.open.from * 100}%`, width: `${(day.open.to - day.open.from) * 100}%` }}
                        />
                      )}
                      {day.pieces.map((p) => (
                        <span
                          key={p.key}
                          title={p.title}
                          className={clsx(
                            "absolute overflow-hidden",
                            p.kind === "wait" ? "hatch bottom-0 h-3.5" : "top-0 h-7 border-r border-paper",
                            p.kind === "laser" && "bg-waiting",
                            p.kind === "work" && "bg-act",
                          )}
                          style={{ left: `${p.from * 100}%`, width: `max(3px, ${(p.to - p.from) * 100}%)` }}
                        />
                      ))}
                      {day.now !== null && (
                        <span className="absolute -inset-y-1 w-0.75 bg-wrong" style={{ left: `${day.now * 100}%` }} />
                      )}
                    </div>
                  )}
                </li>
              ))}
            </ol>
            <p className="tag mt-2">
              Light: open hours. Plum: hands on. Ochre: the laser, with somebody there. Hatched below: drying, through
              the night where it is so. Red: now. A day with a change of the clock is drawn to its own length.
            </p>
          </section>
          <section aria-labelledby="c2">
            <h2 id="c2" className="mb-1">
              What decides the date
            </h2>
            {d.due && (
              <p className={d.due.late ? "text-wrong" : "text-ready"}>
                Due <span data-given>{d.due.text}</span>
                {d.due.late ? (
                  <>
                    :{" "}
                    <Why quiet inline of={d.due.why}>
                      {showMinutes(d.due.late)} late
                    </Why>
                  </>
                ) : (
                  ": in time"
                )}
                .
              </p>
            )}
            {d.stuck && <p className="text-wrong">{d.stuck}</p>}
            {d.outs && (
              <Suspense
                fallback={
                  <p role="status" className="my-2 text-waiting">
                    Trying what would keep the date…
                  </p>
                }
              >
                <Await resolve={d.outs}>{(outs) => <WaysOut outs={outs} />}</Await>
              </Suspense>
            )}
            <ol className="mt-1">
              {d.decides.map((x) => (
                <li key={x.why} className="border-t border-line py-1.5">
                  <Why quiet of={opened(d.plan, x.kind === "work" ? { of: "ready" } : { of: "begins", step: x.step })}>
                    {x.why[0].toUpperCase() + x.why.slice(1)}.
                  </Why>
                </li>
              ))}
            </ol>
            <p className="mt-2">
              <Link className="text" to="/workshop/hours">
                Hours and days off
              </Link>
              ,{" "}
              <Link className="text" to="/workshop/climate">
                climate
              </Link>
            </p>
            <TakeAway plan={d.plan} />
          </section>
          <section aria-labelledby="c3" className="overflow-x-auto lg:col-span-2">
            {d.back ? (
              <Suspense
                fallback={
                  <>
                    <h2 id="c3">In order</h2>
                    <p role="status" className="tag">
                      Counting back from the due date…
                    </p>
                    <InOrder plan={d.plan} list={d.list} back={null} />
                  </>
                }
              >
                <Await resolve={d.back}>
                  {(back) => (
                    <>
                      <h2 id="c3">In order, and counted back from the due date</h2>
                      <p className="tag">
                        At the latest: with everything before it done as planned; begun a minute later, the due date, a
                        window or the hours break.
                      </p>
                      <InOrder plan={d.plan} list={d.list} back={back} />
                    </>
                  )}
                </Await>
              </Suspense>
            ) : (
              <>
                <h2 id="c3">In order</h2>
                <InOrder plan={d.plan} list={d.list} back={null} />
              </>
            )}
          </section>
        </div>
      )}
    </main>
  );
}

import { formOf } from "../acts/answer";
import { jobAct } from "../acts/job";
import { costView, type CostRow } from "../views/cost";
import type { Route } from "./+types/job-cost";
import { lazy, Suspense, useState } from "react";
import { Await, Link } from "react-router";
import { payback } from "../core/models/money/money";
import { parseMoney, showMoney } from "../core/units/money";
import { showMinutes } from "../core/units/show";
import { Head } from "../ui/kit/bits";
import { PickField, TextField } from "../ui/kit/field";
import { Table, type Column } from "../ui/kit/table";
import { askCost } from "../workers/cost";
import type { CostRun } from "../workers/cost-api";
import { readJob } from "./job-data";
import { TakeAway } from "./take-away";

const CostChart = lazy(() => import("../ui/charts/cost-chart"));

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { plan } = await readJob(params.id);
  const view = costView(plan);
  const run = plan.placed.length ? askCost({ world: plan.context.world, priceMinor: view.eachMinor }) : null;
  // shown beside the page once it is there; a failure is told there
  run?.catch(() => {});
  return { ...view, plan, run };
}
export const clientAction = async ({ request, params }: Route.ClientActionArgs) =>
  jobAct(params.id, await formOf(request));

const columns = (was: boolean): Column<CostRow>[] => [
  {
    id: "part",
    name: "Part",
    heads: true,
    cell: (r) => (
      <>
        {r.name}
        <span className="block text-small text-muted">
          {r.how}
          {r.wasHow !== null && r.wasHow !== r.how && `; so far ${r.wasHow}`}
        </span>
        {r.lacks !== null && (
          <span className="block text-small text-waiting">
            Unknown: {r.lacks}.{" "}
            <Link className="text" to={r.to}>
              Say it
            </Link>
          </span>
        )}
      </>
    ),
  },
  { id: "planned", name: "Planned", className: "num", by: (r) => r.plannedMinor ?? -1, cell: (r) => r.planned },
  ...(was ? [{ id: "was", name: "So far", className: "num", cell: (r: CostRow) => r.was } as Column<CostRow>] : []),
];

/** Another way of doing it, and after how many pieces its tool has paid for itself. */
function Tools({ run, currency, language }: { run: CostRun; currency: string; language: string }) {
  const [typed, setTyped] = useState("");
  if (run.tools.length < 2) return null;
  const now = run.tools.find((t) => t.now);
  const tool = typed.trim() ? parseMoney(typed, currency) : null;
  return (
    <section aria-labelledby="c4">
      <h3 id="c4">By another tool</h3>
      <label className="my-1 flex w-64 flex-col gap-0.5 text-small text-muted">
        The tool would cost, {currency}
        <input
          className="field-in text-ink"
          inputMode="decimal"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          aria-invalid={tool?.ok === false || undefined}
        />
      </label>
      {tool?.ok === false && (
        <p role="alert" className="text-small text-wrong">
          {tool.error}
        </p>
      )}
      <ul>
        {run.tools.map((t) => {
          const saves = now?.eachMinor != null && t.eachMinor !== null ? now.eachMinor - t.eachMinor : null;
          const after = tool?.ok && saves !== null ? payback(tool.value, saves) : null;
          return (
            <li key={t.id} data-tool={t.id} className="border-t border-line py-1.5">
              {t.name}
              {t.now && <span className="text-ready"> · as now</span>}:{" "}
              {t.eachMinor === null ? (
                <span className="text-muted">can’t be planned here</span>
              ) : (
                <>
                  {t.atLeast && "at least "}
                  {showMoney(t.eachMinor, currency, language)} a piece
                  {t.hands !== null && `, ${showMinutes(t.hands)} of work`}
                </>
              )}
              {!t.now &&
                saves !== null &&
                (saves > 0
                  ? `; saves ${showMoney(saves, currency, language)} a piece${after === null ? "" : `: paid for after ${after} pieces`}`
                  : "; saves nothing")}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

export default function CostPage({ loaderData: d }: Route.ComponentProps) {
  const { job } = d;
  return (
    <main
      id="main"
      data-view="cost"
      className="mx-auto grid w-full max-w-page gap-10 px-5 py-5 lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]"
    >
      <title>{`${job.title}: cost · Rich Layer`}</title>
      <section aria-labelledby="c1" className="min-w-0">
        <h2 id="c1">What it costs</h2>
        <p className="mb-2" data-cost={d.planned.atLeast ? "at-least" : "known"}>
          {d.planned.known || !d.planned.atLeast ? (
            <>
              <strong>{d.planned.all}</strong> for {d.pieces} begun, <strong>{d.planned.each}</strong> for each of the{" "}
              {job.quantity} ordered.
            </>
          ) : (
            <>
              Nothing here has a price yet. What an hour is worth stands in the{" "}
              <Link className="text" to="/workshop/money">
                Workshop
              </Link>
              , what paint costs on the{" "}
              <Link className="text" to="/shelf">
                Shelf
              </Link>
              .
            </>
          )}
          {d.was && (
            <>
              {" "}
              So far {d.was.all}
              {d.was.good !== null && `, ${d.was.each} for each of ${d.was.good} good`}.
            </>
          )}
        </p>
        <Table
          label="Parts of the cost"
          rows={d.rows}
          columns={columns(d.was !== null)}
          rowId={(r) => r.id}
          rowProps={(r) => ({ "data-part": r.id, "data-minor": r.plannedMinor === null ? "" : String(r.plannedMinor) })}
        />
        {d.lostSum !== null && (
          <section aria-labelledby="c2" className="mt-5">
            <h3 id="c2">Lost pieces: {d.lostSum}</h3>
            <ul>
              {d.lost.map((l) => (
                <li key={l.piece} className="border-t border-line py-1">
                  Piece {l.piece}, put aside at “{l.step}”: {l.text} by then
                </li>
              ))}
            </ul>
          </section>
        )}
      </section>
      <div className="flex min-w-0 flex-col gap-6">
        <section aria-labelledby="c3" className="flex flex-col gap-3">
          <Head>
            <span id="c3">What it is sold at</span>
          </Head>
          <div className="grid grid-cols-2 items-start gap-3">
            <TextField
              name="price.margin"
              label="Stays of the price"
              value={d.margin.value}
              from={d.margin.from}
              inputMode="decimal"
            />
            <TextField
              name="price.eachMinor"
              label={`A piece, ${d.currency}`}
              value={d.price.value}
              from={d.price.from}
              inputMode="decimal"
            />
          </div>
          {d.lots.length > 0 && (
            <PickField
              name="blankLot"
              label="Blanks from"
              value={job.blankLot ?? ""}
              options={[{ value: "", label: "the newest lot that fits" }, ...d.lots]}
            />
          )}
          {d.eachText !== null && (
            <p data-price={d.eachMinor ?? ""}>
              {d.eachText} a piece, {d.allText} for {job.quantity}.{" "}
              {d.stays !== null &&
                (d.stays.share < 0 ? (
                  <span className="text-wrong">It costs {d.stays.text} more than it brings in.</span>
                ) : (
                  <>
                    {d.planned.atLeast ? "At most " : ""}
                    {d.stays.text} of it stays.
                  </>
                ))}
            </p>
          )}
        </section>
        <section aria-labelledby="c5">
          <h2 id="c5">By how many are made</h2>
          {d.run === null ? (
            <p className="text-muted">There are no steps yet to reckon with.</p>
          ) : (
            <Suspense
              key={`${job.id} ${d.eachMinor ?? ""}`}
              fallback={
                <p role="status" className="text-muted">
                  Planning it for one, two, three … a hundred pieces…
                </p>
              }
            >
              <Await
                resolve={d.run}
                errorElement={
                  <p role="alert" className="text-wrong">
                    The numbers could not be planned. Reload the page to try again.
                  </p>
                }
              >
                {(run) => (
                  <>
                    {d.eachMinor !== null && (
                      <p data-pays={run.pays ?? ""}>
                        {run.pays === null
                          ? "At this price it never pays, however many are made."
                          : run.pays === 1
                            ? "The price pays from the first piece."
                            : `The price pays from ${run.pays} pieces on.`}
                      </p>
                    )}
                    <CostChart
                      points={run.points}
                      priceMinor={d.eachMinor}
                      currency={d.currency}
                      language={d.language}
                    />
                    <Table
                      label="A piece by how many are made"
                      rows={run.points}
                      rowId={(p) => String(p.n)}
                      columns={[
                        { id: "n", name: "Made", heads: true, className: "num", cell: (p) => p.n },
                        { id: "begun", name: "Begun", className: "num", cell: (p) => p.begun },
                        {
                          id: "each",
                          name: "A piece",
                          className: "num",
                          cell: (p) => `${p.atLeast ? "≥ " : ""}${showMoney(p.eachMinor, d.currency, d.language)}`,
                        },
                        {
                          id: "all",
                          name: "In all",
                          className: "num",
                          cell: (p) => `${p.atLeast ? "≥ " : ""}${showMoney(p.totalMinor, d.currency, d.language)}`,
                        },
                      ]}
                    />
                    <Tools run={run} currency={d.currency} language={d.language} />
                  </>
                )}
              </Await>
            </Suspense>
          )}
        </section>
        <TakeAway plan={d.plan} only={["quote", "note"]} title="Papers for who ordered it" />
      </div>
    </main>
  );
}

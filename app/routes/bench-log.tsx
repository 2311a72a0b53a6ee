import { learnedAct } from "../acts/shop";
import type { Route } from "./+types/bench-log";
import { useState } from "react";
import { useSearchParams, Link } from "react-router";
import { factor, spreadOf } from "../core/models/learn/factor";
import { isKind, kindOf } from "../core/process/kinds";
import { showWhen, shopClock } from "../core/time/zoned";
import { showMinutes, showMl, showTemp } from "../core/units/show";
import { readDone, readHeads, readJobs, readLogPage, readShop, readTakenBack } from "../store/queries";
import { ActButton } from "../ui/kit/field";
import { flawCounts } from "../core/explain/flaws";
import { FlawDiary } from "../ui/flaws";
import { firstTold } from "../views/lessons";
import { Lessons } from "../ui/lessons";
import { Empty } from "../ui/kit/bits";
import { formOf } from "../acts/answer";
import { LabelledPick } from "../ui/kit/pick";
import { Table, type Column } from "../ui/kit/table";

const WORD: Record<string, string> = {
  start: "begun",
  piece: "piece done",
  aside: "piece put aside",
  done: "step done",
  check: "looked",
  touch: "passed by touch",
  early: "begun early",
  note: "note",
  plate: "setting",
  back: "taken back",
};

/** Finished steps by what was done; work of the beam by the machine that did it too. */
function byMachine<E extends { stepKind: string }>(
  list: readonly E[],
  machineOf: (e: E) => string | null,
): { kind: string; machine: string | null; done: E[] }[] {
  const out = new Map<string, { kind: string; machine: string | null; done: E[] }>();
  for (const e of list) {
    const beam = isKind(e.stepKind) && kindOf(e.stepKind).beam !== undefined;
    const machine = beam ? machineOf(e) : null;
    const key = `${e.stepKind}|${machine}`;
    (out.get(key) ?? out.set(key, { kind: e.stepKind, machine, done: [] }).get(key)!).done.push(e);
  }
  return [...out.values()];
}
const words = new Intl.Collator();
const byTitle = (a: { title: string }, b: { title: string }): number => words.compare(a.title, b.title);
/** newest finished steps that times are learned from */
const LEARN_FROM = 400;

export async function clientLoader({ request }: Route.ClientLoaderArgs) {
  const q = new URL(request.url).searchParams;
  const job = q.get("job") ?? "";
  const piece = /^\d+$/.test(q.get("piece") ?? "") ? Number(q.get("piece")) : null;
  const page = Math.max(1, Number(q.get("page") ?? 1) || 1);
  const all = readHeads();
  const [log, heads, base, learn] = await Promise.all([
    readLogPage(job, piece, page, PAGE, all),
    all,
    readShop(),
    readDone(LEARN_FROM),
  ]);
  const gone = await readTakenBack(log.entries);
  const machineOf = new Map(heads.map((j) => [j.id, j.machineId]));
  const kinds = byMachine(learn, (e) => machineOf.get(e.jobId) ?? null).flatMap(({ kind, machine, done }) => {
    // of a machine that is no longer there nothing is to be learned
    const of = machine === null ? null : base?.machines.find((m) => m.id === machine);
    if (!isKind(kind) || of === undefined) return [];
    const name = of ? `${kindOf(kind).name}, ${of.name}` : kindOf(kind).name;
    const kept = base?.shop.learned.find((l) => l.kind === kind && (l.machineId ?? null) === machine) ?? null;
    return [{ kind, machine: machine ?? "", name, ...factor(done), spread: spreadOf(done), kept }];
  });
  const clock = shopClock(base?.shop ?? { zone: "UTC" });
  const units = base?.shop.units ?? "metric";
  const paints = new Map(base?.products.map((p) => [p.id, p.name]));
  const names = new Map(heads.map((j) => [j.id, j.title]));
  return {
    entries: log.entries.map((e) => ({
      ...e,
      air:
        e.c === null
          ? "unknown"
          : `${showTemp(Math.round(e.c * 10) / 10, units)}, ${e.rh === null ? "?" : Math.round(e.rh * 100)} %`,
      stepName: stepName(e, paints),
      when: showWhen(clock, Math.floor(e.at)),
      job: names.get(e.jobId) ?? e.jobId,
      live: !gone.has(e.id),
    })),
    total: log.total,
    page,
    job,
    piece: q.get("piece") ?? "",
    jobs: heads
      .filter((h) => h.entries > 0)
      .map((j) => ({ id: j.id, title: j.title }))
      .sort(byTitle),
    kinds,
    lessons: base?.shop.lessons ?? [],
    flaws: flawCounts(await readJobs(), firstTold(base?.shop.lessons ?? [])),
  };
}

export const clientAction = async ({ request }: Route.ClientActionArgs) => learnedAct(await formOf(request));

const PAGE = 100;

/** A step as makers call it: what is done, and with which paint; of entries that do not say, what their id tells. */
function stepName(
  e: { step: string; stepKind: string; productId: string | null },
  paints: Map<string, string>,
): string {
  const [first, ...rest] = e.step.split(".");
  const kind = isKind(e.stepKind) ? e.stepKind : isKind(first) ? first : null;
  const what = kind ? kindOf(kind).name : e.step.replace(/[.-]/g, " ");
  const paint = e.productId ?? rest.find((x) => paints.has(x));
  return paint && paints.has(paint) ? `${what}, ${paints.get(paint)}` : what;
}

type Row = Route.ComponentProps["loaderData"]["entries"][number];
const COLUMNS: Column<Row>[] = [
  { id: "when", name: "When", heads: true, className: "whitespace-nowrap", by: (e) => e.at, cell: (e) => e.when },
  {
    id: "job",
    name: "Job",
    by: (e) => e.job,
    cell: (e) => (
      <Link to={`/jobs/${e.jobId}`} className="hover:underline">
        {e.job}
      </Link>
    ),
  },
  { id: "step", name: "Step", by: (e) => e.stepName, cell: (e) => e.stepName },
  {
    id: "what",
    name: "What",
    by: (e) => WORD[e.kind],
    cell: (e) => (
      <>
        {WORD[e.kind]}
        {e.piece !== null && ` ${e.piece}`}
        {e.answer && `: ${e.answer}`}
        {e.actual !== null && ` after ${showMinutes(e.actual)}`}
        {e.ml !== null && `, ${showMl(e.ml)}`}
        {e.note && `: ${e.note}`}
      </>
    ),
  },
  { id: "air", name: "Air", from: "md", className: "whitespace-nowrap", cell: (e) => e.air },
];
/** of a log that runs over several pages: one page sorted would pass for all of it */
const IN_TURN = COLUMNS.map((c) => ({ ...c, by: undefined }));

export default function BenchLog({ loaderData: d }: Route.ComponentProps) {
  const [, setSearch] = useSearchParams();
  const { job, piece, page } = d;
  // A large shop has a thousand jobs to choose from: the list is filled when it is gone to.
  const [choosing, choose] = useState(false);
  const jobs = choosing ? d.jobs : d.jobs.filter((j) => j.id === job);
  const set = (k: string, v: string): void =>
    setSearch((s) => (v ? s.set(k, v) : s.delete(k), k !== "page" && s.delete("page"), s), { replace: true });
  return (
    <main
      id="main"
      data-view="bench-log"
      className="mx-auto grid w-full max-w-page gap-10 px-5 py-5 lg:grid-cols-[minmax(0,1.7fr)_minmax(0,1fr)]"
    >
      <title>Bench log · Rich Layer</title>
      <section aria-labelledby="l1" className="min-w-0">
        <div className="mb-3 flex flex-wrap items-baseline gap-x-6">
          <h1 id="l1">Bench log</h1>
          <Link className="text" to="/settings">
            Settings book
          </Link>
          <Link className="text" to="/find">
            Find in all jobs
          </Link>
        </div>
        {!d.total && !job && !piece ? (
          <Empty title="Nothing logged yet">
            <p>
              Every tap at the bench stands here with its time and the shop’s air: what each piece went through, and how
              long things really took.
            </p>
          </Empty>
        ) : (
          <>
            <div className="mb-3 flex flex-wrap gap-3">
              <LabelledPick
                label="Job"
                value={job}
                onOpen={() => choose(true)}
                onChange={(v) => set("job", v)}
                options={[{ value: "", label: "all" }, ...jobs.map((j) => ({ value: j.id, label: j.title }))]}
                className="min-w-[14rem]"
              />
              <label className="flex flex-col text-muted">
                Piece
                <input
                  className="field-in w-24 text-ink"
                  inputMode="numeric"
                  value={piece}
                  onChange={(e) => set("piece", e.target.value.replace(/\D/g, ""))}
                />
              </label>
            </div>
            <Table
              label="Entries"
              rows={d.entries}
              columns={d.total > PAGE ? IN_TURN : COLUMNS}
              rowId={(e) => e.id}
              rowProps={(e) => ({ className: e.live ? undefined : "text-muted line-through" })}
            />
            {d.total > PAGE && (
              <p className="mt-3 flex items-center gap-3">
                <button className="btn" disabled={page <= 1} onClick={() => set("page", String(page - 1))}>
                  Newer
                </button>
                {(page - 1) * PAGE + 1} to {Math.min(d.total, page * PAGE)} of {d.total}
                <button className="btn" disabled={page * PAGE >= d.total} onClick={() => set("page", String(page + 1))}>
                  Older
                </button>
              </p>
            )}
          </>
        )}
      </section>
      <section aria-labelledby="l2">
        <h2 id="l2" className="mb-1">
          How long things take here
        </h2>
        <p className="text-muted">
          From finished steps: how much longer or shorter than the model says. Kept ones change every plan.
        </p>
        {!d.kinds.length && <p className="mt-2">Nothing to learn from yet.</p>}
        <ul className="mt-2">
          {d.kinds.map((k) => (
            <li
              key={k.kind + k.machine}
              className="flex flex-wrap items-center justify-between gap-2 border-t border-line py-2"
            >
              <span>
                <strong>{k.name}</strong>
                <span className="block text-muted">
                  × {k.factor.toFixed(2)} from {k.n} {k.n === 1 ? "run" : "runs"}
                  {k.spread !== null && `, give or take ${Math.round(k.spread * 100)} %`}
                  {k.kept && `; kept: × ${k.kept.factor.toFixed(2)}`}
                </span>
              </span>
              <span className="flex gap-3">
                {(!k.kept || Math.abs(k.kept.factor - k.factor) > 0.005) && (
                  <ActButton
                    act={{
                      intent: "keep",
                      kind: k.kind,
                      machine: k.machine,
                      factor: k.factor.toFixed(3),
                      n: String(k.n),
                    }}
                    label={`Keep it for ${k.name}`}
                  >
                    Keep it
                  </ActButton>
                )}
                {k.kept && (
                  <ActButton act={{ intent: "reset", kind: k.kind, machine: k.machine }} label={`Reset ${k.name}`}>
                    Reset
                  </ActButton>
                )}
              </span>
            </li>
          ))}
        </ul>
        <FlawDiary flaws={d.flaws} />
        <div className="mt-6">
          <Lessons lessons={d.lessons} />
        </div>
      </section>
    </main>
  );
}

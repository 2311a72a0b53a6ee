/** What a page of the field guide speaks of, planned on a job of one's own beside the way it goes now. */
import { Link, useSearchParams } from "react-router";
import type { Opened } from "../views/opened";
import type { Tried } from "../views/try";
import { ActButton } from "./kit/field";
import { LabelledPick, type Option } from "./kit/pick";
import { Table, type Column } from "./kit/table";
import { Why } from "./kit/why";

/** A figure of a plan that can be opened; words where it is not known, or where there can be no plan. */
const figure = (t: Tried, value: string | null, of: Opened, unknown: string, never: string) =>
  t.no.length ? (
    never
  ) : value === null ? (
    unknown
  ) : (
    <Why quiet of={of}>
      {value}
    </Why>
  );
const lines = (list: readonly string[], className: string) =>
  list.map((w) => (
    <span key={w} className={`block ${className}`}>
      {w}
    </span>
  ));
const ruin = (n: number): string[] => (n ? [`${n} ${n === 1 ? "snag" : "snags"} that would ruin the piece`] : []);

const told = (t: Tried) => (
  <>
    {lines(t.no, "text-wrong")}
    {lines(t.lacks, "text-waiting")}
    {lines(ruin(t.stops), "text-wrong")}
  </>
);

const columnsFor = (job: string): Column<Tried>[] => [
  {
    id: "name",
    name: "Done so",
    heads: true,
    cell: (t) => (
      <>
        {t.name}
        {t.is && <span className="tag ml-2">as it is now</span>}
        <span className="block text-small sm:hidden">{told(t)}</span>
      </>
    ),
  },
  { id: "steps", name: "Steps", className: "num", cell: (t) => (t.no.length ? "–" : t.steps) },
  { id: "hands", name: "Work", className: "num", cell: (t) => figure(t, t.hands, t.whyHands, "not known", "–") },
  { id: "ready", name: "Ready", cell: (t) => figure(t, t.ready, t.whyReady, "no time yet", "does not go") },
  {
    id: "told",
    name: "Told",
    from: "sm",
    cell: told,
  },
  {
    id: "take",
    name: "Take it",
    quiet: true,
    cell: (t) =>
      t.is || t.no.length > 0 ? null : (
        <ActButton act={t.act} action={`/jobs/${job}/route`} label={`Take it for this job: ${t.name}`}>
          Take it
        </ActButton>
      ),
  },
];

/** @param jobs open ones @param job the one that it is tried on; null: none is chosen */
export function TryIt({ jobs, job, rows }: { jobs: Option[]; job: string | null; rows: Tried[] }) {
  const [, setSearch] = useSearchParams();
  return (
    <section aria-labelledby="try" className="mt-6 max-w-4xl border-t border-line pt-4">
      <h2 id="try">Try it on a job of yours</h2>
      <p className="mb-2 text-muted">Each is planned to its end; nothing changes until you take one.</p>
      <LabelledPick
        label="Job"
        className="max-w-xs"
        value={job ?? ""}
        options={[{ value: "", label: "none chosen" }, ...jobs]}
        onChange={(id) => setSearch(id ? { job: id } : {}, { preventScrollReset: true })}
      />
      {job !== null && (
        <div className="mt-3">
          <Table label="Tried on the job" rows={rows} columns={columnsFor(job)} rowId={(t) => t.name} />
          <p className="mt-2">
            <Link className="text alone" to={`/jobs/${job}/route`}>
              The Route page of this job
            </Link>
          </p>
        </div>
      )}
    </section>
  );
}

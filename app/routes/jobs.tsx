import type { Route } from "./+types/jobs";
import { useState } from "react";
import { Link } from "react-router";
import { ROUTES } from "../core/catalogue/routes";
import { substrateNamed } from "../core/catalogue/substrates";
import { looksOf } from "../views/jobs";
import { Thumb } from "../ui/thumb";
import { When } from "../ui/kit/when";
import { readHeads, readShop } from "../store/queries";
import { Empty } from "../ui/kit/bits";
import { Table, type Column } from "../ui/kit/table";

export async function clientLoader() {
  const [jobs, base] = await Promise.all([readHeads(), readShop()]);
  const colours = new Map(base?.products.map((p) => [p.id, p.colour]));
  jobs.sort((a, b) => b.open - a.open || (a.due ?? "9").localeCompare(b.due ?? "9") || a.title.localeCompare(b.title));
  return {
    jobs: jobs.map((j) => ({
      ...j,
      looks: looksOf(j, colours),
      on: substrateNamed(j.substrateId).name,
      way: ROUTES.find((r) => r.id === j.route)?.name ?? "not chosen",
      state: j.closedAt
        ? `Wrapped up${j.good !== null ? `, ${j.good} good` : ""}`
        : j.entries > 0
          ? "Under way"
          : "Open",
    })),
  };
}

type Row = Route.ComponentProps["loaderData"]["jobs"][number];
/** after every date that is given */
const NO_DATE = "9";
const COLUMNS: Column<Row>[] = [
  {
    id: "title",
    name: "Job",
    heads: true,
    by: (j) => j.title,
    find: (j) => j.title,
    cell: (j) => (
      <span className="flex items-center gap-3">
        <Thumb of={j.thumb} ground={j.looks.ground} fills={j.looks.zones} />
        <Link className="text alone" to={`/jobs/${j.id}`}>
          {j.title}
        </Link>
      </span>
    ),
  },
  { id: "client", name: "For", from: "md", by: (j) => j.client, find: (j) => j.client, cell: (j) => j.client || "–" },
  { id: "pieces", name: "Pieces", className: "num", from: "sm", by: (j) => j.quantity, cell: (j) => j.quantity },
  { id: "on", name: "On", from: "sm", by: (j) => j.on, find: (j) => j.on, cell: (j) => j.on },
  {
    id: "way",
    name: "Way",
    from: "lg",
    by: (j) => j.way,
    find: (j) => `${j.way} ${j.route ?? ""}`,
    cell: (j) => j.way,
  },
  {
    id: "due",
    name: "Due",
    by: (j) => j.due ?? NO_DATE,
    cell: (j) => (j.due ? <When at={j.due} /> : "no date"),
  },
  { id: "state", name: "State", by: (j) => j.state, find: (j) => j.state, cell: (j) => j.state },
];

export default function Jobs({ loaderData: { jobs } }: Route.ComponentProps) {
  const [text, setText] = useState("");
  return (
    <main id="main" data-view="jobs" className="mx-auto w-full max-w-page px-5 py-5">
      <title>Jobs · Rich Layer</title>
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h1>Jobs</h1>
        {jobs.length > 12 && (
          <label className="flex items-center gap-2 text-muted max-sm:order-last max-sm:w-full">
            Find
            <input
              className="field-in w-64 text-ink"
              type="search"
              value={text}
              onChange={(e) => setText(e.target.value)}
              placeholder="name, client, material"
            />
          </label>
        )}
        <Link to="/jobs/new" className="btn btn-main">
          New job
        </Link>
      </div>
      {!jobs.length ? (
        <Empty title="No jobs yet">
          <p>A job holds the brief, the artwork, the plan with its layers, the bench run and what came of it.</p>
        </Empty>
      ) : (
        <Table
          label="Jobs"
          rows={jobs}
          columns={COLUMNS}
          rowId={(j) => j.id}
          find={text.trim()}
          none="No job of that name."
        />
      )}
    </main>
  );
}

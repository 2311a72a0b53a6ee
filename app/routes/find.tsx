import type { Route } from "./+types/find";
import { useMemo, useState } from "react";
import { Link, redirect, useNavigate } from "react-router";
import { FLAW_KINDS } from "../core/catalogue/flaws";
import { readJobs, readShop } from "../store/queries";
import { writeTable } from "../io/csv";
import { foundJobs, type FoundJob } from "../views/find";
import { saveFile } from "../ui/files";
import { Empty } from "../ui/kit/bits";
import { LabelledPick, Tick } from "../ui/kit/pick";
import { Table, type Column } from "../ui/kit/table";

export async function clientLoader() {
  const [base, jobs] = await Promise.all([readShop(), readJobs()]);
  if (!base) throw redirect("/");
  return { rows: foundJobs(jobs, base) };
}

const anything = { value: "", label: "any" };
const optionsOf = (rows: readonly FoundJob[], of: (r: FoundJob) => string) => [
  anything,
  ...[...new Set(rows.map(of))]
    .filter(Boolean)
    .sort()
    .map((v) => ({ value: v, label: v })),
];
const OUTCOMES = [anything, ...["open", "good", "some lost", "not said"].map((v) => ({ value: v, label: v }))];

export default function Find({ loaderData: d }: Route.ComponentProps) {
  const go = useNavigate();
  const [text, setText] = useState("");
  const [by, setBy] = useState({ substrate: "", beam: "", paint: "", flaw: "", outcome: "" });
  const [two, setTwo] = useState<string[]>([]);
  const put = (k: keyof typeof by) => (v: string) => setBy({ ...by, [k]: v });
  const rows = useMemo(
    () =>
      d.rows.filter(
        (r) =>
          (!by.substrate || r.substrate === by.substrate) &&
          (!by.beam || r.beam === by.beam) &&
          (!by.paint || r.paints.split(", ").includes(by.paint)) &&
          (!by.flaw || r.flawIds.includes(by.flaw)) &&
          (!by.outcome || r.outcome === by.outcome),
      ),
    [d.rows, by],
  );
  const columns = useMemo(
    (): Column<FoundJob>[] => [
      {
        id: "title",
        name: "Job",
        heads: true,
        by: (r) => r.title,
        find: (r) => `${r.words} ${r.substrate} ${r.way} ${r.machine} ${r.beam} ${r.paints} ${r.flaws}`,
        cell: (r) => (
          <Link className="text" to={`/jobs/${r.id}`}>
            {r.title}
          </Link>
        ),
      },
      { id: "body", name: "Material", from: "sm", by: (r) => r.substrate, cell: (r) => r.substrate },
      { id: "way", name: "Way", from: "lg", by: (r) => r.way, cell: (r) => r.way },
      { id: "machine", name: "Machine", from: "md", by: (r) => r.machine, cell: (r) => r.machine },
      { id: "paints", name: "Paints", from: "lg", by: (r) => r.paints, cell: (r) => r.paints, className: "text-small" },
      { id: "flaws", name: "Flaws", from: "sm", by: (r) => r.flawIds.length, cell: (r) => r.flaws || "–" },
      {
        id: "came",
        name: "Came of it",
        by: (r) => r.good ?? -1,
        cell: (r) =>
          r.outcome === "open"
            ? "open"
            : r.good === null
              ? "not said"
              : `${r.good} good${r.lost ? `, ${r.lost} lost` : ""}`,
      },
      {
        id: "two",
        name: "Compare",
        quiet: true,
        cell: (r) => (
          <Tick
            label={`Compare ${r.title}`}
            checked={two.includes(r.id)}
            disabled={!two.includes(r.id) && two.length >= 2}
            onChange={(on) => setTwo(on ? [...two, r.id] : two.filter((x) => x !== r.id))}
          />
        ),
      },
    ],
    [two],
  );
  const paints = [
    anything,
    ...[...new Set(d.rows.flatMap((r) => r.paints.split(", ")))]
      .filter(Boolean)
      .sort()
      .map((v) => ({ value: v, label: v })),
  ];
  return (
    <main id="main" data-view="find" className="mx-auto w-full max-w-page px-5 py-5">
      <title>Find · Rich Layer</title>
      <h1>Find in all jobs</h1>
      {!d.rows.length ? (
        <Empty title="There is no job yet">
          <Link className="text" to="/jobs/new">
            Begin one
          </Link>
        </Empty>
      ) : (
        <>
          <div className="my-3 flex flex-wrap items-end gap-3">
            <label className="flex flex-col gap-0.5 text-small text-muted">
              Words
              <input
                className="field-in !w-60 text-ink"
                type="search"
                value={text}
                onChange={(e) => setText(e.target.value)}
              />
            </label>
            <LabelledPick
              label="Material"
              value={by.substrate}
              options={optionsOf(d.rows, (r) => r.substrate)}
              onChange={put("substrate")}
              className="w-44"
            />
            <LabelledPick
              label="Beam"
              value={by.beam}
              options={optionsOf(d.rows, (r) => r.beam)}
              onChange={put("beam")}
              className="w-44"
            />
            <LabelledPick label="Paint" value={by.paint} options={paints} onChange={put("paint")} className="w-44" />
            <LabelledPick
              label="Flaw"
              value={by.flaw}
              options={[anything, ...FLAW_KINDS.map((f) => ({ value: f.id, label: f.name }))]}
              onChange={put("flaw")}
              className="w-44"
            />
            <LabelledPick
              label="Outcome"
              value={by.outcome}
              options={OUTCOMES}
              onChange={put("outcome")}
              className="w-36"
            />
          </div>
          <div className="mb-2 flex flex-wrap gap-3">
            <button
              type="button"
              className="btn"
              disabled={two.length !== 2}
              onClick={() => void go(`/compare?a=${two[0]}&b=${two[1]}`)}
            >
              Compare the two
            </button>
            <button
              type="button"
              className="btn"
              onClick={() =>
                saveFile(
                  "jobs.csv",
                  writeTable(
                    ["job", "for", "material", "way", "machine", "paints", "flaws", "good", "lost", "score", "closed"],
                    rows.map((r) => [
                      r.title,
                      r.client,
                      r.substrate,
                      r.way,
                      r.machine,
                      r.paints,
                      r.flaws,
                      r.good,
                      r.lost,
                      r.score,
                      r.closed,
                    ]),
                  ),
                  "text/csv",
                )
              }
            >
              Save as CSV
            </button>
          </div>
          <Table
            label="Jobs found"
            rows={rows}
            columns={columns}
            rowId={(r) => r.id}
            rowProps={(r) => ({ "data-found": r.id })}
            find={text.trim()}
            none="No job of that kind."
          />
        </>
      )}
    </main>
  );
}

import type { Route } from "./+types/settings";
import { useMemo, useState } from "react";
import { Link, redirect } from "react-router";
import { bookOf, carriesOver, onMachine, reliable, type BookRow } from "../core/explain/book";
import { said } from "../core/units/said";
import { readJobs, readShop } from "../store/queries";
import { writeTable } from "../io/csv";
import { saveFile } from "../ui/files";
import { Empty } from "../ui/kit/bits";
import { LabelledPick } from "../ui/kit/pick";
import { Table, type Column } from "../ui/kit/table";

export async function clientLoader() {
  const [base, jobs] = await Promise.all([readShop(), readJobs()]);
  if (!base) throw redirect("/");
  return { rows: bookOf(jobs, base.machines, base.products), machines: base.machines, units: base.shop.units };
}

const r1 = (v: number): number => Math.round(v * 10) / 10;
const sure = (r: BookRow): string => {
  if (!r.tried || r.good === null) return "not said";
  const x = reliable(r.good, r.tried)!;
  return `${r.good} of ${r.tried} good; at least ${Math.round(100 * x.low)} % likely`;
};

const columnsFor = (units: "metric" | "inch", carried: (r: BookRow) => React.ReactNode): Column<BookRow>[] => [
  {
    id: "work",
    name: "What it did",
    heads: true,
    by: (r) => r.work,
    find: (r) => `${r.work} ${r.job} ${r.from}`,
    cell: (r) => (
      <>
        {r.work}
        <Link className="text block text-small" to={`/jobs/${r.jobId}`}>
          {r.job}
        </Link>
      </>
    ),
  },
  {
    id: "body",
    name: "On",
    by: (r) => r.substrate,
    find: (r) => `${r.substrate} ${r.stack}`,
    cell: (r) => (
      <>
        {r.substrate}
        {r.stack && <span className="block text-small text-muted">{r.stack}</span>}
      </>
    ),
  },
  {
    id: "machine",
    name: "Machine",
    from: "sm",
    by: (r) => r.machine,
    find: (r) => `${r.machine} ${r.beam}`,
    cell: (r) => r.machine,
  },
  {
    id: "set",
    name: "Setting",
    by: (r) => r.e ?? -1,
    cell: (r) => (
      <>
        {said(`${r1(100 * r.set.power)} %, ${r1(r.set.speed)} mm/s, ${r.set.interval} mm, ${r.set.passes} ×`, units)}
        <span className="block text-small text-muted">
          {r.e === null ? "along lines" : `${r.e.toFixed(2)} J/mm²`}, {r.from}
        </span>
        {carried(r)}
      </>
    ),
  },
  {
    id: "good",
    name: "Came of it",
    from: "md",
    by: (r) => (r.tried && r.good !== null ? reliable(r.good, r.tried)!.low : -1),
    cell: sure,
  },
  { id: "on", name: "When", from: "md", by: (r) => r.on ?? "", cell: (r) => r.on ?? "running" },
];

export default function Settings({ loaderData: d }: Route.ComponentProps) {
  const [text, setText] = useState("");
  const [to, setTo] = useState("");
  const target = d.machines.find((m) => m.id === to) ?? null;
  const columns = useMemo(() => {
    const carried = (r: BookRow): React.ReactNode => {
      const from = d.machines.find((m) => m.id === r.machineId);
      if (!target || !from || from.id === target.id || r.e === null) return null;
      const no = carriesOver(from, target);
      const made = no ? null : onMachine(r.set, from, target);
      return (
        <span
          data-carried={made ? r1(100 * made.power) : ""}
          className="block border-l-3 border-waiting pl-2 text-small"
        >
          {made
            ? `On ${target.name}: ` +
              `${said(`${r1(100 * made.power)} %, ${r1(made.speed)} mm/s, ${made.interval} mm, ${made.passes} ×`, d.units)}. ` +
              `${made.notes.join("; ")}.`
            : (no ?? `On ${target.name}: its watts there are not known.`)}
        </span>
      );
    };
    return columnsFor(d.units, carried);
  }, [d.units, d.machines, target]);
  return (
    <main id="main" data-view="settings" className="mx-auto w-full max-w-page px-5 py-5">
      <title>Settings book · Rich Layer</title>
      <h1>Settings book</h1>
      <p className="text-muted">
        Every setting that a job was burnt with, and what came of it. It holds for that stack, machine, lens and can: on
        anything else it is where a test begins.
      </p>
      {!d.rows.length ? (
        <Empty title="No setting has been used yet">
          <p>Settings come here from the bench: when a step of the beam is begun, and when a test plate is read.</p>
        </Empty>
      ) : (
        <>
          <div className="my-3 flex flex-wrap items-end gap-3">
            <label className="flex flex-col gap-0.5 text-small text-muted">
              Find
              <input
                className="field-in !w-72 text-ink"
                type="search"
                value={text}
                onChange={(e) => setText(e.target.value)}
                placeholder="material, paint, machine, beam, job"
              />
            </label>
            {d.machines.length > 1 && (
              <LabelledPick
                label="Carry over to"
                value={to}
                onChange={setTo}
                options={[
                  { value: "", label: "no other machine" },
                  ...d.machines.map((m) => ({ value: m.id, label: m.name })),
                ]}
                className="w-60"
              />
            )}
            <button
              type="button"
              className="btn"
              onClick={() =>
                saveFile(
                  "settings.csv",
                  writeTable(
                    [
                      "job",
                      "on",
                      "work",
                      "material",
                      "stack",
                      "machine",
                      "beam",
                      "power (%)",
                      "speed (mm/s)",
                      "interval (mm)",
                      "passes",
                      "energy (J/mm²)",
                      "from",
                      "good",
                      "tried",
                    ],
                    d.rows.map((r) => [
                      r.job,
                      r.on,
                      r.work,
                      r.substrate,
                      r.stack,
                      r.machine,
                      r.beam,
                      r1(100 * r.set.power),
                      r1(r.set.speed),
                      r.set.interval,
                      r.set.passes,
                      r.e === null ? null : Math.round(r.e * 1000) / 1000,
                      r.from,
                      r.good,
                      r.tried,
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
            label="Settings"
            rows={d.rows}
            columns={columns}
            rowId={(r) => r.id}
            rowProps={(r) => ({ "data-setting": r.id })}
            find={text.trim()}
            none="No setting of that kind was used here."
          />
        </>
      )}
    </main>
  );
}

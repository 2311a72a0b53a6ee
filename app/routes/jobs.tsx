import type { Route } from "./+types/jobs";
import { useState } from "react";
import { Link } from "react-router";
import { readHeads } from "../store/queries";
import { substrateNamed } from "../core/catalogue/substrates";
import { Empty } from "../ui/kit/bits";

export async function clientLoader() {
  const jobs = await readHeads();
  jobs.sort((a, b) => b.open - a.open || (a.due ?? "9").localeCompare(b.due ?? "9") || a.title.localeCompare(b.title));
  return { jobs: jobs.map((j) => ({ ...j, on: substrateNamed(j.substrateId).name })) };
}

/** rows put on the page at once */
const PAGE = 100;

export default function Jobs({ loaderData: { jobs } }: Route.ComponentProps) {
  const [text, setText] = useState("");
  const [most, setMost] = useState(PAGE);
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = jobs.filter((j) =>
    words.every((w) => `${j.title} ${j.client} ${j.on} ${j.route ?? ""}`.toLowerCase().includes(w)),
  );
  return (
    <main id="main" data-view="jobs" className="mx-auto w-full max-w-6xl px-5 py-5">
      <title>Jobs · Rich Layer</title>
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h1>Jobs</h1>
        {jobs.length > 12 && (
          <label className="flex items-center gap-2 text-muted">
            Find
            <input
              className="field-in w-64 text-ink"
              type="search"
              value={text}
              onChange={(e) => (setText(e.target.value), setMost(PAGE))}
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
        <div className="overflow-x-auto">
          <table>
            <thead>
              <tr>
                <th>Job</th>
                <th>For</th>
                <th>Pieces</th>
                <th>On</th>
                <th>Route</th>
                <th>Due</th>
                <th>State</th>
              </tr>
            </thead>
            <tbody>
              {found.slice(0, most).map((j) => (
                <tr key={j.id}>
                  <td>
                    <Link className="text" to={`/jobs/${j.id}`}>
                      {j.title}
                    </Link>
                  </td>
                  <td>{j.client || "–"}</td>
                  <td className="num">{j.quantity}</td>
                  <td>{j.on}</td>
                  <td>{j.route ?? "not chosen"}</td>
                  <td>{j.due ? j.due.replace("T", ", ") : "none"}</td>
                  <td>
                    {j.closedAt
                      ? `Wrapped up${j.good !== null ? `, ${j.good} good` : ""}`
                      : j.entries > 0
                        ? "Under way"
                        : "Open"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {found.length > most && (
            <p className="mt-3 flex items-center gap-3 text-muted">
              {most} of {found.length}{" "}
              <button type="button" className="btn" onClick={() => setMost(most + PAGE)}>
                Show {Math.min(PAGE, found.length - most)} more
              </button>
            </p>
          )}
          {!found.length && <p className="mt-3 text-muted">No job of that name.</p>}
        </div>
      )}
    </main>
  );
}

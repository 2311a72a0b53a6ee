import type { Route } from "./+types/jobs";
import { Link } from "react-router";
import { readJobs, readShop } from "../store/queries";
import { substrate } from "../core/catalogue/substrates";
import { Empty } from "../ui/kit/bits";

export async function clientLoader() {
  const [jobs, base] = await Promise.all([readJobs(), readShop()]);
  jobs.sort((a, b) => Number(a.wrapUp.closedAt !== null) - Number(b.wrapUp.closedAt !== null) || (a.due ?? "9").localeCompare(b.due ?? "9") || a.title.localeCompare(b.title));
  return { jobs, ready: base !== null };
}

export default function Jobs({ loaderData: { jobs } }: Route.ComponentProps) {
  return (
    <main id="main" data-view="jobs" className="mx-auto w-full max-w-6xl px-5 py-5">
      <title>Jobs · Rich Layer</title>
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h1>Jobs</h1>
        <Link to="/jobs/new" className="btn btn-main">New job</Link>
      </div>
      {!jobs.length ? (
        <Empty title="No jobs yet"><p>A job holds the brief, the artwork, the plan with its layers, the bench run and what came of it.</p></Empty>
      ) : (
        <div className="overflow-x-auto">
          <table>
            <thead><tr><th>Job</th><th>For</th><th>Pieces</th><th>On</th><th>Route</th><th>Due</th><th>State</th></tr></thead>
            <tbody>
              {jobs.map((j) => (
                <tr key={j.id}>
                  <td><Link className="text" to={`/jobs/${j.id}`}>{j.title}</Link></td>
                  <td>{j.client || "–"}</td>
                  <td className="num">{j.quantity}</td>
                  <td>{substrate(j.substrate.id).name}</td>
                  <td>{j.route ?? "not chosen"}</td>
                  <td>{j.due ? j.due.replace("T", ", ") : "none"}</td>
                  <td>{j.wrapUp.closedAt ? `Wrapped up${j.wrapUp.good !== null ? `, ${j.wrapUp.good} good` : ""}` : "Open"}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </main>
  );
}

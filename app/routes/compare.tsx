import type { Route } from "./+types/compare";
import { useRef, useState } from "react";
import { data, Link } from "react-router";
import { readPhotos, readWorldsOf } from "../store/queries";
import { compareView } from "../views/compare";
import { Face } from "../ui/face";
import { Tick } from "../ui/kit/pick";

export async function clientLoader({ request }: Route.ClientLoaderArgs) {
  const q = new URL(request.url).searchParams;
  const ids = [q.get("a") ?? "", q.get("b") ?? ""];
  const worlds = await readWorldsOf(ids, false);
  if (worlds.length !== 2) throw data("One of the two jobs is no longer there; undo brings it back.", { status: 404 });
  const photos = await Promise.all(ids.map(async (id) => (await readPhotos(id)).slice(-2)));
  return { ...compareView(worlds[0], worlds[1]), photos };
}

const STEP = 1.5;
const MOST = 8;

export default function Compare({ loaderData: d }: Route.ComponentProps) {
  const [zoom, setZoom] = useState(1);
  const [all, setAll] = useState(false);
  const boxes = useRef<(HTMLDivElement | null)[]>([]);
  // what is scrolled on one side is scrolled on the other
  const together = (i: number): void => {
    const [from, to] = [boxes.current[i], boxes.current[1 - i]];
    if (!from || !to) return;
    if (to.scrollLeft !== from.scrollLeft) to.scrollLeft = from.scrollLeft;
    if (to.scrollTop !== from.scrollTop) to.scrollTop = from.scrollTop;
  };
  const rows = d.rows.filter((r) => all || !r.same);
  return (
    <main id="main" data-view="compare" className="mx-auto w-full max-w-page px-5 py-5">
      <title>{`${d.a.job.title} beside ${d.b.job.title} · Rich Layer`}</title>
      <h1>Side by side</h1>
      <div className="my-2 flex flex-wrap items-center gap-3">
        <button type="button" className="btn" onClick={() => setZoom(Math.min(MOST, zoom * STEP))}>
          Larger
        </button>
        <button type="button" className="btn" onClick={() => setZoom(Math.max(1, zoom / STEP))}>
          Smaller
        </button>
        <span aria-live="polite" className="text-muted" data-zoom={zoom.toFixed(2)}>
          {Math.round(zoom * 100)} %
        </span>
        <label className="flex min-h-line items-center gap-2">
          <Tick checked={all} onChange={setAll} /> what is the same too
        </label>
        <Link className="text" to="/find">
          Other jobs
        </Link>
      </div>
      <div className="grid gap-6 md:grid-cols-2">
        {[d.a, d.b].map((s, i) => (
          <section key={`${s.job.id} ${i}`} aria-label={s.job.title} className="min-w-0">
            <h2>
              <Link className="hover:underline" to={`/jobs/${s.job.id}`}>
                {s.job.title}
              </Link>
            </h2>
            <div
              ref={(el) => void (boxes.current[i] = el)}
              onScroll={() => together(i)}
              tabIndex={0}
              role="region"
              aria-label={`${s.job.title}, its face`}
              className="max-h-72 overflow-auto border border-line"
            >
              <div style={{ width: `${zoom * 100}%` }}>
                <Face
                  job={s.job}
                  colours={s.colours}
                  grain={s.grain}
                  pictured={s.pictured}
                  label={`${s.job.title} as it ends up`}
                  className="w-full"
                />
                {d.photos[i].map((p) => (
                  <img
                    key={p.id}
                    src={`data:image/jpeg;base64,${p.data}`}
                    alt={p.caption || "photo of the piece"}
                    className="mt-2 w-full"
                  />
                ))}
              </div>
            </div>
          </section>
        ))}
      </div>
      <table aria-label="What differs" className="mt-5">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">{d.a.job.title}</th>
            <th scope="col">{d.b.job.title}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.name} data-differs={!r.same || undefined}>
              <th scope="row">{r.name}</th>
              <td>{r.a}</td>
              <td>{r.b}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {!rows.length && <p className="text-muted">They do not differ in anything that is kept.</p>}
    </main>
  );
}

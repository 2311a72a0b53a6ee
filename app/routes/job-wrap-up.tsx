import { wrapUpAct } from "../acts/job";
import { wrapUpView } from "../views/wrap-up";
import type { Route } from "./+types/job-wrap-up";
import { lazy, Suspense, useState } from "react";
import { Link, useFetcher } from "react-router";
import { FLAWS } from "../core/records/ids";
import { showMinutes, showMl } from "../core/units/show";
import { readAll, readPhotos } from "../store/queries";
import { fileName, jobFile, writeFile } from "../io/export/job-file";
import { saveFile, shrinkPhoto } from "../ui/files";
import { ActButton, PickField, TextField } from "../ui/kit/field";
import { DropFile } from "../ui/kit/drop";
import type { Outcome } from "../core/records/outcome";
import { formOf } from "../acts/answer";
import { Face } from "../ui/face";
import { readJob } from "./job-data";
import { Why } from "../ui/kit/why";
import { asLogged } from "../views/opened";
import { AskButton, AskForm, AskPick, AskText } from "../ui/kit/ask";
import { FlawForm } from "../core/records/forms";
import { AfterFlaw } from "../ui/flaws";
import { AddLesson } from "../ui/lessons";
import { Fold } from "../ui/kit/fold";
import { Table, type Column } from "../ui/kit/table";
import { When } from "../ui/kit/when";

const HOW_BAD = [
  { value: "1", label: "slight" },
  { value: "2", label: "plain" },
  { value: "3", label: "spoilt" },
];

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { plan, now } = await readJob(params.id);
  return wrapUpView(plan, now, await readPhotos(params.id));
}
export const clientAction = async ({ request, params }: Route.ClientActionArgs) =>
  wrapUpAct(params.id, await formOf(request));

const PHOTO_FILE_LIMIT = 50_000_000;
const words = (s: string): string => s.replace(/-/g, " ");

const MinutesChart = lazy(() => import("../ui/charts/minutes-chart"));

type Row = Route.ComponentProps["loaderData"]["rows"][number];
const COLUMNS: Column<Row>[] = [
  {
    id: "step",
    name: "Step",
    cell: (r) => (
      <>
        {r.title}
        {r.early === "risk" && <span className="text-wrong"> · begun early</span>}
        {r.notes.map((n) => (
          <span key={n} className="tag block">
            {n}
          </span>
        ))}
      </>
    ),
  },
  {
    id: "planned",
    name: "Planned",
    className: "num",
    by: (r) => r.planned ?? -1,
    cell: (r) => (
      <Why quiet of={r.plannedWhy}>
        {showMinutes(r.planned)}
      </Why>
    ),
  },
  {
    id: "was",
    name: "Was",
    className: "num",
    by: (r) => r.actual ?? -1,
    cell: (r) =>
      r.actualWhy === null ? (
        "–"
      ) : (
        <Why quiet of={r.actualWhy}>
          {showMinutes(r.actual)}
        </Why>
      ),
  },
  {
    id: "paint",
    name: "Paint",
    className: "num",
    by: (r) => r.ml ?? -1,
    cell: (r) =>
      r.ml !== null && (
        <Why quiet of={r.mlWhy}>
          {showMl(r.ml)}
        </Why>
      ),
  },
  { id: "look", name: "Look", by: (r) => r.answer ?? "", cell: (r) => r.answer ?? "" },
];

const NEXT = { "": "good", good: "mend", mend: "lost", lost: "" } as const;
const MARK_LOOK = { "": "", good: "text-ready", mend: "text-waiting", lost: "text-wrong" } as const;
/** A cell a piece, pressed until it says how the piece came out. */
function Marks({
  pieces,
  marks,
  job,
}: {
  pieces: number;
  marks: { n: number; is: "good" | "mend" | "lost" }[];
  job: string;
}) {
  const of = new Map(marks.map((m) => [m.n, m.is]));
  return (
    <>
      <p className="text-small text-muted">Press a piece: good, to mend, lost. The counts above follow.</p>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(--spacing(19),1fr))] gap-1">
        {Array.from({ length: pieces }, (_v, i) => i + 1).map((n) => {
          const is = of.get(n) ?? "";
          return (
            <li key={n} data-mark={is} className="flex flex-col">
              <ActButton
                className="btn min-h-touch w-full"
                act={{ intent: "piece-mark", n: String(n), is: NEXT[is] }}
                label={`Piece ${n}: ${is || "nothing said"}`}
              >
                <span className={MARK_LOOK[is]}>
                  {n} {is && <strong>{is}</strong>}
                </span>
              </ActButton>
              <Link
                className="text alone text-small"
                to={`/bench-log?job=${job}&piece=${n}`}
                aria-label={`History of piece ${n}`}
              >
                history
              </Link>
            </li>
          );
        })}
      </ul>
    </>
  );
}

export default function WrapUp({ loaderData: d }: Route.ComponentProps) {
  const { job } = d;
  const w = job.wrapUp;
  const fetcher = useFetcher<Outcome>();
  const [photoError, setPhotoError] = useState<string | null>(null);
  const done = d.rows.filter((r) => r.actual !== null);
  const total = (k: "planned" | "actual"): number =>
    d.rows.filter((r) => r.actual !== null).reduce((a, r) => a + (r[k] ?? 0), 0);
  const sumOf = (k: "planned" | "actual") =>
    asLogged(k === "actual" ? "Minutes worked on finished steps" : "Minutes planned for them", () =>
      d.rows
        .filter((r) => r.actual !== null)
        .map((r) => ({ name: r.title, value: showMinutes(r[k]), from: k === "actual" ? "bench log" : "plan" })),
    );
  const photo = async (file: File): Promise<void> => {
    try {
      setPhotoError(null);
      await fetcher.submit({ intent: "photo", data: await shrinkPhoto(file), caption: file.name }, { method: "post" });
    } catch (e) {
      setPhotoError(`“${file.name}” was not taken in: ${(e as Error).message}`);
    }
  };
  const save = async (): Promise<void> => {
    const all = await readAll();
    if (all)
      saveFile(
        fileName(`${job.client} ${job.title}`, d.today.slice(0, 10), ".richlayer.json"),
        writeFile(jobFile(all, job.id)),
        "application/json",
      );
  };
  return (
    <main
      id="main"
      data-view="wrap-up"
      className="mx-auto grid w-full max-w-page gap-10 px-5 py-5 lg:grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)]"
    >
      <title>{`${job.title}: wrap-up · Rich Layer`}</title>
      <section aria-labelledby="w1" className="min-w-0 overflow-x-auto">
        <h2 id="w1" className="mb-1">
          Planned and as it was
        </h2>
        <p className="mb-2 text-muted">
          {total("actual") > 0 ? (
            <>
              <Why quiet inline of={sumOf("actual")}>
                {showMinutes(total("actual"))} worked
              </Why>{" "}
              on finished steps,{" "}
              <Why quiet inline of={sumOf("planned")}>
                {showMinutes(total("planned"))} planned
              </Why>{" "}
              for them.
            </>
          ) : (
            "No step has been finished at the bench yet."
          )}
          {d.left > 0 && ` ${d.left} ${d.left === 1 ? "step" : "steps"} not done.`}
        </p>
        <Table
          label="Planned beside what was"
          rows={d.rows}
          columns={COLUMNS}
          rowId={(r) => r.id}
          rowProps={(r) => ({ "data-step": r.id })}
        />
        {done.length > 0 && (
          <Fold summary="Both drawn side by side" className="mt-3">
            <Suspense fallback={<p className="h-48 text-muted">Drawing the minutes…</p>}>
              <MinutesChart rows={done} />
            </Suspense>
          </Fold>
        )}
        {d.waivers.length > 0 && (
          <div className="mt-4">
            <h3>Waived</h3>
            <ul>
              {d.waivers.map((x) => (
                <li key={`${x.rule}${x.where}`}>
                  {x.title}: {x.reason}
                </li>
              ))}
            </ul>
          </div>
        )}
      </section>
      <section aria-labelledby="w2" className="flex flex-col gap-4">
        <h2 id="w2">What came of it</h2>
        <div className="grid grid-cols-3 gap-3">
          <TextField
            name="good"
            label={`Good, of ${d.pieces} begun`}
            value={w.good === null ? "" : String(w.good)}
            inputMode="numeric"
            hint={w.good === null && d.aside ? `${d.aside} put aside at the bench` : undefined}
          />
          <TextField name="lost" label="Lost" value={w.lost === null ? "" : String(w.lost)} inputMode="numeric" />
          <PickField
            name="score"
            label="How it looks"
            value={w.score === null ? "" : String(w.score)}
            options={[
              { value: "", label: "not said" },
              ...[1, 2, 3, 4, 5].map((n) => ({ value: String(n), label: `${n} of 5` })),
            ]}
          />
        </div>
        <Fold summary="Piece by piece">{() => <Marks pieces={d.pieces} marks={w.pieces ?? []} job={job.id} />}</Fold>
        <TextField name="note" label="What to do otherwise next time" value={w.note} area />
        <Fold summary="Keep it as a lesson">
          {() => <AddLesson key={w.note} job={d.teaches} text={w.note.split("\n")[0].slice(0, 400)} />}
        </Fold>
        <section aria-labelledby="w3">
          <h3 id="w3">Flaws</h3>
          {!w.flaws.length && <p className="text-muted">None noted.</p>}
          <ul>
            {w.flaws.map((x) => (
              <li key={x.id} className="flex flex-wrap items-center justify-between gap-2 border-b border-line py-1.5">
                <span>
                  {words(x.flaw)}
                  {x.zone && `, ${d.zones.find((z) => z.id === x.zone)?.name ?? x.zone}`}
                  {x.piece && `, piece ${x.piece}`} · {["", "slight", "plain", "spoilt"][x.severity]}
                  {x.note && ` · ${x.note}`}
                </span>
                <ActButton
                  className="link-act"
                  act={{ intent: "flaw-forget", id: x.id }}
                  label={`Remove ${words(x.flaw)}`}
                >
                  Remove
                </ActButton>
                <div className="basis-full">
                  <AfterFlaw
                    id={x.flaw}
                    causes={d.causes[x.flaw] ?? []}
                    job={{ id: job.id, substrate: job.substrate.id, route: job.route }}
                  />
                </div>
              </li>
            ))}
          </ul>
          <Fold summary="Note a flaw" className="mt-1">
            <AskForm
              form={FlawForm}
              intent="flaw"
              start={{ flaw: FLAWS[0], zone: "", piece: "", severity: "1", note: "" }}
            >
              <AskPick name="flaw" label="Flaw" options={FLAWS.map((x) => ({ value: x, label: words(x) }))} />
              <AskPick
                name="zone"
                label="Zone"
                options={[{ value: "", label: "anywhere" }, ...d.zones.map((z) => ({ value: z.id, label: z.name }))]}
              />
              <AskText name="piece" label="Piece" inputMode="numeric" className="w-20" />
              <AskPick name="severity" label="How bad" options={HOW_BAD} />
              <AskText name="note" label="Note" />
              <AskButton>Keep it</AskButton>
            </AskForm>
          </Fold>
        </section>
        <section aria-labelledby="w4">
          <h3 id="w4">Photos</h3>
          {d.noPhoto.length > 0 && <p className="text-muted">No photo of: {d.noPhoto.join(", ")}.</p>}
          <ul className="my-2 flex flex-wrap items-end gap-3">
            {d.photos.length > 0 && (
              <li className="flex flex-col gap-1">
                <Face
                  job={job}
                  colours={d.colours}
                  pictured={d.pictured}
                  grain={d.grain}
                  label={`${job.title} as it was meant`}
                  className="h-28"
                />
                <span className="tag">as it was meant</span>
              </li>
            )}
            {d.photos.map((p) => (
              <li key={p.id} className="flex flex-col gap-1">
                <img
                  src={`data:image/jpeg;base64,${p.data}`}
                  alt={p.caption || "photo of the piece"}
                  className="h-28 rounded border border-line"
                />
                <ActButton
                  className="link-act"
                  act={{ intent: "photo-forget", id: p.id }}
                  label={`Remove photo ${p.caption}`}
                >
                  Remove
                </ActButton>
              </li>
            ))}
          </ul>
          <DropFile
            label="Add a photo"
            what="a picture"
            kinds={{ "image/*": [] }}
            limit={PHOTO_FILE_LIMIT}
            onFile={(file) => void photo(file)}
            onRefused={setPhotoError}
            className="screen-only"
          >
            {(choose) => (
              <>
                <button type="button" className="btn" onClick={choose}>
                  Choose a photo
                </button>
                <p className="tag">
                  Or drop it here. Drawn anew at 1600 px at most, so no place or camera data stays in it.
                </p>
              </>
            )}
          </DropFile>
          {(photoError ?? fetcher.data?.error) && (
            <p role="alert" className="text-wrong">
              {photoError ?? fetcher.data?.error}
            </p>
          )}
        </section>
        <div className="flex flex-wrap gap-3 border-t border-line pt-3">
          {w.closedAt === null ? (
            <ActButton className="btn btn-main" act={{ intent: "close" }}>
              Wrap up the job
            </ActButton>
          ) : (
            <>
              <p className="self-center text-ready">
                Wrapped up <When at={w.closedAt} />.
              </p>
              <ActButton act={{ intent: "reopen" }}>Open it again</ActButton>
            </>
          )}
          <button type="button" className="btn" onClick={() => void save()}>
            Save this job as a file
          </button>
          <Link className="btn" to="/bench-log">
            Bench log
          </Link>
        </div>
      </section>
    </main>
  );
}

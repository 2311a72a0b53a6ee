import { formOf } from "../acts/answer";
import { benchAct } from "../acts/bench";
import { nowMs } from "../clock";
import { fromBase64 } from "../io/base64";
import { readPhoto } from "../store/queries";
import { filesView, settingWords } from "../views/files";
import type { Route } from "./+types/job-files";
import { Suspense, useState } from "react";
import { Await, Link } from "react-router";
import { PURPOSE_WORDS } from "../core/explain/packet";
import { plural } from "../core/units/show";
import { said } from "../core/units/said";
import { writeDxf, writeSvg, type Sheet } from "../io/export/vectors";
import { saveFile } from "../ui/files";
import { Empty } from "../ui/kit/bits";
import { LabelledPick } from "../ui/kit/pick";
import { Shields } from "../ui/laser/shields";
import { OnTheBed } from "../ui/laser/tray";
import { ClearOfBed, PutBack, Squareness } from "../ui/laser/placing-tools";
import { SheetView } from "../ui/laser/sheet";
import { layPackets, layShields, writePacket } from "../workers/packets";
import type { LaidVisit } from "../workers/packets-api";
import { setPaper } from "../workers/paper";
import { pngOf } from "../workers/picture";
import { readJob } from "./job-data";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { plan, now } = await readJob(params.id);
  const view = filesView(plan, now);
  const laid = view.none ? null : layPackets({ world: view.world, now });
  // told where it is shown
  laid?.catch(() => {});
  const shields = layShields({ world: view.world, now });
  shields.catch(() => {});
  return { ...view, laid, shields };
}
export const clientAction = async ({ request, params }: Route.ClientActionArgs) =>
  benchAct(params.id, await formOf(request));

type View = Route.ComponentProps["loaderData"];
const bytesOf = async (photo: string): Promise<Uint8Array<ArrayBuffer> | null> => {
  const kept = await readPhoto(photo);
  return kept ? fromBase64(kept.data) : null;
};

/** Pictures that a visit burns, by step. @throws Error with one sentence */
async function picturesOf(d: View, steps: readonly { id: string }[]): Promise<Record<string, Uint8Array>> {
  const works = d.pictures.filter((w) => steps.some((s) => s.id === w.step));
  if (!works.length || !d.photo) return {};
  const bytes = await bytesOf(d.photo);
  if (!bytes) throw new Error("The picture’s original is no longer here; take it in anew.");
  const out: Record<string, Uint8Array> = {};
  for (const w of works) {
    const png = await pngOf(bytes, w);
    if (png) out[w.step] = png;
  }
  return out;
}

function Visit({ v, d }: { v: LaidVisit; d: View }) {
  const { visit } = v;
  const [which, setWhich] = useState("0");
  const [lit, setLit] = useState<string | null>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const loads = visit.bed?.loads.length ?? 0;
  const sheets: { value: string; label: string; sheet: Sheet }[] = [
    ...v.sheets.map(({ load, sheet }) => ({
      value: String(load),
      label:
        v.sheets.length < 2 && loads < 2
          ? "as it lies"
          : v.visit.bed
            ? `load ${load + 1}${load > 0 && load === loads - 1 ? ", the last" : ""}`
            : `piece ${load + 1}`,
      sheet,
    })),
    ...(v.nest ? [{ value: "nest", label: "the nest that holds them", sheet: v.nest }] : []),
  ];
  const shown = sheets.find((s) => s.value === which) ?? sheets[0];
  const save = async (): Promise<void> => {
    setError(null);
    try {
      setBusy("Making pictures…");
      const pictures = await picturesOf(d, visit.steps);
      setBusy("Setting the page…");
      const rows = visit.layers
        .filter((l) => l.purpose !== "frame")
        .map((l) => ({
          name: `${l.id}: ${l.name}`,
          setting: l.setting
            ? settingWords(l.setting, l.watts, d.machine?.top ?? null, l.how === "fill", d.units)
            : "no setting yet",
        }));
      const page = await setPaper({
        do: "visit",
        made: nowMs(),
        page: { jobId: d.job.id, title: d.job.title, visit, sheet: v.sheets[0].sheet, rows },
      });
      setBusy("Writing the packet…");
      const zip = await writePacket({ world: d.world, now: d.now }, visit.n, { pictures, page });
      saveFile(`${v.name}.zip`, zip, "application/zip");
    } catch (e) {
      setError(`${(e as Error).message} Nothing was saved.`);
    }
    setBusy(null);
  };
  const name = `${v.name.replace(/_\d+pcs$/, "")}${which === "nest" ? "_nest" : v.sheets.length < 2 ? "" : `_load-${Number(which) + 1}`}`;
  const list = visit.layers.filter((l) => which !== "nest" || l.purpose === "frame");
  return (
    <section aria-labelledby={`v${visit.n}`} data-packet={visit.n} className="border-t-2 border-strong pt-3">
      <h2 id={`v${visit.n}`}>
        Visit {visit.n}: {visit.title}
      </h2>
      <p className="text-muted">
        {visit.machine ?? "No machine chosen"}
        {visit.bed
          ? `, ${plural(visit.bed.loads.length, "load")} of ${visit.bed.perLoad} at most` +
            (visit.bed.turned ? ", each turned by a quarter" : "")
          : visit.round
            ? ", one at a time on the rotary, the face unrolled"
            : ""}
        {visit.mirrored && ", mirrored: worked from the back"}.
      </p>
      {visit.machine && !visit.bed && !visit.round && !d.tray && (
        <p className="text-wrong">One piece is larger than this bed: the file has it alone.</p>
      )}
      <div className="mt-2 grid gap-6 lg:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
        <div className="min-w-0">
          <SheetView
            sheet={shown.sheet}
            lit={lit}
            label={`Visit ${visit.n}, ${shown.label}: ${list.map((l) => l.name).join(", ")}`}
          />
          {sheets.length > 1 && (
            <LabelledPick label="Looked at" value={which} onChange={setWhich} options={sheets} className="mt-2 w-64" />
          )}
        </div>
        <div className="min-w-0">
          <h3>Layers, in the order they run</h3>
          <ol className="list-decimal pl-5">
            {visit.layers.map((l) => (
              <li
                key={l.id}
                data-packet-layer={l.purpose}
                onPointerEnter={() => setLit(l.id)}
                onPointerLeave={() => setLit(null)}
                className="py-1"
              >
                <strong>{l.name}</strong>
                <span className="block text-small text-muted">
                  {l.purpose === "frame"
                    ? "not burnt; run it with the beam off and see that it lies on the piece"
                    : `${PURPOSE_WORDS[l.purpose].toLowerCase()}, ` +
                      (l.picture ? "the picture, as PNG" : l.how === "fill" ? "filled row by row" : "along the line")}
                </span>
                {l.setting ? (
                  <span className="block text-small">
                    {settingWords(l.setting, l.watts, d.machine?.top ?? null, l.how === "fill", d.units)}
                  </span>
                ) : (
                  l.purpose !== "frame" && <span className="block text-small text-waiting">no setting yet</span>
                )}
              </li>
            ))}
          </ol>
          <h3 className="mt-3">Leave alone in the laser’s program</h3>
          <ul className="list-disc pl-5 text-small">
            {visit.leaveAlone.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
          {visit.notes.map((t) => (
            <p key={t} className="mt-1 text-small text-waiting">
              {said(t, d.units)}
            </p>
          ))}
          <div className="screen-only mt-3 flex flex-wrap items-center gap-3">
            <button type="button" className="btn btn-main" disabled={busy !== null} onClick={() => void save()}>
              Save the packet
            </button>
            <button
              type="button"
              className="btn"
              onClick={() => saveFile(`${name}.svg`, writeSvg(shown.sheet), "image/svg+xml")}
            >
              SVG
            </button>
            <button
              type="button"
              className="btn"
              onClick={() => saveFile(`${name}.dxf`, writeDxf(shown.sheet), "application/dxf")}
            >
              DXF
            </button>
          </div>
          <p className="tag mt-1">{v.name}.zip: drawings in mm, pictures, settings, one page to print, the nest.</p>
          {busy && (
            <p role="status" className="text-waiting">
              {busy}
            </p>
          )}
          {error && (
            <p role="alert" className="text-wrong">
              {error}
            </p>
          )}
        </div>
      </div>
    </section>
  );
}

export default function FilesPage({ loaderData: d }: Route.ComponentProps) {
  return (
    <main id="main" data-view="files" className="mx-auto flex w-full max-w-page flex-col gap-6 px-5 py-5">
      <title>{`${d.job.title}: files · Rich Layer`}</title>
      {d.laid === null ? (
        <Empty title="Nothing goes to the laser yet">
          <p>
            {d.missing[0] ?? "The way that this job goes has no work of the beam, or there is no way chosen yet."}{" "}
            <Link className="text" to="../route" relative="path">
              Route
            </Link>
          </p>
        </Empty>
      ) : (
        <Suspense
          key={d.job.id}
          fallback={
            <p role="status" className="text-muted">
              Laying out what goes to the laser…
            </p>
          }
        >
          <Await
            resolve={d.laid}
            errorElement={
              <p role="alert" className="text-wrong">
                What goes to the laser could not be laid out. Reload the page to try again.
              </p>
            }
          >
            {(laid) => laid.map((v) => <Visit key={v.visit.n} v={v} d={d} />)}
          </Await>
        </Suspense>
      )}
      <Suspense key={`${d.job.id} shields`}>
        <Await
          resolve={d.shields}
          errorElement={
            <p role="alert" className="text-wrong">
              The shields could not be laid out. Reload the page to try again.
            </p>
          }
        >
          {(laid) =>
            laid && <Shields laid={laid} ask={{ world: d.world, now: d.now }} title={d.job.title} units={d.units} />
          }
        </Await>
      </Suspense>
      <section aria-labelledby="pl" className="grid gap-8 border-t-2 border-strong pt-3 lg:grid-cols-3">
        <h2 id="pl" className="lg:col-span-3">
          At the machine
        </h2>
        <OnTheBed d={d} />
        <ClearOfBed d={d} />
        <Squareness d={d} />
        <PutBack d={d} />
      </section>
    </main>
  );
}

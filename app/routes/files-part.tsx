/** The whole shop out to a file and files in again: what would change is shown before anything does. */
import { useState } from "react";
import { useFetcher } from "react-router";
import { nowMs } from "../clock";
import type { RichLayerFile } from "../core/records/file";
import { sayFaults } from "../core/records/parse";
import { shopClock } from "../core/time/zoned";
import { fileName, shopFile } from "../io/export/job-file";
import { previewImport, type ImportMode, type ImportPreview } from "../store/import";
import { readAll, readHeads } from "../store/queries";
import { Cancelled, readLog, readShelf, readWhole, writeWhole } from "../workers/files";
import { saveFile } from "../ui/files";
import { Head } from "../ui/kit/bits";
import { DropFile } from "../ui/kit/drop";
import type { Outcome } from "../core/records/outcome";

interface Pending {
  name: string;
  what: string;
  /** sent to the action as it is; the action reads and checks it anew */
  intent: "import" | "import-log" | "import-shelf";
  text: string;
  merge: ImportPreview | null;
  replace: ImportPreview | null;
}

const FILE_LIMIT = 200_000_000;
const KINDS = {
  "application/json": [".json"],
  "application/zip": [".zip"],
  "application/x-zip-compressed": [".zip"],
  "text/csv": [".csv"],
};
const WORDS: Record<string, [string, string]> = {
  shop: ["the shop’s own settings", "the shop’s own settings"],
  machines: ["machine", "machines"],
  products: ["product", "products"],
  jobs: ["job", "jobs"],
  log: ["log entry", "log entries"],
  photos: ["photo", "photos"],
};
const some = (n: number, table: string): string => `${table === "shop" ? "" : `${n} `}${WORDS[table][n === 1 ? 0 : 1]}`;
/** “12 jobs new, 3 products replaced” */
const inWords = (p: ImportPreview): string => {
  const part = (key: "fresh" | "replaced" | "gone", word: string): string[] => {
    const rows = p.rows.filter((r) => r[key] > 0);
    return rows.length ? [`${word}: ${rows.map((r) => some(r[key], r.table)).join(", ")}`] : [];
  };
  return (
    [...part("fresh", "new"), ...part("replaced", "in place of yours"), ...part("gone", "taken away")].join("; ") ||
    "everything is here already, and alike"
  );
};

/** Read any file that can be taken in. @throws Error with one sentence that names what and where */
async function readFile(file: File, stage: (word: string) => void, signal: AbortSignal): Promise<Pending> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (/\.csv$/i.test(file.name)) {
    const text = new TextDecoder().decode(bytes);
    // a log says which tap another takes back
    const log = /takes back/.test(text.slice(0, 2000));
    const jobs = async (): Promise<string[]> => (await readHeads()).map((j) => j.id);
    const read = await (log ? readLog(bytes, await jobs(), stage, signal) : readShelf(bytes, stage, signal));
    if (!read.ok) throw new Error(sayFaults(read.faults));
    return {
      name: file.name,
      what: `${read.rows.length} ${log ? "log entries" : "products"}`,
      intent: log ? "import-log" : "import-shelf",
      text,
      merge: null,
      replace: null,
    };
  }
  const read = await readWhole(bytes, stage, signal);
  if (!read.ok) throw new Error(sayFaults(read.faults));
  const f: RichLayerFile = read.file;
  return {
    name: file.name,
    what:
      f.kind === "job"
        ? `the job “${f.jobs[0].title}”`
        : `a shop with ${f.jobs.length} ${f.jobs.length === 1 ? "job" : "jobs"}`,
    intent: "import",
    text: JSON.stringify(f),
    merge: await previewImport(f, "merge"),
    replace: f.kind === "shop" ? await previewImport(f, "replace") : null,
  };
}

const KIND = {
  plain: { suffix: ".richlayer.json", type: "application/json" },
  zip: { suffix: ".richlayer.zip", type: "application/zip" },
};

export function FilesPart({ today, name, saved }: { today: string; name: string; saved: string | null }) {
  const fetcher = useFetcher<Outcome>();
  const [pending, setPending] = useState<Pending | null>(null);
  const [error, setError] = useState<string | null>(null);
  /** what is being done with a file by now, and what ends it; null: nothing is */
  const [busy, setBusy] = useState<{ word: string; stop: AbortController } | null>(null);
  const [copy, setCopy] = useState<string | null>(null);
  /** Something done with a file in the worker, told as it goes, ended by whoever does not want to wait. */
  const working = async (
    failed: (say: string) => string,
    work: (stage: (word: string) => void, signal: AbortSignal) => Promise<void>,
  ): Promise<void> => {
    const stop = new AbortController();
    setError(null);
    setBusy({ word: "Looking", stop });
    try {
      await work((word) => setBusy({ word, stop }), stop.signal);
    } catch (e) {
      if (!(e instanceof Cancelled)) setError(failed((e as Error).message));
    }
    setBusy(null);
  };
  const save = (zip: boolean): Promise<void> => {
    setCopy(null);
    const notSaved = (say: string): string =>
      `The shop was not saved as a file: ${say}. What is in this browser is untouched.`;
    return working(notSaved, async (stage, signal) => {
      const all = await readAll();
      if (all) {
        // A spare copy that cannot be read is none: what was made is read back before it counts.
        const back = await writeWhole(shopFile(all), zip, stage, signal);
        const { suffix, type } = KIND[zip ? "zip" : "plain"];
        saveFile(fileName(name, today, suffix), back.content, type);
        if (!back.read.ok) {
          setError(
            `A file was saved, but it could not be read back, and does not count as a spare copy: ` +
              `${sayFaults(back.read.faults, 2)}. What is in this browser is untouched.`,
          );
          return;
        }
        const { jobs, photos } = back.read.file;
        setCopy(`Saved and read back: ${some(jobs.length, "jobs")}, ${some(photos.length, "photos")}.`);
        void fetcher.submit({ intent: "saved", at: String(nowMs()) }, { method: "post", action: "/do" });
      }
    });
  };
  const csv = async (what: "log" | "shelf"): Promise<void> => {
    const all = await readAll();
    if (!all) return;
    const io = await import("../io/csv");
    saveFile(
      fileName(`${name} ${what}`, today, ".csv"),
      what === "log"
        ? io.writeLogCsv(
            all.log.sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1)),
            shopClock(all.shop),
          )
        : io.writeShelfCsv(all.products),
      "text/csv",
    );
  };
  const look = (file: File): Promise<void> => {
    setPending(null);
    const refused = (say: string): string => `“${file.name}” was not taken in: ${say}. Nothing was changed.`;
    return working(refused, async (stage, signal) => {
      const read = await readFile(file, stage, signal);
      // stopped while it was compared with what is here
      if (!signal.aborted) setPending(read);
    });
  };
  const take = (mode: ImportMode): void => {
    if (pending)
      void fetcher.submit(
        { intent: pending.intent, text: pending.text, name: pending.name, mode },
        { method: "post", action: "/do" },
      );
    setPending(null);
  };
  return (
    <section aria-labelledby="o6" className="flex flex-col gap-3">
      <Head>
        <span id="o6">Files</span>
      </Head>
      <p className="text-muted">
        Everything is kept in this browser. A whole-shop file is your spare copy.{" "}
        {copy && <span role="status">{copy} </span>}
        {saved ? `Last saved from here ${saved}.` : "None has been saved from here yet."}
      </p>
      <div className="flex flex-wrap gap-3">
        <button type="button" className="btn" disabled={busy !== null} onClick={() => void save(false)}>
          Save the whole shop as a file
        </button>
        <button type="button" className="btn" disabled={busy !== null} onClick={() => void save(true)}>
          Save it as a zip, photos beside it
        </button>
        <button type="button" className="btn" onClick={() => void csv("log")}>
          Bench log as CSV
        </button>
        <button type="button" className="btn" onClick={() => void csv("shelf")}>
          Shelf as CSV
        </button>
      </div>
      <DropFile
        label="Rich Layer file"
        what="a Rich Layer file, a zip of one, or a log or shelf as CSV"
        kinds={KINDS}
        limit={FILE_LIMIT}
        busy={busy !== null}
        onFile={(file) => void look(file)}
        onRefused={(why) => (setPending(null), setError(`${why} Nothing was changed.`))}
        className="sm:flex-row sm:items-center sm:gap-4"
      >
        {(choose) => (
          <>
            <button type="button" className="btn flex-none" onClick={choose}>
              Take a file in…
            </button>
            <p className="tag">
              Or drop it here: a job, a whole shop, a log or a shelf. What it would change is shown first.
            </p>
          </>
        )}
      </DropFile>
      {busy && (
        <div className="flex flex-wrap items-center gap-3">
          <p role="status" className="text-waiting">
            {busy.word}…
          </p>
          <button type="button" className="btn btn-quiet" onClick={() => busy.stop.abort()}>
            Stop
          </button>
        </div>
      )}
      {pending && (
        <div role="status" className="border-t border-line pt-2">
          <p>
            “{pending.name}” holds {pending.what}.
          </p>
          {pending.merge && <p className="text-muted">Merged: {inWords(pending.merge)}.</p>}
          {pending.merge && pending.merge.clash.length > 0 && (
            <p className="text-waiting">
              Already here, and replaced by the file’s: {pending.merge.clash.slice(0, 8).join(", ")}
              {pending.merge.clash.length > 8 ? ` and ${pending.merge.clash.length - 8} more` : ""}.
            </p>
          )}
          {pending.replace && <p className="text-muted">In place of everything: {inWords(pending.replace)}.</p>}
          <div className="mt-2 flex flex-wrap gap-3">
            <button type="button" className="btn btn-main" onClick={() => take("merge")}>
              Merge it in
            </button>
            {pending.replace && (
              <button type="button" className="btn" onClick={() => take("replace")}>
                Put it in place of everything
              </button>
            )}
            <button type="button" className="btn btn-quiet" onClick={() => setPending(null)}>
              Leave it
            </button>
          </div>
          <p className="tag mt-1">Either can be undone.</p>
        </div>
      )}
      {(error ?? fetcher.data?.error) && (
        <p role="alert" className="text-wrong">
          {error ?? fetcher.data?.error}
        </p>
      )}
      {fetcher.data?.done && fetcher.data.done !== "stored" && (
        <p role="status" className="text-ready">
          {fetcher.data.done}.
        </p>
      )}
    </section>
  );
}

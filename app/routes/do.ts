/** Acts that belong to no page: undo and redo, opening and beginning a shop, files in, jobs deleted. */
import type { Route } from "./+types/do";
import { redirect } from "react-router";
import { commit, noteSaved, redo, Refused, undo } from "../store/acts";
import { readHeads } from "../store/queries";
import { deleteJob, importFile, type ImportMode } from "../store/import";
import { nowMinutes } from "../clock";
import { Shop } from "../core/records/shop";
import { sayFaults } from "../core/records/parse";
import { readJobFile } from "../io/import/job-file";
import { answer, formOf } from "./answer";
import type { Outcome } from "../ui/kit/field";

const here = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";

/** Do it and go somewhere; stay and say why when it could not be done. */
async function then(to: string, body: () => Promise<void>): Promise<Response | Outcome> {
  const said = await answer("act", body);
  return said.error ? said : redirect(to);
}

export async function clientAction({ request }: Route.ClientActionArgs) {
  const f = await formOf(request);
  switch (f.intent) {
    case "undo":
      return answer(
        "history",
        async () => (await undo().then((what) => what && `Undone: ${what}`)) ?? "There is nothing to undo",
      );
    case "redo":
      return answer(
        "history",
        async () => (await redo().then((what) => what && `Done again: ${what}`)) ?? "There is nothing to redo",
      );
    case "start-empty":
      return then("/", () =>
        commit("beginning of an empty shop", [{ table: "shop", id: "shop", next: { ...new Shop(), zone: here() } }]),
      );
    case "open-sample":
      return then("/", async () =>
        importFile(await (await import("../demo/sample")).sampleShop(nowMinutes(), here()), "replace"),
      );
    case "delete-job":
      return then("/jobs", () => deleteJob(f.id));
    case "import":
      return answer("import", async () => {
        const read = readJobFile(f.text);
        if (!read.ok)
          throw new Refused(`“${f.name}” was not taken in: ${sayFaults(read.faults)}. Nothing was changed.`);
        await importFile(read.file, f.mode as ImportMode);
        return `Taken in: ${read.file.jobs.length} ${read.file.jobs.length === 1 ? "job" : "jobs"}`;
      });
    case "import-log":
      return answer("import", async () => {
        const jobs = new Set((await readHeads()).map((j) => j.id));
        const read = (await import("../io/csv")).readLogCsv(f.text, jobs);
        if (!read.ok)
          throw new Refused(`“${f.name}” was not taken in: ${sayFaults(read.faults)}. Nothing was changed.`);
        await commit(
          "import of a bench log",
          read.rows.map((e) => ({ table: "log" as const, id: e.id, next: e })),
        );
        return `Taken in: ${read.rows.length} log entries`;
      });
    case "import-shelf":
      return answer("import", async () => {
        const read = (await import("../io/csv")).readShelfCsv(f.text);
        if (!read.ok)
          throw new Refused(`“${f.name}” was not taken in: ${sayFaults(read.faults)}. Nothing was changed.`);
        await commit(
          "import of a Shelf",
          read.rows.map((p) => ({ table: "products" as const, id: p.id, next: p })),
        );
        return `Taken in: ${read.rows.length} products`;
      });
    case "saved":
      await noteSaved(Number(f.at));
      return { done: "stored" };
    default:
      return { error: `There is no act “${f.intent}”.` };
  }
}

export async function clientLoader() {
  return redirect("/");
}

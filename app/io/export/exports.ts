/** What a job can be carried off as: a row each. What writes it is loaded when it is asked for. */
import { named, nameOn } from "../../core/geometry/names";
import { nameSheet, type NameSheet } from "../../core/explain/names";
import { piecesOf } from "../../core/process/pieces";
import { noteOf, quoteOf, type Letter } from "../../core/explain/letter";
import { workCard } from "../../core/explain/card";
import type { Card } from "../../core/explain/card";
import type { Moved } from "../../core/explain/why/moves";
import type { Plan } from "../../core/plan/plan";
import type { Job } from "../../core/records/job";
import { showWhen } from "../../core/time/zoned";
import { jobFile, type ShopRecords, writeFile } from "./job-file";
import type { VisitPage } from "./pdf/visit";
import type { LabelSheet } from "./pdf/labels";

/** A thing to be set on paper, and when it was made, ms since 1970. */
export type PaperAsk =
  | { do: "card"; card: Card; made: number }
  | { do: "labels"; sheet: LabelSheet; made: number }
  | { do: "letter"; letter: Letter; made: number }
  | { do: "names"; sheet: NameSheet; made: number }
  | { do: "visit"; page: VisitPage; made: number };

/** What an export is written from, and what it may have done elsewhere. */
export interface ExportAsk {
  plan: Plan;
  /** ms since 1970 */
  made: number;
  /** everything that is stored */
  records(): Promise<ShopRecords>;
  /** sets paper off the main thread */
  paper(ask: PaperAsk): Promise<Uint8Array<ArrayBuffer>>;
  /** what moves the ready time most; null: not found out */
  moved(): Promise<Moved | null>;
}
export interface JobExport {
  id: string;
  /** on its button */
  name: string;
  /** a word beside it */
  tells?(job: Job): string;
  /** is there anything to write? absent: always */
  for?(job: Job): boolean;
  /** a paper for who ordered it, offered where prices are */
  letter?: true;
  /** of the file's name */
  ending: string;
  /** media type */
  type: string;
  /** while it is written */
  busy: string;
  /** @throws Error with one sentence */
  write(ask: ExportAsk): Promise<string | Uint8Array<ArrayBuffer>>;
}

const PDF = { type: "application/pdf" } as const;

export const JOB_EXPORTS: readonly JobExport[] = [
  {
    ...PDF,
    id: "card",
    name: "Work card, PDF",
    tells: () => "every step with boxes to tick",
    ending: ".work-card.pdf",
    busy: "Setting the card…",
    write: async ({ plan, made, paper, moved }) =>
      // Paper can't be opened to ask why, so the card says it beforehand; without an answer it is set all the same.
      paper({ do: "card", card: workCard(plan, Math.floor(made / 60000), await moved()), made }),
  },
  {
    ...PDF,
    id: "labels",
    name: "Labels for the pieces, PDF",
    tells: (job) => `${piecesOf(job)} with a QR mark`,
    ending: ".labels.pdf",
    busy: "Setting the labels…",
    write: ({ plan, made, paper }) => {
      const { clock, job, pieces } = plan.context;
      const sheet = {
        jobId: job.id,
        title: job.title,
        client: job.client,
        due: job.due === null ? null : showWhen(clock, clock.fromLocal(job.due)),
        pieces,
        names: Array.from({ length: pieces }, (_v, i) => nameOn(job.zones, i + 1) ?? ""),
      };
      return paper({ do: "labels", sheet, made });
    },
  },
  {
    ...PDF,
    id: "names",
    name: "Proof sheet of the names, PDF",
    for: (job) => job.names !== undefined,
    tells: (job) => `${named(job.zones)} to be read and ticked`,
    ending: ".names.pdf",
    busy: "Setting the names…",
    write: ({ plan, made, paper }) => {
      return paper({ do: "names", sheet: nameSheet(plan.context.job), made });
    },
  },
  {
    ...PDF,
    id: "quote",
    name: "Quote, PDF",
    letter: true,
    tells: () => "what is made, how many, at what price, by when",
    ending: ".quote.pdf",
    busy: "Setting the quote…",
    write: ({ plan, made, paper }) => paper({ do: "letter", letter: quoteOf(plan, Math.floor(made / 60000)), made }),
  },
  {
    ...PDF,
    id: "note",
    name: "Delivery note, PDF",
    letter: true,
    tells: () => "what is handed over, piece by piece",
    ending: ".delivery-note.pdf",
    busy: "Setting the note…",
    write: ({ plan, made, paper }) => paper({ do: "letter", letter: noteOf(plan, Math.floor(made / 60000)), made }),
  },
  {
    id: "calendar",
    name: "Calendar with alarms, .ics",
    tells: () => "saved again, it updates; it rings with this page closed",
    ending: ".ics",
    type: "text/calendar",
    busy: "Writing the calendar…",
    write: async ({ plan, made }) => (await import("./ics")).writeCalendar(plan, made),
  },
  {
    id: "job",
    name: "The job, .richlayer.json",
    ending: ".richlayer.json",
    type: "application/json",
    busy: "Writing the file…",
    write: async ({ plan, records }) => writeFile(jobFile(await records(), plan.context.job.id)),
  },
  {
    id: "zip",
    name: "The job with its photos, .richlayer.zip",
    ending: ".richlayer.zip",
    type: "application/zip",
    busy: "Writing the file…",
    write: async ({ plan, records }) => {
      const { writeZip } = await import("../zip");
      return (await writeZip(jobFile(await records(), plan.context.job.id))) as Uint8Array<ArrayBuffer>;
    },
  },
];

/** Names of a job, piece by piece, as who ordered them reads them through. */
import type { Job } from "../records/job";

export interface NameSheet {
  jobId: string;
  title: string;
  client: string;
  /** in order of the pieces; colour: what it is called, empty where there is one only */
  names: { n: number; text: string; colour: string; outline: string }[];
  /** that they are fitted into, mm */
  block: { w: number; h: number };
}

export function nameSheet(job: Job): NameSheet {
  const of = job.zones.filter((z) => z.onPieces);
  const colour = (name: string): string => (of.length > 1 ? name.replace(/^Names, /, "") : "");
  const names = of
    .flatMap((z) => z.onPieces!.map(({ n, text, outline }) => ({ n, text, outline, colour: colour(z.name) })))
    .sort((a, b) => a.n - b.n);
  return { jobId: job.id, title: job.title, client: job.client, names, block: job.names ?? job.substrate };
}

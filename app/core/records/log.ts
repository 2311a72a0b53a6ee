/** The bench log: what was tapped, when, and never changed afterwards. Taking back is a further entry. */
import { ANSWERS } from "./ids";
import { Id, Moment, Num, OneOf, OrNull, Since, Text, Whole } from "./fields";
import type { RecordKind } from "./version";

export const LOG_KINDS = [
  "start",
  "piece",
  "aside",
  "done",
  "check",
  "touch",
  "early",
  "note",
  "plate",
  "back",
] as const;
/** what the ids of steps begin with that piece 1 goes through before the rest */
export const FIRST = "first.";
/** check at the proof: what was ticked where another piece goes first */
export const AGAIN = "again";
export type LogKind = (typeof LOG_KINDS)[number];

export class LogEntry {
  @Whole(1, 1) version: number = 1;
  /** unique; sorts in time order within a job */
  @Id() id!: string;
  @Id() jobId!: string;
  @OneOf(LOG_KINDS) kind!: LogKind;
  @Id() step!: string;
  /** minutes since 1970 UTC, to the second */
  @Moment() at!: number;
  @OrNull() @Whole(1, 100000) piece: number | null = null;
  @OrNull() @OneOf(ANSWERS) answer: (typeof ANSWERS)[number] | null = null;
  /** back: the id of the entry taken back */
  @OrNull() @Id() of: string | null = null;
  /** done: minutes as predicted without learned corrections, and as they were */
  @OrNull() @Num(0, 1e7, "min") predicted: number | null = null;
  @OrNull() @Num(0, 1e7, "min") actual: number | null = null;
  /** done: step kind, for learning */
  @Text(60) stepKind: string = "";
  /** done: what was used, ml, and of which product */
  @OrNull() @Num(0, 1e6, "ml") ml: number | null = null;
  @OrNull() @Id() productId: string | null = null;
  /** climate at the time */
  @OrNull() @Num(-40, 60, "°C") c: number | null = null;
  @OrNull() @Num(0, 1) rh: number | null = null;
  @Text(2000) note: string = "";
  /** check: what was ticked off before the step began */
  @Since(1) @Text(60) tick?: string;
  /** note: mm that a piece lay off when it was put back */
  @Since(7) @Num(0, 1000, "mm") offMm?: number;
}

/** what the ids of originals begin with: pictures that the beam draws are kept as they came */
export const PICTURE_IDS = "picture.";
/** the longest a photo may be, as base64, and the original of a picture: what is taken in must go out in a file that can be read again */
export const PHOTO_CHARS = 6_000_000;
export const ORIGINAL_CHARS = 48_000_000;
export const mostChars = (id: string): number => (id.startsWith(PICTURE_IDS) ? ORIGINAL_CHARS : PHOTO_CHARS);
export class Photo {
  @Whole(1, 1) version: number = 1;
  @Id() id!: string;
  @Id() jobId!: string;
  @Moment() at!: number;
  @Text(200) caption: string = "";
  /** image/jpeg, image/png or image/webp as base64; re-drawn or stripped on the way in, so no place or camera data remains */
  @Text(ORIGINAL_CHARS) data!: string;
}

export const LOG_ENTRY: RecordKind<LogEntry> = { name: "log entry", type: LogEntry, version: 1, migrations: [] };
export const PHOTO: RecordKind<Photo> = { name: "photo", type: Photo, version: 1, migrations: [] };

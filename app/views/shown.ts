/** What screens are given to show: words and figures, each with what it opens to. */
import type { Figures } from "../core/explain/figures";
import type { Answer, Severity } from "../core/records/ids";
import type { WhyAsk } from "../workers/why-api";
import type { Opened } from "./opened";

export interface StepRow {
  id: string;
  /** its number in the batch; null: piece 1 goes through it alone */
  n: number | null;
  title: string;
  minutes: string;
  minutesWhy: Opened;
  waitWhy: Opened;
  done: boolean;
  now: boolean;
  byHand: boolean;
  wait: string | null;
  waitFor: string | null;
  opens: number | null;
  closes: number | null;
  snags: number;
}

export interface RailBlock {
  id: string;
  /** its number in the batch; null: piece 1 goes through it alone */
  n: number | null;
  title: string;
  minutes: number;
  state: "done" | "now" | "todo";
  /** shown over it when the day or the hour is worth saying */
  when: string;
  whenWhy: Opened;
  /** minutes between its end and the next step, and how many of them are closed hours */
  gap: number;
  closed: number;
  gapText: string;
  end: number | null;
  /** share of this gap or block that is past, when now lies in it */
  nowIn: { part: "work" | "gap"; share: number } | null;
}

export interface SnagRow {
  rule: number;
  where: string;
  severity: Severity;
  why: string;
  place: string | null;
  step: string | null;
  numbers: string;
  waived: string | null;
  fixes: { id: string; label: string; preview: string | null }[];
  /** its fixes are tried once the snags before it are dealt with */
  later: boolean;
}

export interface StepCardData {
  id: string;
  title: string;
  kind: string;
  index: number;
  place: string;
  /** piece 1 goes through it alone: what is changed here is changed of the batch’s step */
  first: boolean;
  /** null: no time for it yet */
  begins: { text: string; why: Opened } | null;
  purpose: string;
  tool: string;
  load: { text: string; why: Opened } | null;
  time: { text: string; why: Opened };
  cues: string[];
  /** exercises that are about it */
  practice: { id: string; name: string }[];
  /** lessons of the shop that are told at it */
  lessons: { id: string; text: string }[];
  /** where what it is held against is a figure of the plan */
  lookWhy: Opened | null;
  lookFor: { look: string; how: string; against: string };
  then: { text: string; why: Opened } | null;
  laser: { text: string; from: string; why: Opened } | null;
  depth: { text: string; why: Opened } | null;
  /** latest beginning that keeps the due date */
  latest: { text: string; why: Opened } | null;
  /** what the look at it showed at the bench */
  answer: Answer | null;
  fields: { name: string; label: string; value: string; from: string; unit: string }[];
  product: { value: string; options: { value: string; label: string }[] } | null;
  role: string | null;
  zones: { id: string; name: string; on: boolean }[];
  canWarmed: boolean | null;
  byLoad: boolean | null;
  before: string | null;
  beforeThat: string | null;
  next: string | null;
  kinds: { id: string; name: string }[];
  blocked: string | null;
  figures: (Figures & { ask: WhyAsk | null })[];
  /** pages of the field guide that speak of it */
  guide: { to: string; name: string }[];
  method: string | null;
  mask: { value: string; options: { value: string; label: string }[] } | null;
}

export interface RackRow {
  id: string;
  title: string;
  is: "ready" | "waiting" | "missed" | "done";
  /** the step to come */
  next: string;
  state: string | null;
  words: string;
  from: number;
  opens: number | null;
  closes: number | null;
  reopens: number | null;
  /** what the figures of its clock are made of */
  why: Opened;
  /** when its last coat was laid, where it stands in the sun or warm air; null: it does not */
  sunSince: number | null;
}

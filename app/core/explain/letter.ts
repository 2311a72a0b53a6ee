/** Papers for who ordered a job: a quote before it is made, a note of what is handed over. */
import { listWords, plural, showLength } from "../units/show";
import { showMoney } from "../units/money";
import { priceFor } from "../models/money/money";
import { said } from "../units/said";
import { showDay } from "../time/zoned";
import type { Plan } from "../plan/plan";
import type { Job } from "../records/job";
import { costOf } from "./cost";

export interface Letter {
  kind: "Quote" | "Delivery note";
  shop: string;
  client: string;
  title: string;
  jobId: string;
  date: string;
  /** what is made, a line each */
  what: string[];
  rows: { what: string; n: number; each: string; sum: string }[];
  total: string | null;
  /** sentences beneath */
  notes: string[];
}

/** share of a price that stays where nobody has said */
export const MARGIN = 0.4;
/** days that a quote holds */
const HOLDS_DAYS = 30;

/** What a piece is sold at, minor units: as typed, else by the margin; null: nothing is known to reckon it from. */
export function priceOf(plan: Plan): number | null {
  const { job, world } = plan.context;
  const { rates } = (world.elsewhere ?? world).shop;
  const cost = costOf(plan);
  const known = cost.eachMinor > 0 ? priceFor(cost.eachMinor, job.price?.margin ?? rates?.margin ?? MARGIN) : null;
  return job.price?.eachMinor ?? known;
}

const sizeOf = ({ substrate: s }: Job, units: Plan["context"]["world"]["shop"]["units"]): string =>
  [s.w, s.h].map((mm) => showLength(mm, units)).join(" × ");
const colours = (plan: Plan): string => {
  const c = plan.context;
  return listWords([...new Set(c.filled.map((z) => c.paintOf(z.productId as string).product.name))]);
};

function begun(plan: Plan, kind: Letter["kind"], now: number): Omit<Letter, "rows" | "total" | "notes"> {
  const c = plan.context;
  const { job, world } = c;
  return {
    kind,
    shop: (world.elsewhere ?? world).shop.name,
    client: job.client,
    title: job.title,
    jobId: job.id,
    date: showDay(c.clock, now),
    what: [
      `${c.substrate.name}, ${sizeOf(job, world.shop.units)}`,
      ...(c.route ? [said(c.route.gives, world.shop.units)] : []),
      ...(colours(plan) ? [`Colours: ${colours(plan)}`] : []),
      ...(job.order.text ? [job.order.text] : []),
      ...(job.credit ? [`Artwork: ${job.credit}`] : []),
    ],
  };
}

/** @param now min since 1970 */
export function quoteOf(plan: Plan, now: number): Letter {
  const c = plan.context;
  const { job, world } = c;
  const { currency, language } = (world.elsewhere ?? world).shop;
  const each = priceOf(plan);
  const sum = each === null ? null : each * job.quantity;
  const money = (m: number | null): string => (m === null ? "to be agreed" : showMoney(m, currency, language));
  return {
    ...begun(plan, "Quote", now),
    rows: [{ what: job.title, n: job.quantity, each: money(each), sum: money(sum) }],
    total: money(sum),
    notes: [
      plan.ready === null
        ? "When it is ready will be said."
        : `Ready by ${showDay(c.clock, plan.ready)} if agreed now.`,
      `This quote holds for ${HOLDS_DAYS} days. A proof is shown before the set is made where more than two are ordered.`,
    ],
  };
}

/** Pieces that are handed over: those said to be good, else those that were not put aside, no more than were ordered. */
export function handedOver(plan: Plan): number[] {
  const { job, pieces } = plan.context;
  const marked = job.wrapUp.pieces ?? [];
  const lost = new Set([...plan.bench.aside, ...marked.filter((p) => p.is !== "good").map((p) => p.n)]);
  const good = Array.from({ length: pieces }, (_v, i) => i + 1).filter((n) => !lost.has(n));
  return good.slice(0, job.wrapUp.good ?? job.quantity);
}

/** @param now min since 1970 */
export function noteOf(plan: Plan, now: number): Letter {
  const { job } = plan.context;
  const over = handedOver(plan);
  const open = job.quantity - over.length;
  return {
    ...begun(plan, "Delivery note", now),
    rows: [{ what: `${job.title}: pieces ${rangesOf(over) || "none"}`, n: over.length, each: "", sum: "" }],
    total: null,
    notes: [
      open > 0 ? `${plural(open, "piece")} of ${job.quantity} still to come.` : `All ${job.quantity} ordered are here.`,
      ...(job.order.proofAccepted ? [`The proof was accepted on ${job.order.proofAccepted.replace("T", ", ")}.`] : []),
      "Received in good order: ______________________",
    ],
  };
}

/** Runs of numbers in words: `1-4, 6`. */
export function rangesOf(numbers: readonly number[]): string {
  const out: string[] = [];
  for (let i = 0; i < numbers.length;) {
    let j = i;
    while (j + 1 < numbers.length && numbers[j + 1] === numbers[j] + 1) j++;
    out.push(j > i ? `${numbers[i]}–${numbers[j]}` : String(numbers[i]));
    i = j + 1;
  }
  return out.join(", ");
}

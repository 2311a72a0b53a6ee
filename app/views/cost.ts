/** What the Cost page shows: parts as planned beside what they were, what a piece is sold at, what lost pieces had cost by then. */
import { blankMatches } from "../core/catalogue/blanks";
import { costOf, costSoFar, lostPieces, sumWords, type Cost, type CostPart, type PriceAt } from "../core/explain/cost";
import { MARGIN } from "../core/explain/letter";
import { marginOf, priceFor } from "../core/models/money/money";
import type { Plan } from "../core/plan/plan";
import { showMoney, typedMoney } from "../core/units/money";
import { showShare } from "../core/units/show";
import { saidAll } from "../core/units/said";

export interface CostRow {
  id: string;
  name: string;
  how: string;
  planned: string;
  plannedMinor: number | null;
  was: string;
  wasHow: string | null;
  lacks: string | null;
  /** where what is lacking is typed in */
  to: string;
}
const pathOf = ({ of, id }: PriceAt): string =>
  of === "product"
    ? `/shelf?product=${encodeURIComponent(id)}`
    : of === "blanks"
      ? "/shelf?blanks=all"
      : "/workshop/money";

export function costView(plan: Plan) {
  return saidAll(costViewIn(plan), plan.context.world.shop.units);
}
function costViewIn(plan: Plan) {
  const { job, world, pieces } = plan.context;
  const facts = world.elsewhere ?? world;
  const { shop } = facts;
  const { currency, language } = shop;
  const money = (minor: number | null): string => showMoney(minor, currency, language);
  const planned = costOf(plan);
  const was = costSoFar(plan);
  const rows = planned.parts.map((p): CostRow => {
    const mine: CostPart | undefined = was?.parts.find((x) => x.id === p.id);
    return {
      id: p.id,
      name: p.name,
      how: p.how,
      planned: money(p.minor),
      plannedMinor: p.minor,
      was: mine ? money(mine.minor) : "",
      wasHow: mine?.how ?? null,
      lacks: p.lacks,
      to: pathOf(p.at),
    };
  });
  const margin = job.price?.margin ?? shop.rates?.margin ?? MARGIN;
  const asked = job.price?.eachMinor ?? null;
  const wouldBe = planned.eachMinor > 0 ? priceFor(planned.eachMinor, margin) : null;
  const each = asked ?? wouldBe;
  const stays = each === null ? null : marginOf(planned.eachMinor, each);
  const sum = (c: Cost) => ({ all: sumWords(c, shop), each: sumWords({ ...c, totalMinor: c.eachMinor }, shop) });
  const lost = lostPieces(plan);
  return {
    job,
    world,
    pieces,
    rows,
    planned: { ...sum(planned), atLeast: planned.atLeast, known: planned.totalMinor > 0 },
    // how many are good is known once somebody has said so; nothing that has a price yet is no sum
    was: was && was.totalMinor > 0 ? { ...sum(was), good: job.wrapUp.good || null } : null,
    lost: lost.map((l) => ({ ...l, text: sumWords({ totalMinor: l.minor, atLeast: l.atLeast }, shop) })),
    lostSum: lost.length
      ? sumWords({ totalMinor: lost.reduce((a, l) => a + l.minor, 0), atLeast: lost.some((l) => l.atLeast) }, shop)
      : null,
    margin: {
      value: job.price?.margin === undefined ? "" : `${Math.round(job.price.margin * 1000) / 10} %`,
      from:
        job.price?.margin !== undefined
          ? "typed"
          : shop.rates?.margin !== undefined
            ? `the shop’s: ${showShare(margin)}`
            : `default: ${showShare(margin)}`,
    },
    price: {
      value: asked === null ? "" : typedMoney(asked, currency),
      from: asked !== null ? "typed" : wouldBe === null ? "not said" : `by the margin: ${money(wouldBe)}`,
    },
    eachMinor: each,
    eachText: each === null ? null : money(each),
    allText: each === null ? null : money(each * job.quantity),
    stays: stays === null ? null : { share: stays, text: showShare(Math.abs(stays)) },
    currency,
    language,
    lots: (shop.blanks ?? [])
      .filter((l) => blankMatches(l, job.substrate) || l.id === job.blankLot)
      .map((l) => ({ value: l.id, label: l.name })),
  };
}

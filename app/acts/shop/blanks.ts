/** Blanks that lie here: lots put in, counted, turned away with a reason, taken out. */
import { rejected } from "../../core/catalogue/blanks";
import { isSubstrate } from "../../core/catalogue/substrates";
import { Text } from "../../core/records/fields";
import { LotForm, RejectForm } from "../../core/records/forms";
import type { BlankLot, Shop } from "../../core/records/shop";
import { shopClock } from "../../core/time/zoned";
import { nowMinutes } from "../../clock";
import { Refused } from "../../store/acts";
import { act, FieldForm, freeId, readField, type Readers } from "../act";
import { typed } from "../answer";
import { changedShop, type InShop } from "./shop";

class LotId {
  @Text(120) id!: string;
}
class LotField extends FieldForm {
  @Text(120) id!: string;
}
class RejectId extends LotId {
  @Text(20) at!: string;
  @Text(20) n!: string;
  @Text(200) why: string = "";
}

const sized = (v: string, units: Shop["units"]): number => {
  const mm = typed.length(v, units);
  if (!(mm > 0)) throw new Refused("A blank has some width, height and thickness.");
  return mm;
};
/** A count that may not be less than what is turned away. */
function count(v: string, lot: BlankLot): number {
  const n = typed.whole(v);
  const away = rejected(lot);
  if (n < away) throw new Refused(`${n} are fewer than the ${away} that were turned away.`);
  return n;
}
const FIELDS: Readers<BlankLot, { s: Shop; lot: BlankLot }> = {
  name: (v) => ({ name: v.trim() || "Blanks" }),
  w: (v, { s }) => ({ w: sized(v, s.units) }),
  h: (v, { s }) => ({ h: sized(v, s.units) }),
  t: (v, { s }) => ({ t: sized(v, s.units) }),
  came: (v, { lot }) => ({ came: count(v, lot) }),
  otherwise: (v) => ({ otherwise: v.trim() ? typed.whole(v) : undefined }),
  eachMinor: (v, { s }) => ({ eachMinor: typed.money(v, s.currency) }),
  note: (v) => ({ note: v }),
};
const today = (s: Shop): string => shopClock(s).toLocal(Math.floor(nowMinutes())).slice(0, 10);
const changedLot = (id: string, what: string, more: (lot: BlankLot, s: Shop) => Partial<BlankLot>): Promise<void> =>
  changedShop(what, (s) => {
    if (!s.blanks?.some((l) => l.id === id)) throw new Refused("This lot is no longer there; read the page anew.");
    return { blanks: s.blanks.map((l) => (l.id === id ? { ...l, ...more(l, s) } : l)) };
  });

export const blankActs = [
  act("lot-add", LotForm, (f, { shop }: InShop) => {
    if (!isSubstrate(f.substrate)) throw new Refused(`There is no material “${f.substrate}”.`);
    const lots = shop.blanks ?? [];
    const name = f.name.trim() || "Blanks";
    const lot: BlankLot = {
      id: freeId(
        name,
        lots.map((l) => l.id),
        "lot",
      ),
      name,
      substrate: f.substrate,
      w: sized(f.w, shop.units),
      h: sized(f.h, shop.units),
      t: sized(f.t, shop.units),
      ...(f.diameter.trim() ? { diameter: sized(f.diameter, shop.units) } : {}),
      came: typed.whole(f.came),
      cameOn: today(shop),
      note: "",
    };
    const eachMinor = typed.money(f.each, shop.currency);
    const made = eachMinor === undefined ? lot : { ...lot, eachMinor };
    return changedShop(`“${name}” among the blanks`, (s) => ({ blanks: [...(s.blanks ?? []), made] }));
  }),
  act("lot", LotField, (f, _c: InShop) => changedLot(f.id, "blanks", (lot, s) => readField(FIELDS, f, { s, lot }))),
  act("lot-reject", RejectForm, (f, _c: InShop) =>
    changedLot(f.id, "blanks turned away", (lot, s) => {
      const n = typed.whole(f.n);
      const away = rejected(lot);
      if (n + away > lot.came) throw new Refused(`${n + away} would be turned away, and ${lot.came} came.`);
      return { rejects: [...(lot.rejects ?? []), { at: today(s), n, why: f.why.trim() }] };
    }),
  ),
  act("lot-reject-forget", RejectId, (f, _c: InShop) =>
    changedLot(f.id, "blanks turned away", (lot) => {
      const all = lot.rejects ?? [];
      const i = all.findIndex((r) => r.at === f.at && String(r.n) === f.n && r.why === f.why);
      const left = all.filter((_r, k) => k !== i);
      return { rejects: left.length ? left : undefined };
    }),
  ),
  act("lot-remove", LotId, (f, _c: InShop) =>
    changedShop("blanks taken out", (s) => {
      const left = (s.blanks ?? []).filter((l) => l.id !== f.id);
      return { blanks: left.length ? left : undefined };
    }),
  ),
];

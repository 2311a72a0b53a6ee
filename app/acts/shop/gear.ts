/** Ovens, guns, jigs, rotaries. */
import { Text } from "../../core/records/fields";
import { GearForm as NewGear, PocketsForm } from "../../core/records/forms";
import { Gear, GEAR_WORDS, Pockets, type Shop } from "../../core/records/shop";
import { act, FieldForm, freeId, readField, type Readers } from "../act";
import { typed } from "../answer";
import { changedShop, type InShop } from "./shop";

class IdForm {
  @Text(120) id!: string;
}
class GearForm extends FieldForm {
  @Text(120) id!: string;
}

const mm =
  (key: "trayW" | "trayH" | "errorMm" | "gripMm") =>
  (v: string, { units }: Shop) => ({
    [key]: typed.lengthOrNull(v, units),
  });
const FIELDS: Readers<Gear, Shop> = {
  minorPerHour: (v, { currency }) => ({ minorPerHour: typed.money(v, currency) }),
  name: (v) => ({ name: v.trim() || "Unnamed" }),
  notForFood: (v) => ({ notForFood: v === "true" }),
  lowFan: (v) => ({ lowFan: v === "true" }),
  maxC: (v, { units }) => ({ maxC: typed.temperatureOrNull(v, units) }),
  trayW: mm("trayW"),
  trayH: mm("trayH"),
  errorMm: mm("errorMm"),
  gripMm: mm("gripMm"),
};

/** A figure of the pockets, one typed field. */
const POCKET_FIELDS: Readers<Pockets, Shop> = {
  across: (v) => ({ across: typed.whole(v) }),
  down: (v) => ({ down: typed.whole(v) }),
  w: (v, { units }) => ({ w: typed.length(v, units) }),
  h: (v, { units }) => ({ h: typed.length(v, units) }),
  gap: (v, { units }) => ({ gap: typed.length(v, units) }),
  x: (v, { units }) => ({ x: v.trim() ? typed.length(v, units) : 0 }),
  y: (v, { units }) => ({ y: v.trim() ? typed.length(v, units) : 0 }),
};
const changedJig = (id: string, of: (g: Gear) => Gear) =>
  changedShop("pockets of a jig", ({ gear = [] }) => ({ gear: gear.map((g) => (g.id === id ? of(g) : g)) }));

export const gearActs = [
  act("pockets-set", PocketsForm, (f, { shop: { units } }: InShop) => {
    const mm = (v: string): number => (v.trim() ? typed.length(v, units) : 0);
    const pockets: Pockets = {
      across: typed.whole(f.across),
      down: typed.whole(f.down),
      w: mm(f.w),
      h: mm(f.h),
      gap: mm(f.gap),
      x: mm(f.x),
      y: mm(f.y),
    };
    return changedJig(f.id, (g) => ({ ...g, pockets }));
  }),
  act("pockets", GearForm, (f, { shop }: InShop) =>
    changedJig(f.id, (g) =>
      g.pockets ? { ...g, pockets: { ...g.pockets, ...readField(POCKET_FIELDS, f, shop) } } : g,
    ),
  ),
  act("pockets-off", IdForm, (f, _c: InShop) => changedJig(f.id, ({ pockets: _, ...g }) => g)),
  act("gear-add", NewGear, (f, _c: InShop) =>
    changedShop("thing in the Workshop", ({ gear = [] }) => {
      const known = gear.map((g) => g.id);
      const made: Gear = {
        ...new Gear(),
        id: freeId(f.kind, known, f.kind),
        kind: f.kind,
        name: f.name.trim() || GEAR_WORDS[f.kind],
        ...(f.kind === "oven" ? { notForFood: true } : {}),
      };
      return { gear: [...gear, made] };
    }),
  ),
  act("gear-remove", IdForm, (f, _c: InShop) =>
    changedShop("thing taken out of the Workshop", (s) => {
      const left = (s.gear ?? []).filter((g) => g.id !== f.id);
      return { gear: left.length ? left : undefined };
    }),
  ),
  act("gear", GearForm, (f, { shop }: InShop) =>
    changedShop("thing in the Workshop", (s) => ({
      gear: (s.gear ?? []).map((g) => (g.id === f.id ? { ...g, ...readField(FIELDS, f, shop) } : g)),
    })),
  ),
];

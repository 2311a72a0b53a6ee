/** Ovens, guns, jigs, rotaries. */
import { Text } from "../../core/records/fields";
import { GearForm as NewGear } from "../../core/records/forms";
import { Gear, GEAR_WORDS, type Shop } from "../../core/records/shop";
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

export const gearActs = [
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

/** The Shelf: paints put on it and taken off, their figures, cans and swatches. */
import { finishNamed, isFinish } from "../core/catalogue/finishes";
import { defaultProduct, STARTER } from "../core/catalogue/starter";
import { OneOf, Text } from "../core/records/fields";
import { PaintForm, SwatchForm } from "../core/records/forms";
import type { Outcome } from "../core/records/outcome";
import type { Shop } from "../core/records/shop";
import type { UnitSystem } from "../core/units/show";
import { Can, Swatch, type DryTimes, type Product } from "../core/records/product";
import { change, commit, Refused, type Put } from "../store/acts";
import { readHeads, readShop } from "../store/queries";
import { act, colourOf, FieldForm, freeId, perform, readField, tri, type Readers } from "./act";
import { typed } from "./answer";

interface OnShelf {
  products: Product[];
  shop: Shop;
}

class Nothing {}
class ProductForm {
  @Text(120) id!: string;
}
class ProductFieldForm extends FieldForm {
  @Text(120) id!: string;
  /** what a bare temperature is read in; empty: the shop’s */
  @OneOf(["", "metric", "inch"]) units: "" | UnitSystem = "";
}
class PriceForm extends ProductForm {
  @Text(60) value: string = "";
}
class CanFieldForm extends ProductFieldForm {
  @Text(120) can!: string;
}
class CanForm extends ProductForm {
  @Text(120) can!: string;
}
class SwatchIdForm extends ProductForm {
  @Text(120) swatch!: string;
}

const optional =
  (key: keyof Product, read: (v: string, units: UnitSystem) => number) => (v: string, units: UnitSystem) =>
    ({ [key]: v.trim() ? read(v, units) : undefined }) as Partial<Product>;
const FIELDS: Readers<Product, UnitSystem> = {
  name: (v) => ({ name: v.trim() || "Unnamed" }),
  colour: (v) => ({ colour: v.toLowerCase() }),
  finish: (v) => ({ finish: finishNamed(v).id }),
  sheen: (v) => ({ sheen: (v || null) as Product["sheen"] }),
  base: (v) => ({ base: (v || null) as Product["base"] }),
  pigment: (v) => ({ pigment: (v || undefined) as Product["pigment"] }),
  hideUm: (v) => ({ hideUm: typed.numberOrNull(v) }),
  coatUm: (v) => ({ coatUm: typed.numberOrNull(v) }),
  solids: (v) => ({ solids: typed.shareOrNull(v) }),
  minC: (v, units) => ({ minC: typed.temperatureOrNull(v, units) }),
  flowC: optional("flowC", typed.temperature),
  holdC: optional("holdC", typed.temperature),
  holdMin: optional("holdMin", typed.number),
  density: optional("density", typed.number),
  limitC: optional("limitC", typed.temperature),
  packing: optional("packing", typed.share),
  pack: optional("pack", (v) => {
    const n = typed.number(v.replace(/\s*(ml|g|m²|m2|sq m)\s*$/i, ""));
    if (!(n > 0)) throw new Refused("A pack holds more than nothing.");
    return n;
  }),
  chlorinated: (v) => ({ chlorinated: tri(v) }),
  foodRated: (v) => ({ foodRated: v === "true" }),
  clear: (v) => ({ clear: v === "true" }),
  origin: (v) => ({ origin: v as Product["origin"] }),
  note: (v) => ({ note: v }),
};
const CAN: Readers<Can> = {
  label: (v) => ({ label: v.trim() || "Can" }),
  openedOn: (v) => ({ openedOn: v || null }),
  fullMl: (v) => ({ fullMl: typed.volume(v) }),
  leftMl: (v) => ({ leftMl: typed.volumeOrNull(v) }),
  lot: (v) => ({ lot: v }),
  fullG: (v) => ({ fullG: typed.weightOrNull(v) }),
  emptyG: (v) => ({ emptyG: typed.weightOrNull(v) }),
  nowG: (v) => ({ nowG: typed.weightOrNull(v) }),
};
const TIME_KEYS = ["flash", "touch", "recoat", "closes", "reopens", "maskable", "sandable", "laserSafe", "cured"];

const changed = (id: string, label: string, more: (p: Product) => Partial<Product>): Promise<void> =>
  change<Product>(label, "products", id, (p) => ({ ...p, ...more(p) }));
const fresh = (p: Product): Put => ({ table: "products", id: p.id, next: p, base: null });
/** ml of a can that is put on when there is none to go by */
const CAN_ML = { spray: 400, other: 60 };
const numbered = (prefix: string, taken: { id: string }[]): string => {
  for (let n = taken.length + 1; ; n++) if (!taken.some((x) => x.id === `${prefix}${n}`)) return `${prefix}${n}`;
};

const shelfActs = [
  act("add", PaintForm, (f, { products }: OnShelf) => {
    const name = f.name.trim();
    if (!isFinish(f.finish)) throw new Refused(`There is no finish “${f.finish}”.`);
    const known = products.map((p) => p.id);
    const made = defaultProduct(freeId(name, known, "paint"), name, f.finish, colourOf(f.colour));
    return commit(`“${name}” on the Shelf`, [fresh(made)]);
  }),
  act("starter", Nothing, (_f, { products }: OnShelf) => {
    const lacking = STARTER.filter((s) => !products.some((p) => p.id === s.id));
    const made = lacking.map((s) => fresh(defaultProduct(s.id, s.name, s.finish, s.colour)));
    return commit("plain beginnings of a Shelf", made);
  }),
  act("remove", ProductForm, async (f, _c: OnShelf) => {
    const used = (await readHeads()).find((j) => j.open === 1 && j.products.includes(f.id));
    if (used) throw new Refused(`“${used.title}” uses it in a zone. Give the zone another finish first.`);
    return commit("paint taken off the Shelf", [{ table: "products", id: f.id, next: null }]);
  }),
  act("set", ProductFieldForm, (f, { shop }: OnShelf) =>
    changed(f.id, "paint on the Shelf", () => readField(FIELDS, f, f.units || shop.units)),
  ),
  act("price", PriceForm, (f, { shop }: OnShelf) =>
    changed(f.id, "price of a paint", () => ({ priceMinor: typed.money(f.value, shop.currency) })),
  ),
  act("time", ProductFieldForm, (f, _c: OnShelf) => {
    if (!TIME_KEYS.includes(f.field)) throw new Refused(`There is nothing called “${f.field}” here.`);
    const time = { [f.field as keyof DryTimes]: typed.minutesOrNull(f.value) };
    return changed(f.id, "drying time", (p) => ({ times: { ...p.times, ...time } }));
  }),
  act("can-add", ProductForm, (f, _c: OnShelf) =>
    changed(f.id, "can on the Shelf", (p) => {
      const ml = p.cans[0]?.fullMl ?? CAN_ML[finishNamed(p.finish).by === "spray" ? "spray" : "other"];
      const id = numbered(`${p.id}.can`, p.cans);
      return { cans: [...p.cans, { ...new Can(), id, label: `Can ${id.split(".can").pop()}`, fullMl: ml }] };
    }),
  ),
  act("can", CanFieldForm, (f, _c: OnShelf) =>
    changed(f.id, "can on the Shelf", (p) => ({
      cans: p.cans.map((k) => (k.id === f.can ? { ...k, ...readField(CAN, f, undefined) } : k)),
    })),
  ),
  act("can-remove", CanForm, (f, _c: OnShelf) =>
    changed(f.id, "can taken off the Shelf", (p) => ({ cans: p.cans.filter((k) => k.id !== f.can) })),
  ),
  act("swatch-add", SwatchForm, (f, _c: OnShelf) =>
    changed(f.id, "swatch", ({ swatches = [] }) => {
      const made: Swatch = {
        ...new Swatch(),
        id: numbered("swatch.", swatches),
        over: colourOf(f.over),
        seen: colourOf(f.seen),
        coats: typed.whole(f.coats),
        when: f.when,
      };
      return { swatches: [...swatches, made] };
    }),
  ),
  act("swatch-remove", SwatchIdForm, (f, _c: OnShelf) =>
    changed(f.id, "swatch taken out", (p) => {
      const left = (p.swatches ?? []).filter((s) => s.id !== f.swatch);
      return { swatches: left.length ? left : undefined };
    }),
  ),
];

export const shelfAct = (form: Record<string, string>): Promise<Outcome> =>
  perform(
    [shelfActs],
    form,
    async () => {
      const base = await readShop();
      if (!base) throw new Refused("There is no shop here yet.");
      return base;
    },
    (c) => c.shop.units,
  );

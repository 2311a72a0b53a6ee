/** A paint, sealer or clear coat on the Shelf. Every null falls back to the finish's default and is shown as one. */
import { BASES, ORIGINS, PIGMENTS, SHEENS, type Pigment } from "./ids";
import { Colour, Flag, Id, LocalDate, Maybe, Num, OneOf, OrNull, Since, Sub, SubList, Text, Whole } from "./fields";
import type { RecordKind } from "./version";

/** Drying times in minutes at 20 °C, 50 % RH, one normal coat. Null: the finish's default. */
export class DryTimes {
  @OrNull() @Num(0, 1e6, "min") flash: number | null = null;
  @OrNull() @Num(0, 1e6, "min") touch: number | null = null;
  @OrNull() @Num(0, 1e6, "min") recoat: number | null = null;
  @OrNull() @Num(0, 1e6, "min") closes: number | null = null;
  @OrNull() @Num(0, 1e6, "min") reopens: number | null = null;
  @OrNull() @Num(0, 1e6, "min") maskable: number | null = null;
  @OrNull() @Num(0, 1e6, "min") sandable: number | null = null;
  @OrNull() @Num(0, 1e6, "min") laserSafe: number | null = null;
  @OrNull() @Num(0, 1e6, "min") cured: number | null = null;
}

/** One can, jar or bottle: filled by weight or by volume, whichever the maker keeps. */
export class Can {
  @Id() id!: string;
  @Text(60) label!: string;
  @OrNull() @LocalDate() openedOn: string | null = null;
  /** ml when full */
  @Num(0, 1e5, "ml") fullMl!: number;
  /** ml left; counted down by the bench log. Null: never weighed. */
  @OrNull() @Num(0, 1e5, "ml") leftMl: number | null = null;
  /** g full, empty and now, where the can is weighed */
  @OrNull() @Num(0, 1e5, "g") fullG: number | null = null;
  @OrNull() @Num(0, 1e5, "g") emptyG: number | null = null;
  @OrNull() @Num(0, 1e5, "g") nowG: number | null = null;
  @Text(120) lot: string = "";
}

/** A swatch of a product as it was laid and seen. */
export class Swatch {
  @Id() id!: string;
  /** colour beneath, and as seen over it */
  @Colour() over!: string;
  @Colour() seen!: string;
  /** dry µm laid; null: not measured, ordinary coats are counted */
  @OrNull() @Num(0.1, 5000, "µm") um: number | null = null;
  @Whole(1, 50) coats: number = 1;
  @OneOf(["wet", "dry", "after clear"]) when: "wet" | "dry" | "after clear" = "dry";
  @Text(200) note: string = "";
}

export class Product {
  @Whole(1, 1) version: number = 1;
  @Id() id!: string;
  @Text(80) name!: string;
  /** finish id of the catalogue */
  @Id() finish!: string;
  @Colour() colour!: string;
  /** clear coats and sealers let the colour beneath through */
  @Flag() clear: boolean = false;
  @OrNull() @OneOf(SHEENS) sheen: (typeof SHEENS)[number] | null = null;
  @OrNull() @OneOf(BASES) base: (typeof BASES)[number] | null = null;
  /** what colours it; absent: guessed from its colour, never metallic */
  @Since(1) @OneOf(PIGMENTS) pigment?: Pigment;
  /** µm dry at which it hides (M6) */
  @OrNull() @Num(0.1, 5000, "µm") hideUm: number | null = null;
  /** volume solids of what leaves the tool, 0-1 (M7) */
  @OrNull() @Num(0.01, 1) solids: number | null = null;
  /** µm dry in one normal coat (M7) */
  @OrNull() @Num(0.1, 5000, "µm") coatUm: number | null = null;
  /** °C below which it does not dry (M8) */
  @OrNull() @Num(-20, 40, "°C") minC: number | null = null;
  @Sub(() => DryTimes) times: DryTimes = new DryTimes();
  /** Holds chlorine (vinyl, PVC)? Null: not known. */
  @OrNull() @Flag() chlorinated: boolean | null = null;
  /** powder: °C at which it flows, °C and minutes that cure it, share filled when pressed in, mg/mm³ fused; absent: the finish's */
  @Maybe() @Num(40, 400, "°C") flowC?: number;
  @Maybe() @Num(40, 400, "°C") holdC?: number;
  @Maybe() @Num(1, 240, "min") holdMin?: number;
  @Maybe() @Num(0.2, 0.8) packing?: number;
  @Maybe() @Num(0.5, 5, "g/ml") density?: number;
  /** swatches laid here; absent while there are none */
  @Maybe() @SubList(() => Swatch, 100) swatches?: Swatch[];
  /** tape or film: °C past which it fails */
  @Maybe() @Num(20, 400, "°C") limitC?: number;
  /** rated for food contact by its maker */
  @Flag() foodRated: boolean = false;
  /** where the filled-in fields came from */
  @OneOf(ORIGINS) origin: (typeof ORIGINS)[number] = "data sheet";
  @Text(2000) note: string = "";
  @SubList(() => Can, 50) cans: Can[] = [];
  /** of one pack, in minor units of the shop’s currency; absent: not known */
  @Since(7) @Whole(0, 1e9) priceMinor?: number;
  /** what one pack holds: ml, g of powder, m² of tape or film; absent: ml of its first can, else not known */
  @Since(7) @Num(0.001, 1e6) pack?: number;
}

export const PRODUCT: RecordKind<Product> = { name: "product", type: Product, version: 1, migrations: [] };

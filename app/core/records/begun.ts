/**
 * What a job that has begun is made by: the workshop, its machines and its Shelf as they were when the first tap fell, the steps that
 * are done as they were done, and which steps the plan had. Changes elsewhere reach such a job only when the maker takes them over.
 */
import { Flag, Id, Maybe, Moment, Num, OneOf, OrNull, Since, Sub, SubList, Text, TextList, Whole } from "./fields";
import { COAT_ROLES } from "./ids";
import { Machine } from "./machine";
import { Product } from "./product";
import { Shop } from "./shop";

/** A setting of the beam as it was in force. */
export class DoneSetting {
  @Num(0, 1) power!: number;
  @Num(0, 50000, "mm/s") speed!: number;
  @Num(0, 10, "mm") interval!: number;
  @Whole(0, 1000) passes!: number;
  @OneOf(["computed", "test plate", "typed"]) from!: "computed" | "test plate" | "typed";
}

/** Figures that were typed. */
export class DoneTyped {
  @Maybe() @Num(0, 1) power?: number;
  @Maybe() @Num(0, 50000, "mm/s") speed?: number;
  @Maybe() @Num(0, 10, "mm") interval?: number;
  @Maybe() @Whole(0, 1000) passes?: number;
}

/** A step as it was done: what every step has, and what its kind has besides. */
export class DoneStep {
  @Id() id!: string;
  @Text(60) kind!: string;
  @Text(400) title!: string;
  @TextList(400) zones!: string[];
  @OrNull() @Num(0, 1e7, "min") minutes: number | null = null;
  @OrNull() @Num(0, 1e7, "min") waitMin: number | null = null;
  @Text(4000) note: string = "";
  @OneOf(["plan", "edit"]) origin!: "plan" | "edit";
  @TextList(100) edited!: string[];
  @Maybe() @OrNull() @Id() productId?: string | null;
  @Maybe() @OrNull() @OneOf(COAT_ROLES) role?: (typeof COAT_ROLES)[number] | null;
  @Maybe() @OrNull() @Num(0, 1e5) coat?: number | null;
  @Maybe() @OrNull() @Num(0, 1e5, "µm") dryUm?: number | null;
  @Maybe() @OrNull() @Num(0, 1e4, "mm") wishMm?: number | null;
  @Maybe() @OrNull() @Num(0, 1e4, "mm") depthMm?: number | null;
  @Maybe() @OrNull() @Num(0, 1e5, "µm") sandUm?: number | null;
  @Maybe() @OrNull() @Sub(() => DoneSetting) laser?: DoneSetting | null;
  @Maybe() @OrNull() @Sub(() => DoneTyped) typed?: DoneTyped | null;
  @Maybe() @OrNull() @Num(-40, 90, "°C") roomC?: number | null;
  @Maybe() @OrNull() @Num(0, 1) roomRh?: number | null;
  @Maybe() @Flag() canWarmed?: boolean;
  @Maybe() @OrNull() @OneOf(["gun", "oven", "laser"]) method?: "gun" | "oven" | "laser" | null;
  @Maybe() @Flag() wetInWet?: boolean;
  @Maybe() @Flag() byLoad?: boolean;
}

export class Begun {
  /** minutes since 1970 UTC: when the first tap fell, or when changes were last taken over */
  @Moment() at!: number;
  @Sub(() => Shop) shop!: Shop;
  @SubList(() => Machine, 200) machines!: Machine[];
  @SubList(() => Product, 2000) products!: Product[];
  /** steps begun or done, in order, as they were in force */
  @SubList(() => DoneStep, 2000) done!: DoneStep[];
  /** ids of all steps of the plan that it is made by */
  @TextList(5000) steps!: string[];
  /** pieces it was begun with; absent: before that was kept, or as many as are ordered */
  @Since(1) @Whole(1, 2e6) pieces?: number;
  /** mark of the shop whose changes were looked at and left; absent: none were */
  @Maybe() @Text(40) left?: string;
}

/** What can be changed in place of a step, and how it is checked. */
import { COAT_ROLES, type CoatRole } from "../records/ids";
import type { PlanEdit } from "../records/job";
import type { Context } from "../process/context";
import { own, type Step } from "../process/kinds";
import type { Heat, LaserSetting, OwnField, OwnFields, StepBase } from "../process/step";
import { MOST_PASSES } from "../process/settings";
import { showLength, showSpeed } from "../units/show";
import { coatName } from "./builder";

type Value = PlanEdit["value"];
/** fields with their new values */
type Change = Partial<Omit<StepBase, "kind"> & OwnFields>;
interface Field {
  label: string;
  unit: string;
  /** what changes, or why it can't, as the end of “… of this step …” */
  set(s: Step, v: Value, c: Context): Change | string;
}

const lacks = (s: Step, key: OwnField | "minutes" | "waitMin"): boolean => !(key in s);
const within = (v: Value, min: number, max: number): v is number => typeof v === "number" && v >= min && v <= max;
const range = (min: number, max: number): string => `needs a number from ${min} to ${max}`;

type NumberField = "dryUm" | "wishMm" | "sandUm" | "minutes" | "waitMin" | "roomC" | "roomRh";
const number = (key: NumberField, label: string, unit: string, min: number, max: number): Field => ({
  label,
  unit,
  set: (s, v) => {
    if (v === null) return {};
    if (!within(v, min, max)) return range(min, max);
    return lacks(s, key) ? "can’t be set: it has none" : { [key]: v };
  },
});
const laser = (
  key: Exclude<keyof LaserSetting, "from">,
  label: string,
  unit: string,
  min: number,
  max: number,
  /** what was probably meant by a figure out of range; null: nobody could say */
  meant: (v: number) => string | null = () => null,
): Field => ({
  label,
  unit,
  set: (s, v) => {
    if (v === null) return {};
    if (!within(v, min, max)) {
      const guess = typeof v === "number" && Number.isFinite(v) ? meant(v) : null;
      const span = key === "power" ? `needs a number from ${min * 100} % to ${max * 100} %` : range(min, max);
      return span + (guess ? `; did you mean ${guess}?` : "");
    }
    if (key === "passes" && !Number.isInteger(v)) return `needs a whole number from ${min} to ${max}`;
    return lacks(s, "typed") ? "has no laser setting" : { typed: { ...own(s, "typed"), [key]: v } };
  },
});
/** mm between lines that anybody burns */
const MOST_INTERVAL_MM = 1;
/** A slip of the point, a sign, another unit. */
const meantPower = (v: number): string | null =>
  v > 1 && v / 100 <= 1 ? `${Math.round(v * 10) / 10} %` : v < 0 && v >= -1 ? `${Math.round(-v * 1000) / 10} %` : null;
const meantSpeed = (v: number): string | null =>
  v > 0
    ? `${showSpeed(v / 60).split(" · ")[0]} (${Math.round(v)} mm/min)`
    : v < 0
      ? showSpeed(-v).split(" · ")[0]
      : null;
const meantInterval = (v: number): string | null =>
  v > MOST_INTERVAL_MM && v < 100
    ? showLength(v / 100)
    : v >= 100
      ? `${Math.round(v)} dpi, ${showLength(25.4 / v)}`
      : null;
const flag = (key: "canWarmed" | "byLoad", label: string): Field => ({
  label,
  unit: "",
  set: (s, v) => {
    if (v !== null && typeof v !== "boolean") return "needs true or false";
    return lacks(s, key) ? "can’t be set: it has none" : { [key]: v === true };
  },
});
const oneOf = <T extends string>(list: readonly T[], v: Value): T | null => list.find((x) => x === v) ?? null;

const HEATS: readonly Heat[] = ["gun", "oven", "laser"];

export const FIELDS: Record<string, Field> = {
  title: {
    label: "Name",
    unit: "",
    set: (_s, v) => (v === null ? {} : typeof v === "string" && v.trim() ? { title: v.trim() } : "needs a name"),
  },
  note: { label: "Note", unit: "", set: (_s, v) => ({ note: typeof v === "string" ? v : "" }) },
  dryUm: number("dryUm", "Film, dry", "µm", 0.1, 5000),
  depthMm: number("wishMm", "Depth", "mm", 0.01, 50),
  sandUm: number("sandUm", "Sanded off", "µm", 0, 20000),
  minutes: number("minutes", "Minutes", "min", 0, 1e5),
  waitMin: number("waitMin", "Wait after it", "min", 0, 1e6),
  roomC: number("roomC", "Dried at", "°C", -20, 40),
  roomRh: number("roomRh", "Humidity there", "", 0, 1),
  power: laser("power", "Power", "share", 0.001, 1, meantPower),
  speed: laser("speed", "Speed", "mm/s", 0.1, 50000, meantSpeed),
  interval: laser("interval", "Interval", "mm", 0.005, MOST_INTERVAL_MM, meantInterval),
  passes: laser("passes", "Passes", "", 1, MOST_PASSES),
  canWarmed: flag("canWarmed", "Can warmed"),
  byLoad: flag("byLoad", "Load by load"),
  productId: {
    label: "Product",
    unit: "",
    set: (s, v, c) => {
      if (v === null) return {};
      const paint = typeof v === "string" ? c.paint(v) : null;
      if (!paint) return "names a product that is not on the Shelf";
      if (lacks(s, "productId")) return "can’t be set: it lays nothing";
      return {
        productId: paint.product.id,
        ...(lacks(s, "dryUm") ? {} : { dryUm: paint.coatUm.value }),
        ...(s.kind === "coat" ? { title: coatName(paint.product.name, s.coat ?? 1) } : {}),
      };
    },
  },
  maskId: {
    label: "Mask",
    unit: "",
    set: (s, v, c) => {
      if (v === null) return {};
      const tape = typeof v === "string" ? c.paint(v) : null;
      if (!tape?.mask) return "names a tape that is not on the Shelf";
      return lacks(s, "productId") ? "can’t be set: it lays nothing" : { productId: tape.product.id };
    },
  },
  method: {
    label: "Melted with",
    unit: "",
    set: (s, v) => {
      const method = oneOf(HEATS, v);
      if (v !== null && !method) return "names no way of melting";
      return lacks(s, "method") ? "can’t be set: it melts nothing" : { method };
    },
  },
  role: {
    label: "Purpose",
    unit: "",
    set: (s, v) => {
      const role = oneOf<CoatRole>(COAT_ROLES, v);
      if (!role) return "names no purpose of a coat";
      return lacks(s, "role") ? "can’t be set: it is no coat" : { role };
    },
  },
  zones: {
    label: "Zones",
    unit: "",
    set: (_s, v, c) => {
      if (typeof v !== "string") return "needs zone ids";
      const zones = v
        .split(",")
        .map((x) => x.trim())
        .filter(Boolean);
      const lost = zones.find((z) => !c.allZones.includes(z));
      return lost ? `names the zone “${lost}”, which the artwork no longer has` : { zones };
    },
  },
};

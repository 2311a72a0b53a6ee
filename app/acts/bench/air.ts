/** The air read at the bench: by eye, or by the shop's sensor. It overrules the curve at once. */
import { ReadingForm } from "../../core/records/forms";
import type { Shop } from "../../core/records/shop";
import { shopClock } from "../../core/time/zoned";
import { nowMinutes } from "../../clock";
import { sense } from "../../simulators/sensor";
import { change } from "../../store/acts";
import { act } from "../act";
import { typed } from "../answer";
import type { AtBench } from "./tap";

/** readings that are kept; older ones have done their work */
const READINGS_KEPT = 2000;

export const air = [
  act("reading", ReadingForm, async (f, { world: { shop } }: AtBench) => {
    const at = nowMinutes();
    const r = f.sensor
      ? sense(shop.climate, at, shopClock(shop).minuteOfDay(Math.floor(at)))
      : { c: typed.temperature(f.c, shop.units), rh: typed.percent(f.rh) };
    await change<Shop>("reading of the air", "shop", "shop", (s) => ({
      ...s,
      climate: {
        ...s.climate,
        measured: true,
        readings: [...(s.climate.readings ?? []), { at: Math.floor(at), ...r }].slice(-READINGS_KEPT),
      },
    }));
    return `Read: ${Math.round(r.c * 10) / 10} °C, ${Math.round(r.rh * 100)} %`;
  }),
];

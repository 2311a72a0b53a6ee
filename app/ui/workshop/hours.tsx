/** Opening hours of each weekday, days off, time zone. */
import type { Shop } from "../../core/records/shop";
import { WEEKDAYS } from "../../core/time/hours";
import { DAY_WORDS, spanInWords } from "../../views/hours";
import { PickField, TextField, TickField } from "../kit/field";
import { WhenField } from "../kit/when-field";
import { DaysOff } from "./days-off";

/** Time zones that the browser knows, with the shop's own and plain UTC. */
const zonesWith = (own: string): string[] => [...new Set([own, "UTC", ...Intl.supportedValuesOf("timeZone")])];

/** Opening hours of each weekday, days off, time zone. */
export function HoursPart({ shop }: { shop: Shop }) {
  return (
    <div className="grid items-start gap-x-12 gap-y-4 xl:grid-cols-[minmax(0,26rem)_minmax(0,1fr)]">
      <div className="flex max-w-[26rem] flex-col gap-3">
        {WEEKDAYS.map((d) => (
          <div
            key={d}
            className="grid grid-cols-2 items-end gap-x-3 *:first:max-lg:col-span-2 lg:grid-cols-[--spacing(35)_1fr_1fr]"
          >
            <TickField
              action="/workshop"
              name={`${d}.open`}
              label={DAY_WORDS[d]}
              value={shop.hours[d] !== null}
              extra={{ intent: "hours" }}
            />
            {shop.hours[d] && (
              <>
                <WhenField
                  action="/workshop"
                  name={`${d}.from`}
                  label={`${DAY_WORDS[d]} from`}
                  kind="time"
                  zone={shop.zone}
                  hideLabel
                  value={shop.hours[d][0]}
                  extra={{ intent: "hours" }}
                />
                <WhenField
                  action="/workshop"
                  name={`${d}.to`}
                  label={`${DAY_WORDS[d]} to`}
                  kind="time"
                  zone={shop.zone}
                  hideLabel
                  value={shop.hours[d][1]}
                  extra={{ intent: "hours" }}
                />
              </>
            )}
          </div>
        ))}
        <TextField
          action="/workshop"
          name="sprayHours"
          label="Spraying only from, to"
          from={shop.sprayHours ? undefined : "default: whenever open"}
          value={shop.sprayHours ? spanInWords(shop.sprayHours, shop) : ""}
          placeholder={spanInWords(["10:00", "16:00"], shop)}
          hint="daylight outdoors, neighbours; brushing and waiting go on outside them"
        />
        <PickField
          action="/workshop"
          name="zone"
          label="Time zone"
          value={shop.zone}
          options={zonesWith(shop.zone).map((z) => ({ value: z, label: z.replaceAll("_", " ") }))}
        />
        <p className="tag">Waits run through nights and days off; the laser never runs with nobody there.</p>
      </div>
      <DaysOff shop={shop} />
    </div>
  );
}

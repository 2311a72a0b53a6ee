/** Opening hours of each weekday, days off, time zone. */
import { SOMEWHERE, type Shop } from "../../core/records/shop";
import { WEEKDAYS } from "../../core/time/hours";
import { outdoorsOn } from "../../core/time/outdoors";
import { shopClock, showClock } from "../../core/time/zoned";
import { showTemp } from "../../core/units/show";
import { DAY_WORDS, spanInWords } from "../../views/hours";
import { PickField, TextField, TickField } from "../kit/field";
import { WhenField } from "../kit/when-field";
import { DaysOff } from "./days-off";

/** Time zones that the browser knows, with the shop's own and plain UTC. */
const zonesWith = (own: string): string[] => [...new Set([own, "UTC", ...Intl.supportedValuesOf("timeZone")])];

const DAYS_SHOWN = [
  { name: "21 June", day: Date.UTC(2026, 5, 21) / 86_400_000 },
  { name: "21 December", day: Date.UTC(2026, 11, 21) / 86_400_000 },
];
/** Spraying in the open: where that is, how cold and warm it gets there, and the hours that come of it. */
function OutdoorsFields({ shop }: { shop: Shop }) {
  const o = shop.outdoors;
  const e = { intent: "outdoors" };
  const clock = shopClock(shop);
  const nowhere = o?.latitude === SOMEWHERE.latitude && o.longitude === SOMEWHERE.longitude;
  const degrees = (c: number | undefined): string => (c === undefined ? "" : showTemp(c, shop.units));
  return (
    <fieldset className="flex flex-col gap-3">
      <TickField action="/workshop" name="on" label="Spraying is done outdoors" value={o !== undefined} extra={e} />
      {o && (
        <>
          <div className="grid grid-cols-2 gap-3">
            <TextField
              action="/workshop"
              name="latitude"
              label="Latitude, °"
              from={nowhere ? "default" : undefined}
              value={String(o.latitude)}
              hint="south below 0"
              extra={e}
            />
            <TextField
              action="/workshop"
              name="longitude"
              label="Longitude, °"
              from={nowhere ? "default" : undefined}
              value={String(o.longitude)}
              hint="west below 0"
              extra={e}
            />
            <TextField action="/workshop" name="coldC" label="At sunrise now" value={degrees(o.coldC)} extra={e} />
            <TextField
              action="/workshop"
              name="warmC"
              label="In the afternoon now"
              value={degrees(o.warmC)}
              extra={e}
            />
            <TextField
              action="/workshop"
              name="leastC"
              label="Not below"
              from={o.leastC === SOMEWHERE.leastC ? "default" : undefined}
              value={degrees(o.leastC)}
              extra={e}
            />
          </div>
          <p className="tag" data-daylight>
            {DAYS_SHOWN.map(({ name, day }) => {
              const open = outdoorsOn(day, o);
              const at = (m: number): string => showClock(clock, m);
              return `${name}: ${open ? `${at(open.from)} to ${at(open.to)}` : "not at all"}`;
            }).join("; ")}
            . Pieces are brought in to dry.
          </p>
        </>
      )}
    </fieldset>
  );
}

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
          hint="neighbours, a box that is shared; brushing and waiting go on outside them"
        />
        <TextField
          action="/workshop"
          name="loudHours"
          label="Loud work only from, to"
          from={shop.loudHours ? undefined : "default: whenever open"}
          value={shop.loudHours ? spanInWords(shop.loudHours, shop) : ""}
          placeholder={spanInWords(["08:00", "20:00"], shop)}
          hint="lasers with their extraction, sprays and compressors; quiet work goes on"
        />
        <OutdoorsFields shop={shop} />
        <TextField
          action="/workshop"
          name="rackPlaces"
          label="Places to dry at, pieces"
          from={shop.rackPlaces === undefined ? "not counted: as many as it takes" : undefined}
          value={shop.rackPlaces === undefined ? "" : String(shop.rackPlaces)}
          inputMode="numeric"
          hint="the shop’s calendar lays no more pieces to dry at once"
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

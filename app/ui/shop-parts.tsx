/** The shop's own figures (hours, climate, machines), set in the Workshop or wherever a job asks for them. */
import { BEAM_KINDS, defaultDepthPerJ } from "../core/catalogue/beams";
import { air, dewPoint } from "../core/models/drying/climate";
import { wattsAt } from "../core/models/laser/runtime";
import { BEAMS } from "../core/records/ids";
import { CHANGE_OVER, safe, SAFETY_FACTS, type Machine } from "../core/records/machine";
import type { Shop } from "../core/records/shop";
import { WEEKDAYS } from "../core/time/hours";
import { said } from "../core/units/said";
import { showLength, showPoint, showSpeed, showTemp, type UnitSystem } from "../core/units/show";
import { Fold } from "./kit/bits";
import { ActButton, PickField, TextField, TickField } from "./kit/field";

const SAFETY_WORDS = {
  enclosed: "Enclosed, its window rated for this beam",
  extraction: "Extraction fitted and used",
};
const triOf = (v: boolean | null): string => (v === null ? "" : String(v));
const DAY_WORDS = {
  mon: "Monday",
  tue: "Tuesday",
  wed: "Wednesday",
  thu: "Thursday",
  fri: "Friday",
  sat: "Saturday",
  sun: "Sunday",
};

/** Opening hours in a line: runs of like days together. */
export function hoursInWords(shop: Shop): string {
  const runs: { from: string; to: string; hours: string }[] = [];
  for (const d of WEEKDAYS) {
    const h = shop.hours[d];
    const hours = h ? `${h[0]} to ${h[1]}` : "";
    const last = runs[runs.length - 1];
    if (last && last.hours === hours) last.to = d;
    else runs.push({ from: d, to: d, hours });
  }
  const short = (d: string): string => DAY_WORDS[d as "mon"].slice(0, 3);
  return (
    runs
      .filter((r) => r.hours)
      .map((r) => `${r.from === r.to ? short(r.from) : `${short(r.from)}-${short(r.to)}`} ${r.hours}`)
      .join(", ") || "never open"
  );
}

/** Opening hours of each weekday, days off, time zone. */
export function HoursPart({ shop }: { shop: Shop }) {
  return (
    <>
      {WEEKDAYS.map((d) => (
        <div
          key={d}
          className="grid grid-cols-2 items-end gap-x-3 *:first:max-lg:col-span-2 lg:grid-cols-[150px_1fr_1fr]"
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
              <TextField
                action="/workshop"
                name={`${d}.from`}
                label={`${DAY_WORDS[d]} from`}
                type="time"
                hideLabel
                value={shop.hours[d][0]}
                extra={{ intent: "hours" }}
              />
              <TextField
                action="/workshop"
                name={`${d}.to`}
                label={`${DAY_WORDS[d]} to`}
                type="time"
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
        value={shop.sprayHours ? shop.sprayHours.join(" to ") : ""}
        placeholder="10:00 to 16:00"
        hint="daylight outdoors, neighbours; brushing and waiting go on outside them"
      />
      <TextField
        action="/workshop"
        name="daysOff"
        label="Days off"
        value={shop.daysOff.join(", ")}
        hint="dates such as 2027-01-06, 2027-02-15"
      />
      <TextField action="/workshop" name="zone" label="Time zone" value={shop.zone} />
      <p className="tag">Waits run through nights and days off; the laser never runs with nobody there.</p>
    </>
  );
}

/** The air that films dry in, the same all day or by the hour. */
export function ClimatePart({ shop }: { shop: Shop }) {
  const cl = { intent: "climate" };
  const curve = air(shop.climate);
  const dew = dewPoint(curve.c(720), curve.rh(720));
  return (
    <>
      <PickField
        action="/workshop"
        name="kind"
        label="Over the day"
        value={shop.climate.kind}
        extra={cl}
        options={[
          { value: "constant", label: "about the same all day" },
          { value: "hourly", label: "24 hourly points" },
        ]}
      />
      {shop.climate.kind === "constant" ? (
        <div className="grid grid-cols-2 gap-3">
          <TextField
            action="/workshop"
            name="c"
            label="Temperature"
            value={showTemp(shop.climate.c, shop.units)}
            extra={cl}
          />
          <TextField
            action="/workshop"
            name="rh"
            label="Humidity"
            value={`${Math.round(shop.climate.rh * 100)} %`}
            extra={cl}
          />
        </div>
      ) : (
        <TextField
          action="/workshop"
          name="points"
          label="Each hour from 0 to 23: temperature and humidity"
          area
          value={shop.climate.hourly.map((h) => showPoint(h, shop.units)).join("\n")}
          extra={cl}
        />
      )}
      <PickField
        action="/workshop"
        name="air"
        label="Air over drying pieces"
        value={shop.climate.air}
        extra={cl}
        options={[
          { value: "still", label: "still" },
          { value: "moving", label: "moving gently" },
          { value: "extraction", label: "under extraction" },
        ]}
      />
      {dew !== null && (
        <p className="tag">
          Dew point at noon {showTemp(Math.round(dew * 10) / 10, shop.units)}: keep a surface{" "}
          {said("3 °C above", shop.units)} it before paint goes on.
        </p>
      )}
      <ClimateCurve shop={shop} />
    </>
  );
}

/** °C below which most paints stop drying (M8) */
const STOPS_C = 10;
function ClimateCurve({ shop }: { shop: Shop }) {
  const a = air(shop.climate);
  const W = 480;
  const H = 90;
  const t = Array.from({ length: 97 }, (_, i) => a.c(Math.min(1439.9, i * 15)));
  const [lo, hi] = [Math.min(8, ...t) - 1, Math.max(24, ...t) + 1];
  const y = (c: number): number => H - ((c - lo) / (hi - lo)) * H;
  return (
    <svg
      viewBox={`-46 -6 ${W + 60} ${H + 26}`}
      role="img"
      aria-label={
        `Temperature over the day, ${showTemp(Math.min(...t), shop.units)} to ${showTemp(Math.max(...t), shop.units)}; most ` +
        `paints stop drying below ${showTemp(STOPS_C, shop.units)}`
      }
      className="w-full max-w-xl"
    >
      <rect x="0" y={y(STOPS_C)} width={W} height={Math.max(0, H - y(STOPS_C))} fill="var(--line)" />
      <line x1="0" x2={W} y1={y(STOPS_C)} y2={y(STOPS_C)} stroke="var(--wrong)" strokeDasharray="4 4" />
      <path
        d={t.map((c, i) => `${i ? "L" : "M"}${(i / 96) * W} ${y(c)}`).join("")}
        fill="none"
        stroke="var(--act)"
        strokeWidth="2.5"
      />
      {[0, 6, 12, 18, 24].map((h) => (
        <text key={h} x={(h / 24) * W} y={H + 16} fontSize="13" textAnchor="middle" fill="var(--muted)">
          {h}
        </text>
      ))}
      <text x="-6" y={y(STOPS_C) + 4} fontSize="13" textAnchor="end" fill="var(--muted)">
        {showTemp(STOPS_C, shop.units)}
      </text>
    </svg>
  );
}

/** Every figure of one machine. */
export function MachineForm({ m, units }: { m: Machine; units: UnitSystem }) {
  const e = { intent: "machine", id: m.id };
  const b = BEAM_KINDS[m.beam];
  const wood = defaultDepthPerJ(m.beam, { id: "hard-maple", family: "wood" });
  return (
    <Fold
      summary={
        <>
          {m.name}{" "}
          <span className="tag">
            {b.name}, {m.watts} W, bed {said(`${m.bedW} × ${m.bedH} mm`, units)}
          </span>
        </>
      }
    >
      <div className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] items-start gap-3">
        <TextField action="/workshop" name="name" label="Name" value={m.name} extra={e} />
        <PickField
          action="/workshop"
          name="beam"
          label="Beam"
          value={m.beam}
          extra={e}
          options={BEAMS.map((x) => ({ value: x, label: BEAM_KINDS[x].name }))}
        />
        <TextField action="/workshop" name="watts" label="Optical watts, rated" value={String(m.watts)} extra={e} />
        <TextField
          action="/workshop"
          name="maxSpeed"
          label="Top speed"
          from={m.maxSpeed === null ? "unknown" : undefined}
          value={m.maxSpeed === null ? "" : `${m.maxSpeed} mm/s`}
          hint={showSpeed(m.maxSpeed)}
          extra={e}
        />
        <TextField
          action="/workshop"
          name="rapid"
          label="Travel speed"
          from={m.rapid === null ? "unknown" : undefined}
          value={m.rapid === null ? "" : `${m.rapid} mm/s`}
          extra={e}
        />
        <TextField action="/workshop" name="accel" label="Acceleration, mm/s²" value={String(m.accel)} extra={e} />
        <TextField action="/workshop" name="bedW" label="Bed wide" value={showLength(m.bedW, units)} extra={e} />
        <TextField action="/workshop" name="bedH" label="Bed deep" value={showLength(m.bedH, units)} extra={e} />
        <TextField
          action="/workshop"
          name="spotMm"
          label="Spot, mm"
          from={m.spotMm === null ? `default: ${b.spotMm}` : "measured here"}
          value={m.spotMm === null ? "" : String(m.spotMm)}
          extra={e}
        />
        <TextField
          action="/workshop"
          name="overscanMm"
          label="Overrun at line ends, mm"
          from={m.overscanMm === null ? "default: as the speed needs" : undefined}
          value={m.overscanMm === null ? "" : String(m.overscanMm)}
          extra={e}
        />
        <TextField
          action="/workshop"
          name="depthPerJ"
          label="Wood, mm per J/mm²"
          from={m.depthPerJ === null ? (wood === null ? "not a beam for wood" : `default: ${wood}`) : "measured here"}
          value={m.depthPerJ === null ? "" : String(m.depthPerJ)}
          extra={e}
        />
        <TextField
          action="/workshop"
          name="depths"
          label="Other materials, mm per J/mm², a line each"
          area
          from={m.depths?.length ? "measured here" : "default; “slate 0.02” sets one"}
          value={(m.depths ?? []).map((d) => `${d.substrate} ${d.perJ}`).join("\n")}
          extra={e}
        />
        <TextField action="/workshop" name="jumpMs" label="Jump delay, ms" value={String(m.jumpMs)} extra={e} />
        <TextField
          action="/workshop"
          name="powerPoints"
          label="Panel against watts, a line each"
          area
          value={m.powerPoints.map((p) => `${p.set} ${p.watts}`).join("\n")}
          extra={e}
          hint={
            m.powerPoints.length > 1
              ? `at 50: ${wattsAt(m.powerPoints, 50)?.toFixed(1) ?? "outside the points"} W`
              : "percent or mA as shown, then watts measured; below about 12 % percent is not watts"
          }
        />
        <div className="col-span-full grid grid-cols-[repeat(auto-fill,minmax(200px,1fr))]">
          <TickField action="/workshop" name="trimsRows" label="Trims empty row ends" value={m.trimsRows} extra={e} />
          <TickField action="/workshop" name="bothWays" label="Burns both ways" value={m.bothWays} extra={e} />
          <TickField action="/workshop" name="galvo" label="Mirrors, not a gantry" value={m.galvo} extra={e} />
          <TickField action="/workshop" name="airAssist" label="Air assist" value={m.airAssist} extra={e} />
        </div>
        {SAFETY_FACTS.map((fact) => (
          <PickField
            key={fact}
            action="/workshop"
            name={fact}
            label={SAFETY_WORDS[fact]}
            value={triOf(safe(m, fact))}
            extra={e}
            options={[
              { value: "", label: "not said yet" },
              { value: "true", label: "yes" },
              { value: "false", label: "no" },
            ]}
          />
        ))}
        <ActButton action="/workshop" className="link-act self-end" act={{ intent: "machine-remove", id: m.id }}>
          Take {m.name} out
        </ActButton>
      </div>
      <p className="tag mt-1">Eyewear {b.eyewear}.</p>
      {m.changeOver ? (
        <fieldset className="border-t border-line pt-2">
          <legend className="font-semibold">Changed over: look at each before the next burn</legend>
          {CHANGE_OVER.map((x) => (
            <TickField
              key={x}
              action="/workshop"
              name="changeOver"
              label={x}
              value={m.changeOver!.includes(x)}
              extra={{ ...e, intent: "change-over", point: x }}
            />
          ))}
          <ActButton
            action="/workshop"
            className="link-act"
            act={{ intent: "change-over", id: m.id, point: "close", value: "true" }}
          >
            All checked, close the list
          </ActButton>
        </fieldset>
      ) : (
        <ActButton
          action="/workshop"
          className="link-act"
          act={{ intent: "change-over", id: m.id, point: "open", value: "true" }}
        >
          It was changed over (rotary, lens, bed height)…
        </ActButton>
      )}
    </Fold>
  );
}

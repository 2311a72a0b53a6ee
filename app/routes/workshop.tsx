import { shopAct } from "../acts/shop";
import type { Route } from "./+types/workshop";
import { useState } from "react";
import { nowMinutes } from "../clock";
import { BEAM_KINDS } from "../core/catalogue/beams";
import { dose } from "../core/process/beam";
import { INTERVAL_LIMIT, ripple } from "../core/models/laser/energy";
import { BEAMS } from "../core/records/ids";
import type { Machine } from "../core/records/machine";
import { ROUTE_RULES } from "../core/catalogue/route-rules";
import { picksOf } from "../core/process/context";
import { GEAR_WORDS, type Gear } from "../core/records/shop";
import { SchoolsPart } from "../ui/schools";
import { parseInterval, parseNumber, parseSpeed } from "../core/units/parse";
import { said } from "../core/units/said";
import { showInterval, showLength, showSpeed, showTemp, type UnitSystem } from "../core/units/show";
import { showWhen, zonedClock } from "../core/time/zoned";
import { readLastSaved, readShop } from "../store/queries";
import { ActButton, PickField, PostForm, TextField, TickField } from "../ui/kit/field";
import { ClimatePart, HoursPart, MachineForm } from "../ui/shop-parts";
import { chooseTheme, readTheme, type Theme } from "../ui/theme";
import { formOf } from "../acts/answer";
import { FilesPart } from "./files-part";
import { redirect } from "react-router";

export async function clientLoader() {
  const base = await readShop();
  if (!base) throw redirect("/");
  const clock = zonedClock(base.shop.zone);
  const saved = await readLastSaved();
  return {
    ...base,
    today: clock.toLocal(Math.floor(nowMinutes())).slice(0, 10),
    saved: saved === null ? null : showWhen(clock, Math.floor(saved / 60000)),
  };
}

export const clientAction = async ({ request }: Route.ClientActionArgs) => shopAct(await formOf(request));

export default function Workshop({ loaderData: { shop, machines, today, saved } }: Route.ComponentProps) {
  return (
    <main
      id="main"
      data-view="workshop"
      className="mx-auto grid w-full max-w-[1400px] grid-cols-1 gap-x-12 gap-y-9 px-5 py-5 lg:grid-cols-2"
    >
      <title>Workshop · Rich Layer</title>
      <h1 className="lg:col-span-2">Workshop</h1>
      <section aria-labelledby="o1" className="flex flex-col gap-3">
        <h2 id="o1">Hours {!shop.hoursSet && <span className="tag">default</span>}</h2>
        <HoursPart shop={shop} />
      </section>
      <section aria-labelledby="o2" className="flex flex-col gap-3">
        <h2 id="o2">Climate {!shop.climate.measured && <span className="tag">default</span>}</h2>
        <ClimatePart shop={shop} />
      </section>
      <section aria-labelledby="o3" className="flex flex-col gap-4 lg:col-span-2">
        <h2 id="o3">Machines</h2>
        {!machines.length && (
          <p className="text-muted">
            No machine yet. Depth, settings and laser minutes are unknown until there is one.
          </p>
        )}
        {machines.map((m) => (
          <MachineForm key={m.id} m={m} units={shop.units} />
        ))}
        <PostForm intent="machine-add" className="flex flex-wrap items-end gap-3">
          <label className="flex flex-col text-muted">
            Beam
            <select name="beam" className="field-in text-ink">
              {BEAMS.map((b) => (
                <option key={b} value={b}>
                  {BEAM_KINDS[b].name}
                </option>
              ))}
            </select>
          </label>
          <label className="flex flex-col text-muted">
            Watts
            <input name="watts" className="field-in w-24 text-ink" defaultValue="40" />
          </label>
          <button className="btn">Add a machine</button>
        </PostForm>
      </section>
      <section aria-labelledby="o11" className="flex flex-col gap-3 lg:col-span-2">
        <h2 id="o11">Ovens, guns, jigs, rotaries</h2>
        {!shop.gear?.length && (
          <p className="text-muted">
            None yet. Oven loads, and how closely a piece comes back, are planned from what stands here.
          </p>
        )}
        {(shop.gear ?? []).map((g) => (
          <GearForm key={g.id} g={g} units={shop.units} />
        ))}
        <PostForm intent="gear-add" className="flex flex-wrap items-end gap-3">
          <label className="flex flex-col text-muted">
            What
            <select name="kind" className="field-in text-ink">
              {Object.entries(GEAR_WORDS).map(([k, w]) => (
                <option key={k} value={k}>
                  {w}
                </option>
              ))}
            </select>
          </label>
          <label className="flex flex-col text-muted">
            Called
            <input name="name" className="field-in text-ink" placeholder="as you call it" />
          </label>
          <button className="btn">Add it</button>
        </PostForm>
      </section>
      <EnergyTool machines={machines} units={shop.units} />
      <section aria-labelledby="o12" className="flex flex-col gap-3 lg:col-span-2">
        <h2 id="o12">Where makers disagree</h2>
        <p className="text-muted">What every plan of this shop goes by; a job may go its own way on its Route page.</p>
        <SchoolsPart job={null} shop={picksOf(shop.schools)} />
      </section>
      <section aria-labelledby="o13" className="flex flex-col gap-1 lg:col-span-2">
        <h2 id="o13">Questions that choose a route</h2>
        <div className="grid grid-cols-1 gap-x-8 lg:grid-cols-2">
          {ROUTE_RULES.map((r) => (
            <TickField
              key={r.id}
              name={r.id}
              label={`${r.asks} ${r.why}`}
              value={!shop.routeRulesOff?.includes(r.id)}
              extra={{ intent: "route-rule" }}
            />
          ))}
        </div>
      </section>
      <section aria-labelledby="o5" className="flex flex-col gap-3">
        <h2 id="o5">The shop and this screen</h2>
        <TextField name="name" label="Called" value={shop.name} />
        <div className="grid grid-cols-[repeat(auto-fill,minmax(110px,1fr))] gap-3">
          <PickField
            name="units"
            label="Units"
            value={shop.units}
            options={[
              { value: "metric", label: "mm, °C" },
              { value: "inch", label: "inch, °F" },
            ]}
          />
          <TextField name="currency" label="Currency" value={shop.currency} />
          <TextField
            name="tolerance"
            label="Colour tolerance"
            value={String(shop.tolerance)}
            hint="2 strict, 4 ordinary"
          />
        </div>
        <ThemePick />
      </section>
      <FilesPart today={today} name={shop.name} saved={saved} />
    </main>
  );
}

/** One oven, gun, jig or rotary with what is known of it. */
function GearForm({ g, units }: { g: Gear; units: UnitSystem }) {
  const e = { intent: "gear", id: g.id };
  const mm = (x: number | null): string => (x === null ? "" : showLength(x, units));
  const len = (name: "trayW" | "trayH" | "errorMm" | "gripMm", label: string) => (
    <TextField
      name={name}
      label={label}
      value={mm(g[name])}
      from={g[name] === null ? "unknown" : undefined}
      extra={e}
    />
  );
  return (
    <fieldset
      data-gear={g.id}
      className="grid min-w-0 grid-cols-[repeat(auto-fill,minmax(150px,1fr))] items-end gap-3 border-t border-line pt-2"
    >
      <legend className="font-semibold">{GEAR_WORDS[g.kind]}</legend>
      <TextField name="name" label="Called" value={g.name} extra={e} />
      {(g.kind === "oven" || g.kind === "gun") && (
        <TextField
          name="maxC"
          label="Hottest"
          value={g.maxC === null ? "" : showTemp(g.maxC, units)}
          from={g.maxC === null ? "unknown" : undefined}
          extra={e}
        />
      )}
      {g.kind === "oven" && (
        <>
          {len("trayW", "Tray wide")}
          {len("trayH", "Tray deep")}
          <TickField
            name="notForFood"
            label="Never used for food again, and labelled so"
            value={g.notForFood === true}
            extra={e}
            className="col-span-2"
          />
        </>
      )}
      {g.kind === "gun" && <TickField name="lowFan" label="Has a low fan" value={g.lowFan === true} extra={e} />}
      {g.kind === "jig" && len("errorMm", "Brings a piece back within")}
      {g.kind === "rotary" && len("gripMm", "Grips up to")}
      <ActButton className="link-act self-end" act={{ intent: "gear-remove", id: g.id }}>
        Take {g.name} out
      </ActButton>
    </fieldset>
  );
}

function ThemePick() {
  const [theme, set] = useState<Theme>(() => readTheme());
  return (
    <label className="flex flex-col gap-0.5 text-muted">
      Light
      <select
        className="field-in text-ink"
        value={theme}
        onChange={(e) => (set(e.target.value as Theme), chooseTheme(e.target.value as Theme))}
      >
        <option value="auto">as the computer has it</option>
        <option value="day">day</option>
        <option value="night">night</option>
      </select>
    </label>
  );
}

/** Energy on the surface from watts, speed, interval and passes. */
function EnergyTool({ machines, units }: { machines: Machine[]; units: UnitSystem }) {
  const [text, set] = useState({
    power: "50 %",
    speed: "300 mm/s",
    interval: "0.08 mm",
    passes: "1",
    machine: machines[0]?.id ?? "",
  });
  const m = machines.find((x) => x.id === text.machine) ?? machines[0];
  const p = parseNumber(text.power);
  const v = parseSpeed(text.speed, m?.maxSpeed ?? null);
  const d = parseInterval(text.interval);
  const n = parseNumber(text.passes);
  const bad = [p, v, d, n].find((x) => !x.ok);
  const surface =
    m && p.ok && v.ok && d.ok && n.ok && v.value > 0 && d.value > 0
      ? dose(m, {
          power: p.value > 1 ? p.value / 100 : p.value,
          speed: v.value,
          interval: d.value,
          passes: n.value,
          from: "typed",
        })
      : null;
  const spot = m ? (m.spotMm ?? BEAM_KINDS[m.beam].spotMm) : null;
  const field = (k: keyof typeof text, label: string) => (
    <label className="text-muted">
      {label}
      <input className="field-in text-ink" value={text[k]} onChange={(e) => set({ ...text, [k]: e.target.value })} />
    </label>
  );
  return (
    <section aria-labelledby="o4" className="flex flex-col gap-3">
      <h2 id="o4">Energy on the surface</h2>
      {!m ? (
        <p className="text-muted">Add a machine first.</p>
      ) : (
        <>
          <div className="grid grid-cols-2 gap-3">
            <label className="text-muted">
              Machine
              <select
                className="field-in text-ink"
                value={m.id}
                onChange={(e) => set({ ...text, machine: e.target.value })}
              >
                {machines.map((x) => (
                  <option key={x.id} value={x.id}>
                    {x.name}
                  </option>
                ))}
              </select>
            </label>
            {field("power", "Power")}
            {field("speed", "Speed")}
            {field("interval", "Line interval")}
            {field("passes", "Passes")}
          </div>
          {bad && !bad.ok ? (
            <p role="alert" className="text-wrong">
              {bad.error}
            </p>
          ) : p.ok && v.ok && d.ok && n.ok && v.value > 0 && d.value > 0 ? (
            <p>
              <strong>{surface === null ? "unknown" : surface.toFixed(2)} J/mm²</strong> on the surface.{" "}
              {showSpeed(v.value)}. {showInterval(d.value)}.
              {spot !== null && d.value > INTERVAL_LIMIT * spot
                ? ` Lines further apart than ${said(`${(INTERVAL_LIMIT * spot).toFixed(3)} mm`, units)} leave ridges: ` +
                  `${Math.round(ripple(spot, d.value) * 100)} % ripple.`
                : ""}
            </p>
          ) : (
            <p role="alert" className="text-wrong">
              Speed and interval must be above 0.
            </p>
          )}
        </>
      )}
    </section>
  );
}

/** A calculator: energy on the surface from watts, speed, interval and passes. */
import { useState } from "react";
import { INTERVAL_LIMIT, ripple } from "../../core/models/laser/energy";
import { dose } from "../../core/process/beam";
import type { Machine } from "../../core/records/machine";
import { parseInterval, parseNumber, parseSpeed } from "../../core/units/parse";
import { said } from "../../core/units/said";
import { showInterval, showSpeed, type UnitSystem } from "../../core/units/show";
import { LabelledPick } from "../kit/pick";
import { BEAM_KINDS } from "../../core/catalogue/beams";

/** Energy on the surface from watts, speed, interval and passes. */
export function EnergyTool({ machines, units }: { machines: Machine[]; units: UnitSystem }) {
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
            <LabelledPick
              label="Machine"
              value={m.id}
              onChange={(machine) => set({ ...text, machine })}
              options={machines.map((x) => ({ value: x.id, label: x.name }))}
            />
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

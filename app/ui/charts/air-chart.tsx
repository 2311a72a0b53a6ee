/** The day's air as a chart, loaded when a climate is looked at. */
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { showTime, type Face } from "../../core/time/zoned";
import { showTemp, type UnitSystem } from "../../core/units/show";

import { AXIS, SHEET } from "./look";

/** °C below which most paints stop drying (M8) */
const STOPS_C = 10;

export default function AirChart({
  hours,
  units,
  face,
}: {
  hours: readonly { hour: number; c: number; rh: number }[];
  units: UnitSystem;
  face: Face;
}) {
  const time = (h: number): string => showTime(`${Math.floor(h)}:${h % 1 ? "30" : "00"}`, face);
  const temps = hours.map((h) => h.c);
  const [lo, hi] = [Math.min(...temps), Math.max(...temps)];
  const span = `${showTemp(Math.round(lo * 10) / 10, units)} to ${showTemp(Math.round(hi * 10) / 10, units)}`;
  const data = hours.map((h) => ({ ...h, rh: Math.round(h.rh * 100) }));
  return (
    <figure className="max-w-171">
      <div
        role="img"
        aria-label={`Air over the day: ${span}; most paints stop drying below ${showTemp(STOPS_C, units)}`}
      >
        <ResponsiveContainer width="100%" height={190}>
          <LineChart data={data} margin={{ top: 10, right: 8, bottom: 4, left: 4 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="hour"
              type="number"
              domain={[0, 24]}
              ticks={[0, 6, 12, 18, 24]}
              tickFormatter={time}
              {...AXIS}
            />
            <YAxis
              yAxisId="c"
              domain={[Math.floor(Math.min(lo, STOPS_C) - 2), Math.ceil(Math.max(hi, 20) + 2)]}
              tickFormatter={(c: number) => showTemp(c, units)}
              {...AXIS}
              width={64}
            />
            <YAxis
              yAxisId="rh"
              orientation="right"
              domain={[0, 100]}
              ticks={[0, 50, 100]}
              tickFormatter={(v: number) => `${v} %`}
              {...AXIS}
              width={52}
            />
            <ReferenceLine yAxisId="c" y={STOPS_C} stroke="var(--wrong)" strokeDasharray="4 4" />
            <Tooltip
              isAnimationActive={false}
              labelFormatter={(h) => time(Number(h))}
              formatter={(v, name) =>
                name === "temperature" ? showTemp(Math.round(Number(v) * 10) / 10, units) : `${String(v)} %`
              }
              contentStyle={SHEET}
            />
            <Line
              yAxisId="c"
              dataKey="c"
              name="temperature"
              stroke="var(--act)"
              strokeWidth={2.5}
              dot={false}
              isAnimationActive={false}
            />
            <Line
              yAxisId="rh"
              dataKey="rh"
              name="humidity"
              stroke="var(--ready)"
              strokeWidth={1.5}
              strokeDasharray="6 4"
              dot={false}
              isAnimationActive={false}
            />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="tag">
        Solid: temperature. Dashed: humidity. Below the red line, {showTemp(STOPS_C, units)}, most paints stop drying.
      </figcaption>
    </figure>
  );
}

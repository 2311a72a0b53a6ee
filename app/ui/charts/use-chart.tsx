/** What was used of a product, week by week. Loaded when it is asked for. */
import { Bar, BarChart, CartesianGrid, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { showMl } from "../../core/units/show";
import type { WeekUse } from "../../views/shelf";
import { AXIS, SHEET } from "./look";

export default function UseChart({ weeks }: { weeks: WeekUse[] }) {
  const all = weeks.reduce((a, w) => a + w.ml, 0);
  return (
    <figure className="max-w-171">
      <div role="img" aria-label={`${showMl(all)} used in ${weeks.length} weeks, from that of ${weeks[0].week} on`}>
        <ResponsiveContainer width="100%" height={180}>
          <BarChart data={weeks} margin={{ top: 8, right: 8, bottom: 4, left: 0 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis dataKey="week" {...AXIS} minTickGap={24} />
            <YAxis tickFormatter={(v: number) => showMl(v)} width={70} {...AXIS} />
            <Tooltip
              isAnimationActive={false}
              cursor={{ fill: "var(--line)" }}
              labelFormatter={(w) => `Week of ${String(w)}`}
              formatter={(v) => [showMl(Number(v)), "used"]}
              contentStyle={SHEET}
            />
            <Bar dataKey="ml" fill="var(--act)" isAnimationActive={false} maxBarSize={36} />
          </BarChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="tag">By the bench log: what the steps that were done took, week by week.</figcaption>
    </figure>
  );
}

/** Minutes planned against minutes worked, step by step. Loaded when it is asked for. */
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { showMinutes } from "../../core/units/show";
import { AXIS, SHEET, inInk } from "./look";

/** px a step, and for axis and legend */
const [STEP_PX, REST_PX] = [44, 70];
const cut = (s: string): string => (s.length > 30 ? `${s.slice(0, 29)}…` : s);

export default function MinutesChart({
  rows,
}: {
  rows: readonly { title: string; planned: number | null; actual: number | null }[];
}) {
  const data = rows.map((r, i) => ({ key: `${i + 1}. ${cut(r.title)}`, planned: r.planned, worked: r.actual }));
  const sum = (k: "planned" | "worked"): string => showMinutes(data.reduce((a, r) => a + (r[k] ?? 0), 0));
  return (
    <figure className="max-w-230">
      <div role="img" aria-label={`${rows.length} steps: ${sum("planned")} planned, ${sum("worked")} worked`}>
        <ResponsiveContainer width="100%" height={rows.length * STEP_PX + REST_PX}>
          <BarChart
            data={data}
            layout="vertical"
            barGap={1}
            margin={{ top: 4, right: 12, bottom: 4, left: 0 }}
            accessibilityLayer={false}
          >
            <CartesianGrid stroke="var(--line)" horizontal={false} />
            <XAxis type="number" tickFormatter={(m: number) => showMinutes(m)} {...AXIS} />
            <YAxis type="category" dataKey="key" width={230} interval={0} {...AXIS} />
            <Tooltip
              isAnimationActive={false}
              cursor={{ fill: "var(--line)" }}
              formatter={(v) => showMinutes(Number(v))}
              contentStyle={SHEET}
            />
            <Legend wrapperStyle={{ fontSize: 14 }} formatter={inInk} />
            <Bar dataKey="planned" fill="var(--strong-line)" isAnimationActive={false} />
            <Bar dataKey="worked" fill="var(--act)" isAnimationActive={false} />
          </BarChart>
        </ResponsiveContainer>
      </div>
    </figure>
  );
}

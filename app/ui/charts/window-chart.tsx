/** How far each film is gone by energy (M4): the window, the setting in force. Loaded when its figures are opened. */
import {
  CartesianGrid,
  Legend,
  Line,
  LineChart,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import type { Curves } from "../../core/explain/figures";
import { AXIS, DASHES, SHEET, TEXT, inInk } from "./look";

const two = (x: number): string => (Math.round(x * 100) / 100).toString();
const COLOURS = ["var(--ink)", "var(--act)", "var(--ready)", "var(--waiting)", "var(--muted)"];

export default function WindowChart({ c }: { c: Curves }) {
  const { lo, hi } = c;
  const open = lo !== null && hi !== null;
  const most = c.points[c.points.length - 1].at;
  const says =
    `How much of each film is gone from 0 to ${two(most)} J/mm². ` +
    (open ? `Window ${two(lo)} to ${two(hi)} J/mm². ` : "No window to show. ") +
    `This setting: ${two(c.at)} J/mm².`;
  const data = c.points.map((p) => ({ at: p.at, ...Object.fromEntries(p.gone.map((g, i) => [`f${i}`, g * 100])) }));
  return (
    <figure className="my-2 max-w-123">
      <div role="img" aria-label={says}>
        <ResponsiveContainer width="100%" height={230}>
          <LineChart data={data} margin={{ top: 18, right: 12, bottom: 4, left: 0 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis dataKey="at" type="number" domain={[0, most]} tickFormatter={two} tickCount={6} {...AXIS} />
            <YAxis
              domain={[0, 100]}
              ticks={[0, 50, 100]}
              tickFormatter={(v: number) => `${v} %`}
              width={52}
              {...AXIS}
            />
            {open && (
              <ReferenceArea
                x1={lo}
                x2={Math.min(hi, most)}
                fill="var(--ready)"
                fillOpacity={0.16}
                stroke="var(--ready)"
                strokeDasharray="3 3"
              />
            )}
            <ReferenceLine
              x={c.at}
              stroke="var(--act)"
              strokeWidth={2}
              label={{ value: "this setting", position: "top", ...TEXT, fill: "var(--ink)" }}
            />
            <Tooltip
              isAnimationActive={false}
              labelFormatter={(at) => `${two(Number(at))} J/mm²`}
              formatter={(v) => `${Math.round(Number(v))} % gone`}
              contentStyle={SHEET}
            />
            <Legend iconType="plainline" wrapperStyle={{ fontSize: 14 }} formatter={inInk} />
            {c.films.map((f, i) => (
              <Line
                key={f.name}
                dataKey={`f${i}`}
                name={f.name}
                stroke={COLOURS[i % COLOURS.length]}
                strokeDasharray={DASHES[i % DASHES.length]}
                strokeWidth={2.2}
                dot={false}
                isAnimationActive={false}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="tag">
        Share of the face on which each film is gone, by J/mm².
        {open ? " Shaded: the top is gone and the colour whole." : ""}
      </figcaption>
    </figure>
  );
}

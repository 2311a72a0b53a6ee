/** What a piece costs by how many are made. Loaded when it is asked for. */
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import type { CurvePoint } from "../../core/explain/curve";
import { minorDigits, showMoney } from "../../core/units/money";
import { AXIS, SHEET, TEXT } from "./look";

export default function CostChart({
  points,
  priceMinor,
  currency,
  language,
}: {
  points: CurvePoint[];
  priceMinor: number | null;
  currency: string;
  language: string;
}) {
  const whole = 10 ** minorDigits(currency);
  const money = (minor: number): string => showMoney(Math.round(minor), currency, language);
  const [first, last] = [points[0], points[points.length - 1]];
  return (
    <figure className="max-w-171">
      <div
        role="img"
        aria-label={`A piece costs ${money(first.eachMinor)} of ${first.n}, ${money(last.eachMinor)} of ${last.n}`}
      >
        <ResponsiveContainer width="100%" height={210}>
          <LineChart data={points} margin={{ top: 8, right: 12, bottom: 18, left: 0 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="n"
              type="number"
              scale="log"
              domain={["dataMin", "dataMax"]}
              ticks={points.map((p) => p.n)}
              label={{ value: "pieces made", position: "insideBottom", offset: -10, ...TEXT }}
              {...AXIS}
            />
            <YAxis tickFormatter={(v: number) => String(Math.round(v / whole))} width={52} {...AXIS} />
            <Tooltip
              isAnimationActive={false}
              labelFormatter={(n) => `${String(n)} made`}
              formatter={(v) => [money(Number(v)), "a piece"]}
              contentStyle={SHEET}
            />
            {priceMinor !== null && (
              <ReferenceLine
                y={priceMinor}
                stroke="var(--ready)"
                strokeDasharray="7 4"
                label={{ value: "price", position: "insideTopRight", ...TEXT }}
              />
            )}
            <Line dataKey="eachMinor" stroke="var(--act)" strokeWidth={2} dot isAnimationActive={false} />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="tag">
        Each number planned whole: loads, spares and setting up are those of so many.
      </figcaption>
    </figure>
  );
}

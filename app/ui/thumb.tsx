/** The piece as a small picture in a list. */
import type { Thumb as Picture } from "../core/geometry/thumb";
import { UNKNOWN } from "./inks";

/** @param fills colour of the face and of each drawn zone, in the picture's order; null: not drawn, only areas are known */
export function Thumb({ of, ground, fills }: { of: Picture | null; ground: string; fills: readonly string[] }) {
  const [w, h] = of ? [of.w, of.h] : [4, 3];
  return (
    <svg
      viewBox={`0 0 ${w} ${h}`}
      className="h-11 w-14 shrink-0"
      preserveAspectRatio="xMidYMid meet"
      aria-hidden="true"
      data-thumb={of ? of.zones.length : 0}
    >
      <path
        d={of?.blank ?? `M0 0H${w}V${h}H0Z`}
        fill={of ? ground : "none"}
        fillRule="evenodd"
        stroke="var(--strong-line)"
        strokeWidth="1"
        strokeDasharray={of ? undefined : "3 3"}
        vectorEffect="non-scaling-stroke"
      />
      {of?.zones.map((z, i) => (
        <path key={i} d={z.path} fill={fills[i] ?? UNKNOWN} fillRule="evenodd" />
      ))}
    </svg>
  );
}

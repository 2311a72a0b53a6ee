/** The piece as an onlooker sees it: the artwork’s own outlines, redrawn, in the colours that the simulated state shows. */
import { useId } from "react";
import type { Job } from "../core/records/job";

export interface FaceProps {
  job: Pick<Job, "artwork" | "zones" | "substrate">;
  /** zone id to colour; the face itself under `ground` */
  colours: Record<string, string>;
  grain?: boolean;
  lit?: string[];
  label: string;
  onZone?: (id: string) => void;
  className?: string;
}

export function Face({ job, colours, grain, lit, label, className }: FaceProps) {
  const id = useId();
  const { w, h } = job.substrate;
  const a = job.artwork;
  const [ox, oy] = a ? [(w - a.w) / 2, (h - a.h) / 2] : [0, 0];
  const ground = colours.ground ?? "#cccccc";
  const drawn = job.zones.filter((z) => z.outline);
  return (
    <svg viewBox={`${-w * 0.01} ${-h * 0.01} ${w * 1.02} ${h * 1.02}`} role="img" aria-label={label} className={className ?? "max-h-[300px] w-full"} preserveAspectRatio="xMidYMid meet">
      <defs>
        <clipPath id={`${id}c`}><rect width={w} height={h} rx={Math.min(w, h) * 0.02} /></clipPath>
      </defs>
      <g clipPath={`url(#${id}c)`}>
        <rect width={w} height={h} fill={ground} />
        {grain && Array.from({ length: 14 }, (_, i) => <path key={i} d={`M0 ${(h * (i + 0.5)) / 14}q${w / 4} ${((i % 3) - 1) * h * 0.02} ${w / 2} 0t${w / 2} 0`} stroke="#000" strokeOpacity="0.07" strokeWidth={h * 0.006} fill="none" />)}
        <g transform={`translate(${ox} ${oy})`}>
          {drawn.map((z) => (
            <path key={z.id} data-zone={z.id} d={z.outline} fillRule="evenodd" fill={colours[z.id] ?? ground} stroke={lit?.includes(z.id) ? "#c2185b" : "none"} strokeWidth={lit?.includes(z.id) ? Math.max(w, h) * 0.008 : 0} strokeDasharray={lit?.includes(z.id) ? `${w * 0.02} ${w * 0.01}` : undefined} />
          ))}
        </g>
      </g>
      <rect width={w} height={h} rx={Math.min(w, h) * 0.02} fill="none" stroke="#6b6470" strokeWidth={Math.max(w, h) * 0.004} />
    </svg>
  );
}

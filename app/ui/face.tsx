/** The piece as an onlooker sees it: the artwork’s own outlines, redrawn, in the colours that the simulated state shows. */
import { type SVGProps, useId, useMemo } from "react";
import { blankOf } from "../core/geometry/blank";
import { onBlank } from "../core/geometry/on-blank";
import type { Job } from "../core/records/job";
import { pictureBox } from "../core/geometry/picture";
import { pictureDug, pictureMask } from "./picture/mask";
import { BARE, SHADOW, TAPE_LINE, UNKNOWN } from "./inks";

export interface FaceProps {
  job: Pick<Job, "artwork" | "zones" | "substrate" | "picture"> & { areas?: Job["areas"] };
  /** zone id to colour; the face itself under `ground` */
  colours: Record<string, string>;
  grain?: boolean;
  lit?: string[];
  label: string;
  /** zones that lie masked: hatched */
  masked?: string[];
  /** zones over which the picture is drawn by now: of those it is seen, and the rest of the face between */
  pictured?: readonly string[];
  /** as the file goes to the laser, left for right */
  mirrored?: boolean;
  /** mm from the middle line that are in focus on round work, up and down */
  bandMm?: number | null;
  /** mm along at which equal faces begin, and how wide each is */
  boxes?: { starts: number[]; widthMm: number } | null;
  /** mm round the blank that are shown too, with what of the artwork hangs over there */
  aroundMm?: number;
  /** mm right and down by which the artwork is being pulled from where it lies */
  pulledMm?: [number, number];
  className?: string;
}

const HERE: [number, number] = [0, 0];
export function Face({
  job,
  colours,
  grain,
  lit,
  masked,
  pictured,
  mirrored,
  bandMm,
  boxes,
  aroundMm = 0,
  pulledMm = HERE,
  label,
  className,
}: FaceProps) {
  const id = useId();
  const { w, h } = job.substrate;
  const ground = colours.ground ?? UNKNOWN;
  const drawn = useMemo(() => onBlank(job, mirrored), [job, mirrored]);
  const pull = pulledMm[0] || pulledMm[1] ? `translate(${pulledMm[0]} ${pulledMm[1]})` : undefined;
  const own = blankOf(job.substrate);
  const { picture } = job;
  const burnt = pictured?.length ? colours[pictured[0]] : undefined;
  const mask = useMemo(() => (picture && burnt ? pictureMask(picture, burnt, ground) : null), [picture, burnt, ground]);
  // colours over one another: what the beam digs to at each place, in one small picture
  const dug = useMemo(
    () =>
      picture?.dig && job.areas?.over && pictured?.length
        ? pictureDug(picture, [ground, ...pictured.map((z) => colours[z])])
        : null,
    [picture, job.areas, pictured, colours, ground],
  );
  const box = picture && pictureBox(picture, job);
  const edge = (more: SVGProps<SVGPathElement>) =>
    own.plain ? (
      <rect width={w} height={h} rx={Math.min(w, h) * 0.02} {...(more as SVGProps<SVGRectElement>)} />
    ) : (
      <path
        d={own.path}
        fillRule="evenodd"
        clipRule="evenodd"
        transform={mirrored ? `matrix(-1 0 0 1 ${w} 0)` : undefined}
        {...more}
      />
    );
  return (
    <svg
      viewBox={[-w * 0.01 - aroundMm, -h * 0.01 - aroundMm, w * 1.02 + 2 * aroundMm, h * 1.02 + 2 * aroundMm].join(" ")}
      role="img"
      aria-label={label}
      className={className ?? "max-h-80 w-full"}
      preserveAspectRatio="xMidYMid meet"
    >
      <defs>
        <pattern
          id={`${id}m`}
          width={w * 0.03}
          height={w * 0.03}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width={w * 0.03} height={w * 0.03} fill={BARE} />
          <line x1="0" x2="0" y1="0" y2={w * 0.03} stroke={TAPE_LINE} strokeWidth={w * 0.008} />
        </pattern>
        <clipPath id={`${id}c`}>{edge({})}</clipPath>
        {mask && box && (
          <mask id={`${id}p`} maskUnits="userSpaceOnUse" x={box.x0} y={box.y0} width={picture.w} height={picture.h}>
            <image
              href={mask}
              x={box.x0}
              y={box.y0}
              width={picture.w}
              height={picture.h}
              preserveAspectRatio="none"
              transform={mirrored ? `matrix(-1 0 0 1 ${w} 0)` : undefined}
            />
          </mask>
        )}
      </defs>
      {aroundMm > 0 && (
        <g transform={pull}>
          {drawn.map((z) => (
            <path
              key={z.id}
              d={z.path}
              fillRule="evenodd"
              fill="var(--wrong)"
              fillOpacity="0.25"
              stroke="var(--wrong)"
              strokeWidth={Math.max(w, h) * 0.003}
            />
          ))}
        </g>
      )}
      <g clipPath={`url(#${id}c)`}>
        <rect width={w} height={h} fill={masked?.includes("ground") ? `url(#${id}m)` : ground} />
        {grain &&
          Array.from({ length: 14 }, (_, i) => (
            <path
              key={i}
              d={`M0 ${(h * (i + 0.5)) / 14}q${w / 4} ${((i % 3) - 1) * h * 0.02} ${w / 2} 0t${w / 2} 0`}
              stroke={SHADOW}
              strokeOpacity="0.07"
              strokeWidth={h * 0.006}
              fill="none"
            />
          ))}
        {dug && box && (
          <image
            href={dug}
            x={box.x0}
            y={box.y0}
            width={picture.w}
            height={picture.h}
            preserveAspectRatio="none"
            transform={mirrored ? `matrix(-1 0 0 1 ${w} 0)` : undefined}
          />
        )}
        <g transform={pull}>
          {(dug ? [] : drawn).map((z) => (
            <path
              key={z.id}
              data-zone={z.id}
              d={z.path}
              fillRule="evenodd"
              fill={masked?.includes(z.id) ? `url(#${id}m)` : (colours[z.id] ?? ground)}
              stroke={lit?.includes(z.id) ? "var(--color-over-lit)" : "none"}
              strokeWidth={lit?.includes(z.id) ? Math.max(w, h) * 0.008 : 0}
              strokeDasharray={lit?.includes(z.id) ? `${w * 0.02} ${w * 0.01}` : undefined}
              mask={mask && pictured?.includes(z.id) ? `url(#${id}p)` : undefined}
            />
          ))}
        </g>
        {boxes &&
          boxes.starts.map((x) => (
            <rect
              key={x}
              data-face={x}
              x={x}
              y={h * 0.02}
              width={boxes.widthMm}
              height={h * 0.96}
              fill="none"
              stroke="var(--color-over-box)"
              strokeDasharray={`${w * 0.01} ${w * 0.01}`}
              strokeWidth={Math.max(w, h) * 0.004}
            />
          ))}
        {bandMm != null && (
          <g data-band={bandMm}>
            {[h / 2 - bandMm / 2, h / 2 + bandMm / 2].map((at) => (
              <line
                key={at}
                x1="0"
                x2={w}
                y1={at}
                y2={at}
                stroke="var(--color-over-band)"
                strokeWidth={Math.max(w, h) * 0.006}
                strokeDasharray={`${w * 0.03} ${w * 0.015}`}
              />
            ))}
          </g>
        )}
      </g>
      {edge({ fill: "none", stroke: "var(--color-over-edge)", strokeWidth: Math.max(w, h) * 0.004 })}
    </svg>
  );
}

/**
 * The core sample: every zone's cross-section as of a moment, drawn only from the simulated state. Heights are to scale (a
 * bar is printed); widths have a scale of their own. The lens magnifies the films of one zone.
 */
import clsx from "clsx";
import { useId, useRef } from "react";
import type { ZoneLayers } from "../../core/explain/report";
import { useSize } from "../use-size";
import { barText, columns, niceBar } from "./scale";
import { BARE, CHAR, CLEAR_TINT, FACES, ON_DARK, ON_LIGHT, SHADOW, UNKNOWN, UNKNOWN_FILM, UNPICKED } from "../inks";

export interface PaintLook {
  name: string;
  colour: string;
  clear: boolean;
}
export interface CoreSampleProps {
  zones: ZoneLayers[];
  names: Record<string, { name: string; areaMm2: number }>;
  paints: Record<string, PaintLook>;
  ground: { colour: string; name: string; wood: boolean };
  /** highest and lowest level over the whole plan, µm, so that the scale stays while scrubbing */
  range: { top: number; bottom: number };
  sandedUm: number;
  sandTo: number | null;
  /** where the surface of each zone stands by the log, µm, when another step is looked at; null: nothing logged or the same */
  ghost: Record<string, number> | null;
  chosen: string;
  lit: string | null;
  /** px from the right edge at which the lens below has its centre; null: no leader is drawn to it */
  lensFromRight: number | null;
  onZone(id: string): void;
  onLight(step: string | null): void;
}

type Layer = ZoneLayers["layers"][number];

/** What a layer looks like in a section. */
export function lookOf(l: Layer, paints: Record<string, PaintLook>): { fill: string; name: string; ink: string } {
  if (l.kind === "char") return { fill: CHAR, name: "Char", ink: ON_DARK };
  if (l.kind === "skin")
    return {
      fill: FACES[l.finish ?? ""] ?? UNKNOWN,
      name: { glaze: "Glaze", coating: "Coating", silver: "Silvering" }[l.finish ?? ""] ?? "Skin",
      ink: l.finish === "coating" ? ON_DARK : ON_LIGHT,
    };
  if (l.kind === "mask")
    return {
      fill: (l.product && paints[l.product]?.colour) || BARE,
      name: (l.product && paints[l.product]?.name) || "Mask",
      ink: ON_LIGHT,
    };
  const p = l.product ? paints[l.product] : undefined;
  const fill = p ? (p.clear ? tint(p.colour) : p.colour) : UNKNOWN_FILM;
  return { fill, name: `${p?.name ?? "Film"}${l.coat ? ` ${l.coat}` : ""}`, ink: dark(fill) ? ON_DARK : ON_LIGHT };
}
/** Clear films are shown as a warm or cool wash, so that they can be told apart from the ground. */
const tint = (hex: string): string => (hex === UNPICKED ? CLEAR_TINT : hex);
function dark(hex: string): boolean {
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
  return 0.299 * r + 0.587 * g + 0.114 * b < 140;
}

export function CoreSample(p: CoreSampleProps) {
  const box = useRef<HTMLDivElement>(null);
  const { w, h } = useSize(box);
  const id = useId();
  const LEFT = 52;
  const TOP = 40;
  const umPerPx = Math.max(0.02, (p.range.bottom - p.range.top) / Math.max(60, h - TOP - 14));
  const y = (um: number): number => TOP + (um - p.range.top) / umPerPx;
  const shown = p.zones.filter((z) => z.zone !== "ground").slice(0, 9);
  const groundZone = p.zones.find((z) => z.zone === "ground");
  const cols = columns(
    shown.map((z) => ({ zone: z.zone, areaMm2: p.names[z.zone]?.areaMm2 ?? 1 })),
    LEFT,
    Math.max(100, w - LEFT - 8),
  );
  const bar = niceBar(umPerPx, 70);
  const ticks: number[] = [];
  const step = niceBar(umPerPx, 46);
  for (let t = Math.ceil(p.range.top / step) * step; t <= p.range.bottom; t += step) ticks.push(t);
  const bottom = y(p.range.bottom);
  const face = p.sandedUm;
  const layerProps = (l: Layer, zone: string) => ({
    "data-layer": l.step ?? l.kind,
    "data-zone": zone,
    "data-top-um": l.topUm,
    "data-bottom-um": l.bottomUm,
    onMouseEnter: () => p.onLight(l.step),
    onMouseLeave: () => p.onLight(null),
  });
  return (
    <div ref={box} className="h-full min-h-59 w-full">
      {w > 0 && h > 0 && (
        <svg
          width={w}
          height={h}
          data-um-per-px={umPerPx}
          role="group"
          aria-label={`Core sample, ${shown.length} zones`}
        >
          <defs>
            <pattern id={`${id}g`} width="90" height="22" patternUnits="userSpaceOnUse">
              <path d="M0 6q22-5 45 0t45 0M0 16q30 4 50 0t40 0" fill="none" stroke={SHADOW} strokeOpacity="0.1" />
            </pattern>
          </defs>
          {ticks.map((t) => (
            <g key={t}>
              <line x1={LEFT - 6} x2={LEFT - 1} y1={y(t)} y2={y(t)} stroke="var(--muted)" />
              <text
                x={LEFT - 9}
                y={y(t) + 4}
                textAnchor="end"
                fontSize="12.5"
                fill="var(--muted)"
                fontFamily="var(--font-mono)"
              >
                {Math.abs(p.range.bottom) >= 600
                  ? (t / 1000).toFixed(step < 100 ? 2 : 1).replace(/^-0(\.0)?$/, "0")
                  : t}
              </text>
            </g>
          ))}
          <text x={4} y={TOP - 20} fontSize="12.5" fill="var(--muted)">
            {Math.abs(p.range.bottom) >= 600 ? "mm" : "µm"}
          </text>
          <rect
            x={LEFT}
            y={y(face)}
            width={w - LEFT - 4}
            height={Math.max(0, bottom - y(face))}
            fill={p.ground.colour}
          />
          {p.ground.wood && (
            <rect
              x={LEFT}
              y={y(face)}
              width={w - LEFT - 4}
              height={Math.max(0, bottom - y(face))}
              fill={`url(#${id}g)`}
            />
          )}
          {/* films on the ground between the zones */}
          {groundZone?.layers.map((l, i) => (
            <rect
              key={i}
              {...layerProps(l, "ground")}
              x={LEFT}
              y={y(l.topUm)}
              width={w - LEFT - 4}
              height={(l.bottomUm - l.topUm) / umPerPx}
              fill={lookOf(l, p.paints).fill}
              opacity={l.left < 1 ? 0.6 : 1}
            >
              <title>{`${lookOf(l, p.paints).name}, ${round(l.bottomUm - l.topUm)} µm`}</title>
            </rect>
          ))}
          {groundZone && <Wet zone={groundZone} x={LEFT} w={w - LEFT - 4} y={y} umPerPx={umPerPx} paints={p.paints} />}
          {shown.map((z, i) => {
            const c = cols[i];
            const name = p.names[z.zone]?.name ?? z.zone;
            const open = z.depthUm > face + 1;
            const ceiling = Math.min(y(face), y(groundZone?.surfaceUm ?? 0));
            return (
              <g key={z.zone} data-zone={z.zone}>
                {/* the column is cleared, then filled from its own layers */}
                <rect
                  x={c.x}
                  y={ceiling - 1}
                  width={c.w}
                  height={Math.max(0, y(z.depthUm) - ceiling + 1)}
                  fill="var(--paper)"
                />
                {open && (
                  <Walls
                    zone={z}
                    x={c.x}
                    w={c.w}
                    top={y(face)}
                    floor={y(z.depthUm)}
                    umPerPx={umPerPx}
                    paints={p.paints}
                  />
                )}
                {z.layers.map((l, k) => {
                  const look = lookOf(l, p.paints);
                  return (
                    <g key={k}>
                      <rect
                        {...layerProps(l, z.zone)}
                        x={c.x}
                        y={y(l.topUm)}
                        width={c.w}
                        height={(l.bottomUm - l.topUm) / umPerPx}
                        fill={look.fill}
                        stroke={p.lit && p.lit === l.step ? "var(--act)" : "none"}
                        strokeWidth={2}
                      >
                        <title>{`${look.name}, ${round(l.bottomUm - l.topUm)} µm, ${l.state}`}</title>
                      </rect>
                      {k === z.layers.length - 1 && (
                        <Wet zone={z} x={c.x} w={c.w} y={y} umPerPx={umPerPx} paints={p.paints} />
                      )}
                    </g>
                  );
                })}
                {p.ghost && Math.abs((p.ghost[z.zone] ?? z.surfaceUm) - z.surfaceUm) > 0.05 && (
                  <g pointerEvents="none">
                    <line
                      data-ghost={z.zone}
                      x1={c.x - 4}
                      x2={c.x + c.w + 4}
                      y1={y(p.ghost[z.zone])}
                      y2={y(p.ghost[z.zone])}
                      stroke={ON_DARK}
                      strokeWidth="4"
                    />
                    <line
                      x1={c.x - 4}
                      x2={c.x + c.w + 4}
                      y1={y(p.ghost[z.zone])}
                      y2={y(p.ghost[z.zone])}
                      stroke="var(--color-over-logged)"
                      strokeWidth="2"
                      strokeDasharray="7 4"
                    />
                  </g>
                )}
                <rect
                  x={c.x}
                  y={ceiling - 2}
                  width={c.w}
                  height={bottom - ceiling + 2}
                  fill="transparent"
                  stroke={p.chosen === z.zone ? "var(--act)" : "none"}
                  strokeDasharray="5 4"
                  strokeWidth="1.5"
                  onClick={() => p.onZone(z.zone)}
                  style={{ cursor: "pointer" }}
                  pointerEvents="stroke"
                />
                <foreignObject x={c.x - 22} y={4} width={c.w + 44} height={28}>
                  <button
                    type="button"
                    aria-pressed={p.chosen === z.zone}
                    onClick={() => p.onZone(z.zone)}
                    className={clsx(
                      "mx-auto block h-7 max-w-full truncate rounded px-1.5 text-fine",
                      p.chosen === z.zone && "font-bold underline decoration-2 underline-offset-4",
                    )}
                  >
                    {name}
                  </button>
                </foreignObject>
              </g>
            );
          })}
          {p.sandTo !== null && face < p.sandTo && (
            <g>
              <line
                x1={LEFT}
                x2={w - 4}
                y1={y(p.sandTo)}
                y2={y(p.sandTo)}
                stroke="var(--color-over-sand)"
                strokeDasharray="5 4"
              />
              <text
                x={w - 8}
                y={y(p.sandTo) + 15}
                textAnchor="end"
                fontSize="12.5"
                fill="var(--color-over-sand-words)"
                stroke={ON_DARK}
                strokeWidth="3"
                paintOrder="stroke"
              >
                sanding stops at {round(p.sandTo)} µm
              </text>
            </g>
          )}
          {p.lensFromRight !== null && w > 560 && (
            <Leader
              zone={p.zones.find((z) => z.zone === p.chosen)}
              col={cols.find((c) => c.zone === p.chosen) ?? { zone: p.chosen, x: w - 60, w: 40 }}
              y={y}
              umPerPx={umPerPx}
              to={[w - p.lensFromRight, h]}
            />
          )}
          <g transform={`translate(${LEFT + 8} ${bottom - 8})`}>
            <rect x="-5" y="-22" width={bar / umPerPx + 70} height="28" fill="var(--paper)" fillOpacity="0.9" rx="3" />
            <path d={`M0 -6V0H${bar / umPerPx}V-6`} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
            <text x={bar / umPerPx + 6} y="1" fontSize="12.5" fill="var(--ink)">
              {barText(bar)}
            </text>
          </g>
        </svg>
      )}
    </div>
  );
}

const round = (n: number): number => Math.round(n * 10) / 10;

/** What the topmost film has still to lose, above its dry thickness. */
function Wet({
  zone,
  x,
  w,
  y,
  umPerPx,
  paints,
}: {
  zone: ZoneLayers;
  x: number;
  w: number;
  y: (um: number) => number;
  umPerPx: number;
  paints: Record<string, PaintLook>;
}) {
  const l = zone.layers[zone.layers.length - 1];
  if (!l || l.wetUm === null || l.wetShare <= 0.02) return null;
  const um = (l.wetUm - (l.bottomUm - l.topUm)) * l.wetShare;
  return um <= 0 ? null : (
    <rect
      className="wet"
      x={x}
      y={y(l.topUm - um)}
      width={w}
      height={um / umPerPx}
      fill={lookOf(l, paints).fill}
      fillOpacity="0.55"
    />
  );
}

/** From a small ring round the films of the chosen zone to the lens below. */
function Leader({
  zone,
  col,
  y,
  umPerPx,
  to,
}: {
  zone: ZoneLayers | undefined;
  col: { x: number; w: number };
  y: (um: number) => number;
  umPerPx: number;
  to: [number, number];
}) {
  if (!zone) return null;
  const [top, low] = [zone.surfaceUm, zone.layers[0]?.bottomUm ?? zone.depthUm];
  const at: [number, number] = [col.x + col.w * 0.7, y((top + low) / 2)];
  const r = Math.max(7, Math.min(16, (low - top) / umPerPx / 2 + 4));
  const d = Math.hypot(to[0] - at[0], to[1] - at[1]) || 1;
  const from = [at[0] + ((to[0] - at[0]) * r) / d, at[1] + ((to[1] - at[1]) * r) / d];
  return (
    <g data-leader={zone.zone} fill="none" pointerEvents="none">
      <path d={`M${from[0]} ${from[1]}L${to[0]} ${to[1]}`} stroke="var(--paper)" strokeWidth="4" />
      <circle cx={at[0]} cy={at[1]} r={r} stroke="var(--paper)" strokeWidth="4" />
      <path d={`M${from[0]} ${from[1]}L${to[0]} ${to[1]}`} stroke="var(--ink)" strokeWidth="1.3" />
      <circle cx={at[0]} cy={at[1]} r={r} stroke="var(--ink)" strokeWidth="1.5" />
    </g>
  );
}

/** Films run up the walls of a cut; their width there is drawn at the scale of the heights. */
function Walls({
  zone,
  x,
  w,
  top,
  floor,
  umPerPx,
  paints,
}: {
  zone: ZoneLayers;
  x: number;
  w: number;
  top: number;
  floor: number;
  umPerPx: number;
  paints: Record<string, PaintLook>;
}) {
  const out: React.ReactNode[] = [];
  let inset = 0;
  zone.layers.forEach((l, i) => {
    // What levels itself, and what was there before the cut, leaves nothing on a wall.
    if (l.level || l.kind === "mask" || l.kind === "skin") return;
    const t = l.kind === "char" ? 2 : Math.max(1, ((l.bottomUm - l.topUm) * 0.6) / umPerPx);
    const fill = lookOf(l, paints).fill;
    if (inset + t < w / 3) {
      out.push(
        <rect key={`${i}l`} x={x + inset} y={top} width={t} height={Math.max(0, floor - top)} fill={fill} />,
        <rect key={`${i}r`} x={x + w - inset - t} y={top} width={t} height={Math.max(0, floor - top)} fill={fill} />,
      );
      inset += t;
    }
  });
  return <g aria-hidden="true">{out}</g>;
}

/** CSS pixels are 1/96 inch: how many times larger than life a scale is. */
export const magnified = (umPerPx: number): string => `${Math.round(25400 / 96 / umPerPx).toLocaleString("en")}×`;

/** The zigzag by which drawings say that something is left out. */
const breakMark = (w: number, y: number): string => `M0 ${y}H${w / 2 - 12}l4 -5l8 10l8 -10l4 5H${w}`;

/** µm per pixel of a lens on these films. */
export function lensScale(zone: ZoneLayers, size: number): number {
  const top = zone.layers[zone.layers.length - 1];
  const wet = top && top.wetUm !== null ? Math.max(0, (top.wetUm - (top.bottomUm - top.topUm)) * top.wetShare) : 0;
  return Math.max(0.05, (zone.layers.reduce((a, l) => a + (l.bottomUm - l.topUm), 0) + wet) / (size * 0.66));
}

/** The lens on one zone: its films at a scale of their own. */
export function Lens({
  zone,
  paints,
  ground,
  name,
  size,
  lit,
  onLight,
}: {
  zone: ZoneLayers;
  paints: Record<string, PaintLook>;
  ground: CoreSampleProps["ground"];
  name: string;
  size: number;
  lit: string | null;
  onLight(step: string | null): void;
}) {
  const id = useId();
  const top = zone.layers[zone.layers.length - 1];
  const wet = top && top.wetUm !== null ? Math.max(0, (top.wetUm - (top.bottomUm - top.topUm)) * top.wetShare) : 0;
  const umPerPx = lensScale(zone, size);
  const lowest = zone.layers[0]?.bottomUm ?? zone.depthUm;
  const y = (um: number): number => size * 0.84 - (lowest - um) / umPerPx;
  const bar = niceBar(umPerPx, 60);
  return (
    <svg
      width={size}
      height={size}
      data-um-per-px={umPerPx}
      role="group"
      aria-label={`Lens on ${name}`}
      className="shrink-0"
    >
      <defs>
        <clipPath id={id}>
          <circle cx={size / 2} cy={size / 2} r={size / 2 - 2} />
        </clipPath>
      </defs>
      <g clipPath={`url(#${id})`}>
        <rect width={size} height={size} fill="var(--lifted)" />
        <rect x="0" y={y(lowest)} width={size} height={size} fill={ground.colour} />
        {zone.layers.map((l, i) => {
          const look = lookOf(l, paints);
          const h = (l.bottomUm - l.topUm) / umPerPx;
          return (
            <g key={i}>
              <rect
                data-layer={l.step ?? l.kind}
                data-zone={zone.zone}
                data-top-um={l.topUm}
                data-bottom-um={l.bottomUm}
                x="0"
                y={y(l.topUm)}
                width={size}
                height={h}
                fill={look.fill}
                stroke={lit && lit === l.step ? "var(--act)" : "none"}
                strokeWidth="3"
                onMouseEnter={() => onLight(l.step)}
                onMouseLeave={() => onLight(null)}
              />
              {i > 0 && (
                <line
                  x1="0"
                  x2={size}
                  y1={y(l.bottomUm)}
                  y2={y(l.bottomUm)}
                  stroke={look.ink}
                  strokeOpacity="0.35"
                  strokeWidth="1"
                  pointerEvents="none"
                />
              )}
              {h >= 13 && (
                <text
                  x={size / 2}
                  y={y(l.topUm) + h / 2 + 4.5}
                  textAnchor="middle"
                  fontSize="12.5"
                  fill={look.ink}
                  pointerEvents="none"
                >
                  {look.name}, {round(l.bottomUm - l.topUm)} µm
                </text>
              )}
            </g>
          );
        })}
        {top && wet > 0.5 && (
          <g>
            <rect
              className="wet"
              x="0"
              y={y(top.topUm) - wet / umPerPx}
              width={size}
              height={wet / umPerPx}
              fill={lookOf(top, paints).fill}
              fillOpacity="0.6"
            />
            {wet / umPerPx > 14 && (
              <text
                x={size / 2}
                y={y(top.topUm) - wet / umPerPx / 2 + 4}
                textAnchor="middle"
                fontSize="12.5"
                fill="var(--ink)"
              >
                wet, {round(wet)} µm to lose
              </text>
            )}
          </g>
        )}
        {/* the ground goes on, but not at this scale: a break mark says so */}
        <path
          d={breakMark(size, y(lowest) + 26)}
          fill="none"
          stroke={dark(ground.colour) ? ON_DARK : ON_LIGHT}
          strokeWidth="1.2"
        />
        <text
          x={size / 2}
          y={y(lowest) + 18}
          textAnchor="middle"
          fontSize="12.5"
          fill={dark(ground.colour) ? ON_DARK : ON_LIGHT}
        >
          {ground.name}
        </text>
        <g transform={`translate(${size / 2 - bar / umPerPx / 2 - 18} ${size * 0.1})`}>
          <path d={`M0 -4V3H${bar / umPerPx}V-4`} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
          <text x={bar / umPerPx + 6} y="4" fontSize="12.5" fill="var(--ink)">
            {barText(bar)}
          </text>
        </g>
      </g>
      <circle cx={size / 2} cy={size / 2} r={size / 2 - 2} fill="none" stroke="var(--ink)" strokeWidth="1.5" />
    </svg>
  );
}

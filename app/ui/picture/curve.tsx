/** A tone curve: points pulled by hand or moved by the arrow keys; a press between them puts a further one there, Delete takes one away. */
import { useRef, useState } from "react";
import { useFetcher } from "react-router";
import { type CurvePoint, curveOf } from "../../core/tone/curve";

const SIDE = 200;
const PAD = 8;
const STEP = 0.02;
const clip = (v: number): number => Math.round(Math.min(1, Math.max(0, v)) * 1000) / 1000;

export function Curve({ points: stored, step }: { points: readonly CurvePoint[]; step: string }) {
  const fetcher = useFetcher();
  const [pulled, pull] = useState<CurvePoint[] | null>(null);
  const held = useRef<number | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const points = pulled ?? [...stored].sort((a, b) => a[0] - b[0]);
  const send = (list: readonly CurvePoint[]): void => {
    void fetcher
      .submit({ intent: "tone-set", step, field: "points", value: JSON.stringify(list.flat()) }, { method: "post" })
      .then(() => pull(null));
  };
  const moved = (i: number, x: number, y: number): CurvePoint[] => {
    const lo = i === 0 ? 0 : points[i - 1][0] + 0.01;
    const hi = i === points.length - 1 ? 1 : points[i + 1][0] - 0.01;
    return points.map((p, k) => (k === i ? [clip(Math.min(hi, Math.max(lo, x))), clip(y)] : p));
  };
  const at = (e: { clientX: number; clientY: number }): CurvePoint => {
    const box = svg.current!.getBoundingClientRect();
    const unit = (v: number): number => (v * (SIDE + 2 * PAD) - PAD) / SIDE;
    return [clip(unit((e.clientX - box.left) / box.width)), clip(1 - unit((e.clientY - box.top) / box.height))];
  };
  const f = curveOf(points);
  const line = Array.from(
    { length: 65 },
    (_v, i) => `${(i / 64) * SIDE} ${(1 - Math.min(1, Math.max(0, f(i / 64)))) * SIDE}`,
  );
  return (
    <svg
      ref={svg}
      viewBox={`${-PAD} ${-PAD} ${SIDE + 2 * PAD} ${SIDE + 2 * PAD}`}
      className="w-full max-w-64 touch-none self-start"
      role="group"
      aria-label="Curve: from the tone it is to the tone it becomes"
      onPointerDown={(e) => {
        if (e.target !== e.currentTarget && !(e.target as Element).hasAttribute("data-plane")) return;
        const p = at(e);
        send([...points, p].sort((a, b) => a[0] - b[0]));
      }}
      onPointerMove={(e) => {
        if (held.current !== null) pull(moved(held.current, ...at(e)));
      }}
      onPointerUp={() => {
        if (held.current !== null && pulled) send(pulled);
        held.current = null;
      }}
    >
      <rect data-plane width={SIDE} height={SIDE} fill="var(--color-lifted)" stroke="var(--color-line)" />
      <line x1="0" y1={SIDE} x2={SIDE} y2="0" stroke="var(--color-line)" pointerEvents="none" />
      <polyline points={line.join(" ")} fill="none" stroke="var(--color-ink)" strokeWidth="1.5" pointerEvents="none" />
      {points.map(([x, y], i) => (
        <circle
          key={i}
          cx={x * SIDE}
          cy={(1 - y) * SIDE}
          r="6"
          tabIndex={0}
          role="slider"
          aria-label={`Point ${i + 1} of the curve`}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(y * 100)}
          aria-valuetext={`${Math.round(x * 100)} % becomes ${Math.round(y * 100)} %`}
          fill="var(--color-act)"
          className="cursor-grab"
          onPointerDown={(e) => {
            e.stopPropagation();
            svg.current!.setPointerCapture(e.pointerId);
            held.current = i;
          }}
          onKeyDown={(e) => {
            const by = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, STEP], ArrowDown: [0, -STEP] }[
              e.key
            ];
            if (by) {
              e.preventDefault();
              send(moved(i, x + by[0], y + by[1]));
            }
            if ((e.key === "Delete" || e.key === "Backspace") && points.length > 2)
              send(points.filter((_p, k) => k !== i));
          }}
        />
      ))}
    </svg>
  );
}

/** Something pulled over the piece by hand or nudged by keys: where it is meanwhile, and what handlers the place that holds it gets. */
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { Outcome } from "../core/records/outcome";

/** mm a press of an arrow moves it by; with Shift, with Alt */
export const STEPS = { plain: 1, shift: 10, alt: 0.1 };
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** ms after a press of an arrow in which the next belongs to the same run */
const RUN_MS = 300;

/**
 * @param at mm right of and below the middle, as it is stored
 * @param intent the act that stores another place: it gets dx and dy
 * @param perPx mm a pixel of the screen, of the element that is pulled over; null: not known yet
 */
export function usePulling(at: { dx: number; dy: number }, intent: string, perPx: (el: Element) => number | null) {
  const fetcher = useFetcher<Outcome>();
  // where it is pulled to, until that is stored
  const [pulled, pull] = useState<{ dx: number; dy: number; sent: boolean } | null>(null);
  const held = useRef<{ x: number; y: number; dx: number; dy: number; perPx: number } | null>(null);
  const soon = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const way = pulled && (!pulled.sent || fetcher.state !== "idle") ? pulled : null;
  const [dx, dy] = way ? [way.dx, way.dy] : [at.dx, at.dy];
  const to = (x: number, y: number, digits: number): void => {
    const [nx, ny] = [x, y].map((v) => Math.round(v * digits) / digits);
    pull({ dx: nx, dy: ny, sent: false });
  };
  const put = (): void => {
    clearTimeout(soon.current);
    if (!way || way.sent) return;
    void fetcher.submit({ intent, dx: String(dx), dy: String(dy) }, { method: "post" });
    pull({ ...way, sent: true });
  };
  const latest = useRef(put);
  useEffect(() => void (latest.current = put));
  return {
    dx,
    dy,
    refused: fetcher.data && "error" in fetcher.data ? fetcher.data.error : null,
    handlers: {
      onPointerDown: (e: PointerEvent) => {
        const mm = perPx(e.currentTarget);
        if (mm === null || e.button !== 0) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        held.current = { x: e.clientX, y: e.clientY, dx, dy, perPx: mm };
      },
      onPointerMove: (e: PointerEvent) => {
        const from = held.current;
        if (!from) return;
        to(from.dx + (e.clientX - from.x) * from.perPx, from.dy + (e.clientY - from.y) * from.perPx, 10);
      },
      onPointerUp: () => {
        if (held.current) put();
        held.current = null;
      },
      onPointerCancel: () => {
        held.current = null;
        pull(null);
      },
      onKeyDown: (e: KeyboardEvent) => {
        const by = ARROWS[e.key];
        if (e.key === "Escape") pull(null);
        if (!by) return;
        e.preventDefault();
        const step = e.shiftKey ? STEPS.shift : e.altKey ? STEPS.alt : STEPS.plain;
        to(dx + by[0] * step, dy + by[1] * step, 100);
        clearTimeout(soon.current);
      },
      onKeyUp: (e: KeyboardEvent) => {
        // a run of presses is one change
        if (!ARROWS[e.key]) return;
        clearTimeout(soon.current);
        soon.current = setTimeout(() => latest.current(), RUN_MS);
      },
      onBlur: put,
    },
  };
}

/** A part of the picture marked by where it lies: an oval within a box in per cent of the picture. */
import { useFetcher } from "react-router";
import type { Outcome } from "../../core/records/outcome";
import { PartFields } from "./part-fields";

const CORNERS = 32;
/** An oval in a box of shares, as corners x, y by turns. */
export const oval = (x: number, y: number, w: number, h: number): number[] =>
  Array.from({ length: CORNERS }, (_v, i) => {
    const a = (2 * Math.PI * i) / CORNERS;
    const on = (v: number): number => Math.round(v * 1e4) / 1e4;
    return [on(x + (w / 2) * (1 + Math.cos(a))), on(y + (h / 2) * (1 + Math.sin(a)))];
  }).flat();
/** The box round a ring, per cent. */
export function boxOf(ring: readonly number[]): [x: number, y: number, w: number, h: number] | null {
  if (ring.length < 6) return null;
  const [xs, ys] = [ring.filter((_v, i) => i % 2 === 0), ring.filter((_v, i) => i % 2 === 1)];
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
  const whole = (v: number): number => Math.round(v * 100);
  return [whole(x0), whole(y0), whole(Math.max(...xs) - x0), whole(Math.max(...ys) - y0)];
}

/** @param step of the tones that it belongs to; empty: the part that is watched */
export function Marked({ ring, step, what }: { ring: readonly number[]; step: string; what: string }) {
  const fetcher = useFetcher<Outcome>();
  const box = boxOf(ring);
  const send = (list: number[]): void =>
    void fetcher.submit({ intent: "picture-region", step, ring: JSON.stringify(list) }, { method: "post" });
  return (
    <form
      className="grid grid-cols-4 items-end gap-2"
      aria-label={what}
      key={JSON.stringify(box)}
      onSubmit={(e) => {
        e.preventDefault();
        const v = new FormData(e.currentTarget);
        const [x, y, w, h] = ["x", "y", "w", "h"].map(
          (k) => Number(String(v.get(k)).replace("%", "").replace(",", ".")) / 100,
        );
        if ([x, y, w, h].every((n) => Number.isFinite(n)) && w > 0 && h > 0) send(oval(x, y, w, h));
      }}
    >
      <PartFields start={box ?? [35, 15, 30, 40]} />
      <div className="col-span-4 flex gap-2">
        <button className="btn">{box ? "Mark this part" : "Mark a part"}</button>
        {box && (
          <button type="button" className="btn" onClick={() => send([])}>
            No part marked
          </button>
        )}
      </div>
    </form>
  );
}

/** Where the drawing lies on its piece: pulled by hand, nudged by keys, or typed; what hangs over is seen and told. */
import { useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { Outcome } from "../core/records/outcome";
import type { Job } from "../core/records/job";
import { said } from "../core/units/said";
import { showLength, type UnitSystem } from "../core/units/show";
import { Face, type FaceProps } from "./face";
import { ActButton, TextField } from "./kit/field";

/** mm a press of an arrow moves it by; with Shift, with Alt */
const STEPS = { plain: 1, shift: 10, alt: 0.1 };
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** mm round the blank that are shown where something hangs over, and at most so much of its longer side */
const AROUND = { least: 3, most: 0.25 };
/** ms after a press of an arrow in which the next belongs to the same run */
const RUN_MS = 300;
const degrees = (turn: number): string => `${Math.round(turn * 100) / 100}°`;

export interface Lies {
  /** how far the artwork hangs over, or how far it is from the edge (below 0), mm; null: not known */
  mm: number | null;
  /** names of the zones that hang over; empty on a plain rectangle, where the page counts */
  zones: string[];
}

export function Placing({
  job,
  units,
  lies,
  ...face
}: Omit<FaceProps, "job" | "aroundMm" | "pulledMm"> & { job: Job; units: UnitSystem; lies: Lies }) {
  const fetcher = useFetcher<Outcome>();
  const a = job.artwork!;
  // where it is pulled to, until that is stored
  const [pulled, pull] = useState<{ dx: number; dy: number; sent: boolean } | null>(null);
  const held = useRef<{ x: number; y: number; dx: number; dy: number; perPx: number } | null>(null);
  const soon = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const refused = fetcher.data && "error" in fetcher.data ? fetcher.data.error : null;
  const way = pulled && (!pulled.sent || fetcher.state !== "idle") ? pulled : null;
  const [dx, dy] = way ? [way.dx, way.dy] : [a.dx ?? 0, a.dy ?? 0];
  const to = (x: number, y: number, digits: number): void => {
    const [nx, ny] = [x, y].map((v) => Math.round(v * digits) / digits);
    pull({ dx: nx, dy: ny, sent: false });
  };
  const put = (): void => {
    clearTimeout(soon.current);
    if (!way || way.sent) return;
    void fetcher.submit({ intent: "place-at", dx: String(dx), dy: String(dy) }, { method: "post" });
    pull({ ...way, sent: true });
  };
  const latest = useRef(put);
  useEffect(() => void (latest.current = put));
  const over = lies.mm !== null && lies.mm > 1e-6 ? lies.mm : 0;
  const { w, h } = job.substrate;
  const around = over ? Math.min(Math.max(over, AROUND.least), AROUND.most * Math.max(w, h)) : 0;
  const far = (mm: number): string => said(`${Math.round(mm * 10) / 10} mm`, units);
  const len = (mm: number): string => showLength(Math.round(mm * 100) / 100, units);
  const [one, ten, tenth] = [STEPS.plain, STEPS.shift, STEPS.alt].map((mm) => said(`${mm} mm`, units));
  return (
    <>
      <div
        role="group"
        tabIndex={0}
        aria-label="The drawing on its piece"
        aria-describedby="placing-keys"
        data-placing={`${dx} ${dy}`}
        className="cursor-grab touch-none active:cursor-grabbing"
        onPointerDown={(e) => {
          const matrix = e.currentTarget.querySelector("svg")?.getScreenCTM();
          if (!matrix || e.button !== 0) return;
          e.currentTarget.setPointerCapture(e.pointerId);
          held.current = { x: e.clientX, y: e.clientY, dx, dy, perPx: 1 / matrix.a };
        }}
        onPointerMove={(e) => {
          const from = held.current;
          if (!from) return;
          to(from.dx + (e.clientX - from.x) * from.perPx, from.dy + (e.clientY - from.y) * from.perPx, 10);
        }}
        onPointerUp={() => {
          if (held.current) put();
          held.current = null;
        }}
        onPointerCancel={() => {
          held.current = null;
          pull(null);
        }}
        onKeyDown={(e) => {
          const by = ARROWS[e.key];
          if (e.key === "Escape") pull(null);
          if (!by) return;
          e.preventDefault();
          const step = e.shiftKey ? STEPS.shift : e.altKey ? STEPS.alt : STEPS.plain;
          to(dx + by[0] * step, dy + by[1] * step, 100);
          clearTimeout(soon.current);
        }}
        onKeyUp={(e) => {
          // a run of presses is one change
          if (!ARROWS[e.key]) return;
          clearTimeout(soon.current);
          soon.current = setTimeout(() => latest.current(), RUN_MS);
        }}
        onBlur={put}
      >
        <Face {...face} job={job} pulledMm={[dx - (a.dx ?? 0), dy - (a.dy ?? 0)]} aroundMm={around} />
      </div>
      <p id="placing-keys" className="tag">
        Pull it to where it belongs
        <span className="max-lg:hidden">
          , or nudge it by the arrow keys: {one}, with Shift {ten}, with Alt {tenth}
        </span>
        .
      </p>
      {refused && <p className="text-wrong">{refused}</p>}
      {over > 0 ? (
        <p className="text-wrong" data-over={over}>
          {lies.zones.length ? `“${lies.zones.join("”, “")}” ${lies.zones.length > 1 ? "hang" : "hangs"}` : "It hangs"}{" "}
          {far(over)} over the edge of the piece{job.substrate.keepMm ? " or into what stays free along it" : ""}.
        </p>
      ) : (
        lies.mm !== null && (
          <p data-over="0">
            It lies within the piece, {far(-lies.mm)} from{" "}
            {job.substrate.keepMm ? "the margin that is kept free" : "its edge"}.
          </p>
        )
      )}
      <div className="grid fields-30 gap-3">
        <TextField name="dx" label="Right of the middle" value={len(a.dx ?? 0)} extra={{ intent: "place" }} />
        <TextField name="dy" label="Below the middle" value={len(a.dy ?? 0)} extra={{ intent: "place" }} />
        <TextField name="turn" label="Turned clockwise" value={degrees(a.turn ?? 0)} extra={{ intent: "place" }} />
      </div>
      <div className="flex flex-wrap gap-2">
        <ActButton className="btn" act={{ intent: "place", field: "turn", value: String((a.turn ?? 0) + 90) }}>
          A quarter turn
        </ActButton>
        {Boolean(a.dx || a.dy) && (
          <ActButton className="btn" act={{ intent: "place-at", dx: "0", dy: "0" }}>
            Back to the middle
          </ActButton>
        )}
      </div>
    </>
  );
}

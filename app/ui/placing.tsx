/** Where the drawing lies on its piece: pulled by hand, nudged by keys, or typed; what hangs over is seen and told. */
import type { Job } from "../core/records/job";
import { said } from "../core/units/said";
import { showLength, type UnitSystem } from "../core/units/show";
import { Face, type FaceProps } from "./face";
import { ActButton, TextField } from "./kit/field";
import { STEPS, usePulling } from "./pulling";

/** mm round the blank that are shown where something hangs over, and at most so much of its longer side */
const AROUND = { least: 3, most: 0.25 };
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
  const a = job.artwork!;
  const { dx, dy, refused, handlers } = usePulling({ dx: a.dx ?? 0, dy: a.dy ?? 0 }, "place-at", (el) => {
    const matrix = el.querySelector("svg")?.getScreenCTM();
    return matrix ? 1 / matrix.a : null;
  });
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
        {...handlers}
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

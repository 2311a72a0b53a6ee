/** A flat logo dropped where a drawing is wanted: how many colours it has, what is too small to be kept, and zones are made of it. */
import { useState } from "react";
import { said } from "../core/units/said";
import type { UnitSystem } from "../core/units/show";
import { parseLength } from "../core/units/parse";
import { showLength } from "../core/units/show";
import type { TraceFound } from "../io/import/trace";
import { tracePicture } from "../workers/zones";

/** mm² that are kept at least: less is neither cut nor weeded */
const LEAST_MM2 = 0.2;

export function Tracing({
  file,
  widthMm,
  units,
  onMade,
  onLeft,
}: {
  file: File;
  /** of the piece */
  widthMm: number;
  units: UnitSystem;
  onMade: (name: string, svg: string) => Promise<void>;
  onLeft: () => void;
}) {
  const [state, put] = useState<{ busy: boolean; error: string | null; found: TraceFound | null }>({
    busy: false,
    error: null,
    found: null,
  });
  const make = async (form: HTMLFormElement): Promise<void> => {
    const v = new FormData(form);
    const wide = parseLength(String(v.get("width")), units === "inch" ? "in" : "mm");
    const colours = String(v.get("colours")).trim();
    const least = Number(String(v.get("least")).replace(",", "."));
    if (!wide.ok || !(wide.value > 0))
      return put({ ...state, error: wide.ok ? "The width must be above 0." : wide.error });
    if (colours && !(Number.isInteger(Number(colours)) && Number(colours) >= 1 && Number(colours) <= 24))
      return put({
        ...state,
        error: `“${colours}” is no number of colours: 1 to 24, or none for as many as it seems to have.`,
      });
    if (!(least >= 0)) return put({ ...state, error: "The smallest part is a number of mm², 0 for none." });
    put({ busy: true, error: null, found: null });
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      const ask = { colours: colours ? Number(colours) : null, widthMm: wide.value, leastMm2: least };
      const found = await tracePicture(bytes, ask, new AbortController().signal);
      put({ busy: false, error: null, found });
      await onMade(file.name, found.svg);
    } catch (e) {
      put({ busy: false, error: (e as Error).message, found: null });
    }
  };
  const { found } = state;
  return (
    <form
      className="flex flex-col gap-3 border-l-3 border-act pl-4"
      aria-label="Zones out of a flat picture"
      onSubmit={(e) => {
        e.preventDefault();
        void make(e.currentTarget);
      }}
    >
      <p>
        <strong className="break-all">{file.name}</strong> is a picture. A flat logo becomes zones, one a colour; a
        photo belongs under Picture.
      </p>
      <div className="grid fields-30 items-end gap-3">
        {[
          { name: "width", label: "Wide", start: showLength(widthMm, units) },
          { name: "colours", label: "Colours", start: "" },
          { name: "least", label: "Smallest part, mm²", start: String(LEAST_MM2) },
        ].map((f) => (
          <label key={f.name} className="flex flex-col gap-0.5 text-small text-muted">
            {f.label}
            <input
              name={f.name}
              className="field-in text-ink"
              defaultValue={f.start}
              placeholder={f.name === "colours" ? "as it has" : undefined}
            />
          </label>
        ))}
      </div>
      <div className="flex gap-2">
        <button className="btn btn-main" disabled={state.busy}>
          {state.busy ? "Making zones…" : found ? "Make them anew" : "Make zones of it"}
        </button>
        <button type="button" className="btn" onClick={onLeft}>
          {found ? "All right" : "Leave it"}
        </button>
      </div>
      <div aria-live="polite">
        {state.error && (
          <p role="alert" className="text-wrong">
            {state.error}
          </p>
        )}
        {found && (
          <p data-traced={found.colours}>
            {found.colours} {found.colours === 1 ? "colour" : "colours"}.{" "}
            {found.lost.parts
              ? said(
                  `${found.lost.parts} ${found.lost.parts === 1 ? "part" : "parts"} smaller than that, ` +
                    `${Math.round(found.lost.mm2 * 100) / 100} mm² in all, went to the neighbour.`,
                  units,
                )
              : "Nothing was too small to be kept."}
            {found.clear && " What is clear in it became no zone."}
          </p>
        )}
      </div>
    </form>
  );
}

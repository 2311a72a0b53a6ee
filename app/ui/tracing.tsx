/** A flat logo dropped where a drawing is wanted: its colours, kept or put together, what is too small or too fine; zones made of it. */
import { useEffect, useRef, useState } from "react";
import { said } from "../core/units/said";
import type { UnitSystem } from "../core/units/show";
import { parseLength } from "../core/units/parse";
import { showLength } from "../core/units/show";
import type { TraceFound } from "../io/import/trace";
import { Cancelled, tracePicture } from "../workers/zones";
import { Pixels } from "./picture/shown";
import { Pick, Tick } from "./kit/pick";

/** mm² that are kept at least: less is neither cut nor weeded */
const LEAST_MM2 = 0.2;

interface State {
  busy: boolean;
  error: string | null;
  found: TraceFound | null;
}
/** What was asked of its colours: those that stay as they are, and those that go with another. */
interface Wish {
  locked: string[];
  merged: [string, string][];
}

export function Tracing({
  file,
  widthMm,
  units,
  spotMm,
  onMade,
  onLeft,
}: {
  file: File;
  /** of the piece */
  widthMm: number;
  units: UnitSystem;
  /** null: no machine is chosen, too fine is not told */
  spotMm: number | null;
  onMade: (name: string, svg: string) => Promise<void>;
  onLeft: () => void;
}) {
  const [state, put] = useState<State>({ busy: false, error: null, found: null });
  const [wish, hope] = useState<Wish>({ locked: [], merged: [] });
  const going = useRef<AbortController | null>(null);
  useEffect(() => () => going.current?.abort(), []);
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
    const mine = new AbortController();
    going.current = mine;
    put({ ...state, busy: true, error: null });
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      const ask = { colours: colours ? Number(colours) : null, widthMm: wide.value, leastMm2: least, spotMm, ...wish };
      const found = await tracePicture(bytes, ask, mine.signal);
      put({ busy: false, error: null, found });
      await onMade(file.name, found.svg);
    } catch (e) {
      if (e instanceof Cancelled) put({ ...state, busy: false, error: null });
      else put({ busy: false, error: (e as Error).message, found: null });
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
      {found && found.palette.length > 1 && <Colours found={found} wish={wish} onWish={hope} />}
      <div className="flex gap-2">
        <button className="btn btn-main" disabled={state.busy}>
          {state.busy ? "Making zones…" : found ? "Make them anew" : "Make zones of it"}
        </button>
        {state.busy ? (
          <button type="button" className="btn" onClick={() => going.current?.abort()}>
            Stop
          </button>
        ) : (
          <button type="button" className="btn" onClick={onLeft}>
            {found ? "All right" : "Leave it"}
          </button>
        )}
      </div>
      <div aria-live="polite" className="flex flex-col gap-2">
        {state.error && (
          <p role="alert" className="text-wrong">
            {state.error}
          </p>
        )}
        {found && <Told found={found} units={units} spotMm={spotMm} />}
      </div>
    </form>
  );
}

/** What came of it: how many colours, what was lost, what is too fine, marked on a small picture of it. */
function Told({ found, units, spotMm }: { found: TraceFound; units: UnitSystem; spotMm: number | null }) {
  const { fine, lost } = found;
  const marks = lost.parts > 0 || (fine !== null && fine.enlarge !== 1);
  return (
    <>
      <p data-traced={found.colours}>
        {found.colours} {found.colours === 1 ? "colour" : "colours"}.{" "}
        {lost.parts
          ? said(
              `${lost.parts} ${lost.parts === 1 ? "part" : "parts"} smaller than that, ` +
                `${Math.round(lost.mm2 * 100) / 100} mm² in all, went to the neighbour.`,
              units,
            )
          : "Nothing was too small to be kept."}
        {found.clear && " What is clear in it became no zone."}
      </p>
      <p data-too-fine={fine?.enlarge ?? ""}>
        {fine === null
          ? "Whether it is too fine for the spot is told once a machine is chosen."
          : fine.enlarge === 1
            ? said(`All of it is as wide as the spot of ${spotMm} mm or wider.`, units)
            : said(
                `${(fine.share * 100).toFixed(1)} % of it is finer than the spot of ${spotMm} mm. ` +
                  (fine.enlarge === null
                    ? "Even eight times as large it would not hold."
                    : `${fine.enlarge} times as large it would hold.`),
                units,
              )}
      </p>
      {marks && (
        <>
          <Pixels
            of={found.preview}
            label="What was lost or is too fine, marked"
            className="max-h-64 max-w-full self-start border border-line object-contain"
          />
          <p className="tag">Red: what was lost or is too fine.</p>
        </>
      )}
    </>
  );
}

/** Its colours: kept just as they are when it is made anew, or put together with another. */
function Colours({ found, wish, onWish }: { found: TraceFound; wish: Wish; onWish: (w: Wish) => void }) {
  const palette = found.palette.filter((c, i, all) => all.findIndex((x) => x.colour === c.colour) === i);
  return (
    <ul className="divide-y divide-line border-y border-line" aria-label="Its colours">
      {palette.map(({ colour, share }) => {
        const to = wish.merged.find(([from]) => from === colour)?.[1] ?? "";
        return (
          <li key={colour} data-palette={colour} className="flex flex-wrap items-center gap-3 py-2">
            <span className="size-6 border border-line" style={{ background: colour }} />
            <span className="num">
              {colour} {share < 0.001 ? "under 0.1" : (share * 100).toFixed(1)} %
            </span>
            <label className="flex items-center gap-2">
              <Tick
                checked={wish.locked.includes(colour)}
                onChange={(on) =>
                  onWish({ ...wish, locked: on ? [...wish.locked, colour] : wish.locked.filter((c) => c !== colour) })
                }
              />
              kept as it is
            </label>
            <span className="ml-auto">
              <Pick
                label={`${colour} goes with`}
                value={to || "own"}
                options={[
                  { value: "own", label: "an area of its own" },
                  ...palette
                    .filter((c) => c.colour !== colour)
                    .map((c) => ({ value: c.colour, label: `with ${c.colour}` })),
                ]}
                onChange={(v) => {
                  const rest = wish.merged.filter(([from]) => from !== colour);
                  // what is put together is found again by its colour: both stay as they are
                  const locked = v === "own" ? wish.locked : [...new Set([...wish.locked, colour, v])];
                  onWish({ locked, merged: v === "own" ? rest : [...rest, [colour, v]] });
                }}
              />
            </span>
          </li>
        );
      })}
    </ul>
  );
}

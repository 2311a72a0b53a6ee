/** Shapes reckoned with on the job’s own drawing: joined, cut, bordered; a group put in the middle; letters fitted into a block. */
import { useState } from "react";
import { useFetcher } from "react-router";
import { origin } from "../core/geometry/origin";
import { groupMiddle, type ShapeFound, type ShapeOp } from "../core/geometry/shapes";
import type { Job } from "../core/records/job";
import type { Outcome } from "../core/records/outcome";
import { parseLength } from "../core/units/parse";
import { said } from "../core/units/said";
import { plural, showLength, type UnitSystem } from "../core/units/show";
import { combineShapes, letterBlock } from "../workers/zones";
import type { LetterFound } from "../workers/zones-api";
import { ActButton } from "./kit/field";
import { Fold } from "./kit/fold";
import { LabelledPick, Tick } from "./kit/pick";
import { NEW_PAINT } from "./inks";

const OPS: { value: ShapeOp; label: string; two: boolean; mm: boolean }[] = [
  { value: "join", label: "join with", two: true, mm: false },
  { value: "cut", label: "cut out of it", two: true, mm: false },
  { value: "share", label: "keep what it shares with", two: true, mm: false },
  { value: "grow", label: "grow all round by", two: false, mm: true },
  { value: "border", label: "a border round it of", two: false, mm: true },
];
const cm2 = (mm2: number, units: UnitSystem): string => said(`${(mm2 / 100).toFixed(2)} cm²`, units);

/** A shape as it would come out, over what it comes from. */
function Preview({ job, made, from }: { job: Job; made: string; from: string[] }) {
  const { w, h } = job.artwork ?? job.substrate;
  return (
    <svg
      role="img"
      aria-label="What comes of it, over what it comes from"
      viewBox={`${-0.02 * w} ${-0.02 * h} ${1.04 * w} ${1.04 * h}`}
      className="max-h-60 w-full border border-line"
    >
      <path d={made} fill="var(--act)" fillOpacity="0.35" fillRule="evenodd" />
      {from.map((d) => (
        <path key={d.slice(0, 40)} d={d} fill="none" stroke="var(--ink)" strokeWidth={Math.max(w, h) * 0.004} />
      ))}
    </svg>
  );
}

function Two({ job, units }: { job: Job; units: UnitSystem }) {
  const zones = job.zones.filter((z) => z.outline);
  const [a, setA] = useState(zones[0]?.id ?? "");
  const [b, setB] = useState(zones[1]?.id ?? "");
  const [op, setOp] = useState<ShapeOp>(zones.length > 1 ? "join" : "border");
  const [mm, setMm] = useState("");
  const [found, setFound] = useState<{ key: string; is: ShapeFound } | null>(null);
  const [error, setError] = useState<string | null>(null);
  const fetcher = useFetcher<Outcome>();
  const how = OPS.find((o) => o.value === op)!;
  const [x, y] = [zones.find((z) => z.id === a), zones.find((z) => z.id === b)];
  const key = [a, how.two ? b : "", op, how.mm ? mm : ""].join("|");
  const now = found?.key === key ? found.is : null;
  const look = async (): Promise<void> => {
    setError(null);
    const width = how.mm ? parseLength(mm, units === "inch" ? "in" : "mm") : null;
    if (width && !width.ok) return setError(width.error);
    if (how.two && a === b) return setError("Choose two different zones.");
    try {
      setFound({
        key,
        is: await combineShapes(op, x!.outline, how.two ? y!.outline : "", width?.ok ? width.value : 0),
      });
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const take = (asNew: boolean): void => {
    if (!now?.shape || !x) return;
    void fetcher.submit(
      {
        intent: "zone-shape",
        zone: asNew ? "" : a,
        gone: !asNew && op === "join" && how.two ? b : "",
        name: asNew ? `${op === "border" ? "Border of" : "Shape of"} ${x.name}` : "",
        colour: asNew ? (x.wanted ?? x.colour) : "",
        found: JSON.stringify(now.shape),
      },
      { method: "post" },
    );
  };
  const options = zones.map((z) => ({ value: z.id, label: z.name }));
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-end gap-3">
        <LabelledPick label="Zone" value={a} options={options} onChange={setA} className="w-44" />
        <LabelledPick label="What" value={op} options={OPS} onChange={(v) => setOp(v as ShapeOp)} className="w-52" />
        {how.two && <LabelledPick label="Other zone" value={b} options={options} onChange={setB} className="w-44" />}
        {how.mm && (
          <label className="flex w-28 flex-col gap-0.5 text-small text-muted">
            By
            <input
              className="field-in text-ink"
              value={mm}
              onChange={(e) => setMm(e.target.value)}
              placeholder="2 mm"
            />
          </label>
        )}
        <button type="button" className="btn" onClick={() => void look()} disabled={!x || (how.two && !y)}>
          Show what comes of it
        </button>
      </div>
      {(error ?? fetcher.data?.error) && (
        <p role="alert" className="text-wrong">
          {error ?? fetcher.data?.error}
        </p>
      )}
      {now && (
        <div data-shape-area={now.shape ? Math.round(now.shape.areaMm2 * 1000) / 1000 : 0}>
          <p>
            {x!.name} has {cm2(now.a, units)}
            {how.two && y && `, ${y.name} ${cm2(now.b, units)}; they share ${cm2(now.shared, units)}`}.{" "}
            {now.shape
              ? `What comes of it has ${cm2(now.shape.areaMm2, units)} in ${plural(now.shape.pieces, "piece")}, ` +
                `narrowest ${said(`${now.shape.narrowestMm.toFixed(2)} mm`, units)}.`
              : "Nothing is left of it."}
          </p>
          {now.shape && (
            <>
              <Preview job={job} made={now.shape.outline} from={[x!.outline, ...(how.two && y ? [y.outline] : [])]} />
              <div className="mt-2 flex flex-wrap gap-3">
                {op !== "border" && (
                  <button type="button" className="btn" onClick={() => take(false)}>
                    {op === "join" ? `Take it: ${y?.name ?? ""} goes into ${x!.name}` : `Take it for ${x!.name}`}
                  </button>
                )}
                {!how.two && (
                  <button type="button" className="btn" onClick={() => take(true)}>
                    Take it as a zone of its own
                  </button>
                )}
              </div>
            </>
          )}
        </div>
      )}
    </div>
  );
}

function Group({ job, units }: { job: Job; units: UnitSystem }) {
  const zones = job.zones.filter((z) => z.outline);
  const [on, setOn] = useState<string[]>(zones.map((z) => z.id));
  const [ox, oy] = origin(job);
  const { w, h } = job.substrate;
  const found = groupMiddle(
    zones.filter((z) => on.includes(z.id)),
    [w / 2 - ox, h / 2 - oy],
  );
  const len = (mm: number): string => showLength(Math.round(mm * 100) / 100, units);
  return (
    <div className="flex flex-col gap-2">
      <ul className="flex flex-wrap gap-x-5">
        {zones.map((z) => (
          <li key={z.id}>
            <label className="flex min-h-line items-center gap-2">
              <Tick
                checked={on.includes(z.id)}
                onChange={(yes) => setOn(yes ? [...on, z.id] : on.filter((x) => x !== z.id))}
              />
              {z.name}
            </label>
          </li>
        ))}
      </ul>
      {found && (
        <p>
          Together {len(found.x1 - found.x0)} × {len(found.y1 - found.y0)}.{" "}
          {Math.hypot(...found.move) < 0.005
            ? "Their middle is the piece’s own."
            : `Their middle lies ${len(Math.abs(found.move[0]))} ${found.move[0] > 0 ? "left" : "right"} of and ` +
              `${len(Math.abs(found.move[1]))} ${found.move[1] > 0 ? "above" : "below"} that of the piece.`}
        </p>
      )}
      {found && Math.hypot(...found.move) >= 0.005 && (
        <ActButton
          className="btn self-start"
          act={{ intent: "zones-move", zones: on.join(" "), dx: String(found.move[0]), dy: String(found.move[1]) }}
        >
          Put them in the middle as a group
        </ActButton>
      )}
    </div>
  );
}

function Letters({ job, units, leastCapMm }: { job: Job; units: UnitSystem; leastCapMm: number | null }) {
  const [text, setText] = useState("");
  const [w, setW] = useState(showLength(Math.round(job.substrate.w * 0.8), units));
  const [h, setH] = useState(showLength(Math.round(job.substrate.h * 0.4), units));
  const [bold, setBold] = useState(true);
  const [found, setFound] = useState<{ key: string; is: LetterFound } | null>(null);
  const [error, setError] = useState<string | null>(null);
  const fetcher = useFetcher<Outcome>();
  const key = [text, w, h, bold].join("|");
  const now = found?.key === key ? found.is : null;
  const lines = text.split("\n").map((l) => l.trim());
  const look = async (): Promise<void> => {
    setError(null);
    const [a, b] = [w, h].map((t) => parseLength(t, units === "inch" ? "in" : "mm"));
    if (!a.ok) return setError(a.error);
    if (!b.ok) return setError(b.error);
    try {
      setFound({ key, is: await letterBlock(lines, a.value, b.value, bold) });
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const size = (mm: number): string => said(`${mm.toFixed(1)} mm`, units);
  return (
    <div className="flex flex-col gap-3">
      <label className="flex flex-col gap-0.5 text-small text-muted">
        Lines
        <textarea className="field-in text-ink" rows={3} value={text} onChange={(e) => setText(e.target.value)} />
      </label>
      <div className="flex flex-wrap items-end gap-3">
        <label className="flex w-28 flex-col gap-0.5 text-small text-muted">
          Block wide
          <input className="field-in text-ink" value={w} onChange={(e) => setW(e.target.value)} />
        </label>
        <label className="flex w-28 flex-col gap-0.5 text-small text-muted">
          Block high
          <input className="field-in text-ink" value={h} onChange={(e) => setH(e.target.value)} />
        </label>
        <label className="flex min-h-line items-center gap-2">
          <Tick checked={bold} onChange={setBold} /> bold
        </label>
        <button type="button" className="btn" onClick={() => void look()} disabled={!text.trim()}>
          Fit them
        </button>
      </div>
      {(error ?? fetcher.data?.error) && (
        <p role="alert" className="text-wrong">
          {error ?? fetcher.data?.error}
        </p>
      )}
      {now?.shape && (
        <div data-capital={now.capMm.toFixed(3)}>
          <p>
            Capitals {size(now.capMm)} high, {size(now.pitchMm)} from foot to foot; strokes from{" "}
            {said(`${now.shape.narrowestMm.toFixed(2)} mm`, units)}.{" "}
            {now.widest === null ? "The height of the block bounds it." : `Line ${now.widest + 1} bounds it.`}
            {leastCapMm !== null && now.capMm < leastCapMm && (
              <strong className="text-wrong"> Under {size(leastCapMm)} this way does not hold plain capitals.</strong>
            )}
            {now.lacks.length > 0 && (
              <strong className="text-wrong"> The font does not have: {now.lacks.join(" ")}.</strong>
            )}
          </p>
          <svg
            role="img"
            aria-label={lines.join(", ")}
            viewBox={`0 0 ${Math.max(...now.widths)} ${now.capMm + (lines.length - 1) * now.pitchMm}`}
            className="max-h-40 w-full"
            overflow="visible"
          >
            <path
              d={now.shape.outline}
              fill="var(--ink)"
              fillRule="evenodd"
              transform={`translate(${-leftOf(now.shape.rows)} ${-now.shape.rows[0]})`}
            />
          </svg>
          <button
            type="button"
            className="btn mt-2"
            onClick={() =>
              void fetcher.submit(
                {
                  intent: "zone-shape",
                  name: lines.find((l) => l) ?? "Letters",
                  colour: NEW_PAINT,
                  found: JSON.stringify(now.shape),
                },
                { method: "post" },
              )
            }
          >
            Put them on the piece as a zone
          </button>
        </div>
      )}
    </div>
  );
}
/** Least x of a zone’s rows. */
const leftOf = (rows: readonly number[]): number => {
  let least = Infinity;
  for (let i = 2; i < rows.length; i += 2) if (rows[i] <= rows[i + 1]) least = Math.min(least, rows[i]);
  return Number.isFinite(least) ? least : 0;
};

/** @param leastCapMm height of plain capitals that the way holds; null: not known */
export function Shapes({ job, units, leastCapMm }: { job: Job; units: UnitSystem; leastCapMm: number | null }) {
  const drawn = job.zones.some((z) => z.outline);
  return (
    <Fold summary="Reckon with shapes: join, cut, border, middle, letters" inside="my-3 flex flex-col gap-6">
      {drawn && (
        <section aria-label="Outlines that cross, borders">
          <h3 className="mb-2">Crossing outlines and borders</h3>
          <Two job={job} units={units} />
        </section>
      )}
      {drawn && (
        <section aria-label="A group in the middle">
          <h3 className="mb-2">Zones in the middle as a group</h3>
          <Group job={job} units={units} />
        </section>
      )}
      <section aria-label="Lines in a block">
        <h3 className="mb-2">Lines of letters in a block</h3>
        <Letters job={job} units={units} leastCapMm={leastCapMm} />
      </section>
    </Fold>
  );
}

/** Placing at the machine: does a start leave the bed, does the piece lie square, how far off it lay when it was put back. */
import { useState } from "react";
import { clearOfBed, squareness, type Anchor } from "../../core/geometry/bed";
import { parseLength } from "../../core/units/parse";
import { said } from "../../core/units/said";
import type { UnitSystem } from "../../core/units/show";
import type { filesView } from "../../views/files";
import { AskButton, AskForm, AskPick, AskText } from "../kit/ask";
import { LabelledPick } from "../kit/pick";
import { OffForm } from "../../core/records/forms";

type View = ReturnType<typeof filesView>;
const mmOf = (t: string, units: UnitSystem): number | null => {
  const p = parseLength(t, units === "inch" ? "in" : "mm");
  return t.trim() && p.ok ? p.value : null;
};
const r = (v: number): number => Math.round(v * 100) / 100;

function Typed({ label, value, set, bad }: { label: string; value: string; set: (v: string) => void; bad: boolean }) {
  return (
    <label className="flex w-28 flex-col gap-0.5 text-small text-muted">
      {label}
      <input
        className="field-in text-ink"
        inputMode="decimal"
        value={value}
        onChange={(e) => set(e.target.value)}
        aria-invalid={bad || undefined}
      />
    </label>
  );
}

/** The bed with what is burnt from where the head stands, and as far as rows run past it. */
function Bed(p: {
  bed: { w: number; h: number };
  art: { w: number; h: number };
  at: [number, number];
  anchor: Anchor;
  run: number;
  clear: boolean;
}) {
  const [x, y] = p.anchor === "corner" ? p.at : [p.at[0] - p.art.w / 2, p.at[1] - p.art.h / 2];
  const out = Math.max(0, p.run - x, -y, x + p.art.w + p.run - p.bed.w, y + p.art.h - p.bed.h);
  const m = Math.min(out, p.bed.w) + 0.03 * p.bed.w;
  const line = 0.006 * p.bed.w;
  const ink = p.clear ? "var(--ready)" : "var(--wrong)";
  return (
    <svg
      role="img"
      aria-label={p.clear ? "All of it lies on the bed" : "Part of it lies beyond the bed"}
      viewBox={`${-m} ${-m} ${p.bed.w + 2 * m} ${p.bed.h + 2 * m}`}
      className="my-2 max-h-40 w-full"
    >
      <rect width={p.bed.w} height={p.bed.h} fill="var(--lifted)" stroke="var(--strong-line)" strokeWidth={line} />
      <rect
        x={x - p.run}
        y={y}
        width={p.art.w + 2 * p.run}
        height={p.art.h}
        fill="none"
        stroke={ink}
        strokeWidth={line}
        strokeDasharray={`${3 * line} ${2 * line}`}
      />
      <rect
        x={x}
        y={y}
        width={p.art.w}
        height={p.art.h}
        fill={ink}
        fillOpacity="0.25"
        stroke={ink}
        strokeWidth={line}
      />
      <circle cx={p.at[0]} cy={p.at[1]} r={2.5 * line} fill={ink} />
    </svg>
  );
}

/** Where the head stands, and whether all of it stays on the bed from there. */
export function ClearOfBed({ d }: { d: View }) {
  const [x, setX] = useState("");
  const [y, setY] = useState("");
  const [anchor, setAnchor] = useState<Anchor>("corner");
  const { machine, units, job } = d;
  if (!machine) return null;
  const at = [mmOf(x, units), mmOf(y, units)];
  const wrong = (t: string, v: number | null): boolean => t.trim() !== "" && v === null;
  const found =
    at[0] !== null && at[1] !== null
      ? clearOfBed(job.substrate, [at[0], at[1]], anchor, machine.run ?? 0, { w: machine.bedW, h: machine.bedH })
      : null;
  const say = (mm: number): string => said(`${r(mm)} mm`, units);
  const over = found
    ? (["left", "top", "right", "bottom"] as const)
        .filter((k) => found.over[k] > 0)
        .map((k) => `${say(found.over[k])} at the ${k}`)
    : [];
  return (
    <div>
      <h3>From where the head stands</h3>
      <p className="text-small text-muted">
        Start from {d.start}. If you start from where the head stands instead, see first that nothing runs off the bed.
      </p>
      <div className="my-1 flex flex-wrap items-end gap-3">
        <Typed label="Head from the left" value={x} set={setX} bad={wrong(x, at[0])} />
        <Typed label="Head from the back" value={y} set={setY} bad={wrong(y, at[1])} />
        <LabelledPick
          label="It stands at the artwork’s"
          value={anchor}
          onChange={(v) => setAnchor(v as Anchor)}
          options={[
            { value: "corner", label: "upper left corner" },
            { value: "middle", label: "middle" },
          ]}
          className="w-48"
        />
      </div>
      {found && (
        <Bed
          bed={{ w: machine.bedW, h: machine.bedH }}
          art={job.substrate}
          at={[at[0] as number, at[1] as number]}
          anchor={anchor}
          run={machine.run ?? 0}
          clear={found.clear}
        />
      )}
      <p aria-live="polite" data-clear={found ? String(found.clear) : ""}>
        {wrong(x, at[0]) || wrong(y, at[1]) ? (
          <span className="text-wrong">
            Type where the head stands as a length, such as {units === "inch" ? "4 in" : "100 mm"}.
          </span>
        ) : !found ? (
          ""
        ) : found.clear ? (
          <span className="text-ready">Clear of the bed’s edges.</span>
        ) : (
          <span className="text-wrong">
            It runs off the bed: {over.join(", ")}.{" "}
            {found.move
              ? `Move the start ${[
                  found.move[0] ? `${say(Math.abs(found.move[0]))} to the ${found.move[0] > 0 ? "right" : "left"}` : "",
                  found.move[1] ? `${say(Math.abs(found.move[1]))} ${found.move[1] > 0 ? "forward" : "back"}` : "",
                ]
                  .filter(Boolean)
                  .join(" and ")}.`
              : "It is larger than the bed."}
          </span>
        )}
      </p>
    </div>
  );
}

/** Two readings of the head along an edge. */
export function Squareness({ d }: { d: View }) {
  const [t, set] = useState(["", "", "", ""]);
  const { units, job } = d;
  const v = t.map((x) => mmOf(x, units));
  const all = v.every((x) => x !== null);
  const found = all
    ? squareness([v[0]!, v[1]!], [v[2]!, v[3]!], { w: job.substrate.w, h: job.substrate.h }, d.place.overrunMm)
    : null;
  const put = (i: number) => (x: string) => set((old) => old.map((o, k) => (k === i ? x : o)));
  const field = (i: number, label: string) => (
    <Typed label={label} value={t[i]} set={put(i)} bad={t[i].trim() !== "" && v[i] === null} />
  );
  return (
    <div>
      <h3>Does it lie square?</h3>
      <p className="text-small text-muted">
        Jog the dot to the edge that should run along the machine, near one end and near the other; type both readings.
      </p>
      <div className="my-1 flex flex-wrap items-end gap-3">
        {field(0, "One end, x")}
        {field(1, "One end, y")}
        {field(2, "Other end, x")}
        {field(3, "Other end, y")}
      </div>
      <p aria-live="polite" data-square={found ? r(found.degrees) : ""}>
        {all && !found && <span className="text-wrong">The two ends lie at the same x: take them farther apart.</span>}
        {found && (
          <>
            Turned by {r(Math.abs(found.degrees))}°
            {Math.abs(found.pushMm) < 0.005
              ? ": square."
              : `: push its right end ${said(`${r(Math.abs(found.pushMm))} mm`, units)} ${found.pushMm > 0 ? "back" : "forward"}. `}
            {Math.abs(found.pushMm) >= 0.005 &&
              (found.hidden
                ? `The overrun of ${said(`${r(d.place.overrunMm)} mm`, units)} hides it as it lies.`
                : `The overrun hides ${r(d.place.degrees)}° at most: put it right.`)}
          </>
        )}
      </p>
    </div>
  );
}

/** How far off the piece lay at each visit after the first. */
export function PutBack({ d }: { d: View }) {
  if (!d.again.length) return null;
  const worst = d.off.length ? Math.max(...d.off.map((o) => o.mm)) : null;
  return (
    <div>
      <h3>Put back</h3>
      <p className="text-small text-muted">
        By {d.place.by} it comes back within {said(`${r(d.place.errorMm)} mm`, d.units)}; colours overlap by{" "}
        {said(`${r(d.place.trapMm)} mm`, d.units)} to hide that. Write down how far off the frame lay.
      </p>
      <AskForm form={OffForm} intent="off" start={{ step: d.again[0].id, mm: "" }}>
        <AskPick name="step" label="Before" options={d.again.map((a) => ({ value: a.id, label: a.title }))} />
        <AskText
          name="mm"
          label="Off by"
          hint={d.units === "inch" ? "in" : "mm"}
          inputMode="decimal"
          className="w-24"
        />
        <AskButton>Write it down</AskButton>
      </AskForm>
      <ul data-put-back={worst ?? ""}>
        {d.off.map((o) => (
          <li key={o.id} className={`border-t border-line py-1 ${o.beyond ? "text-wrong" : ""}`}>
            {o.when}: {said(`${r(o.mm)} mm`, d.units)} off
            {o.beyond && ", more than this job bears: a nest or a corner holds it closer"}
          </li>
        ))}
      </ul>
    </div>
  );
}

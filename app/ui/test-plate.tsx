/** A test plate on the screen: cells to be pressed as they are read, what they say, its files. */
import { useState } from "react";
import { useFetcher } from "react-router";
import { fewer } from "../core/explain/plate";
import { WANTED } from "../core/models/laser/fewest";
import type { TestPlate } from "../core/records/job";
import type { Machine } from "../core/records/machine";
import type { Outcome } from "../core/records/outcome";
import { said } from "../core/units/said";
import { plural, type UnitSystem } from "../core/units/show";
import { labelMm, labelTexts, plateKey, plateSheet } from "../io/export/plate-sheet";
import { writeDxf, writeSvg, type Sheet } from "../io/export/vectors";
import type { PlateShown } from "../views/test";
import { labelRings } from "../workers/zones";
import { saveFile } from "./files";
import { ActButton } from "./kit/field";
import { PlatePhoto } from "./plate-photo";
import { LabelledPick } from "./kit/pick";

const LAYERS = { top: "the dark film or mask", under: "what lies beneath" } as const;
const READ_WORDS = { whole: "whole", partly: "partly gone", gone: "gone" } as const;
const TOUCHED = { whole: "whole", partly: "touched", gone: "eaten through" } as const;
const LOOK = { whole: "bg-ink text-paper", partly: "bg-waiting text-paper", gone: "bg-ready text-paper" } as const;
const r1 = (v: number): number => Math.round(v * 10) / 10;

/** The plate as a file. */
const sheetOf = async (p: PlateShown): Promise<Sheet> =>
  plateSheet(p.t, p.cells, await labelRings(labelTexts(p.t), labelMm(p.t)), p.zones);

export function TestPlateView({ p, units, n }: { p: PlateShown; units: UnitSystem; n: number }) {
  const { t, fit } = p;
  const fetcher = useFetcher<Outcome>();
  const [layer, setLayer] = useState<"top" | "under">("top");
  const [error, setError] = useState<string | null>(null);
  const read = new Map(t.cells.map((c) => [`${c.row} ${c.col}`, c]));
  const send = (row: number, col: number, field: string, value: string): void =>
    void fetcher.submit(
      { intent: "test-cell", id: t.id, row: String(row), col: String(col), field, value },
      { method: "post" },
    );
  const numbers = t.question === "darken" || t.question === "depth";
  const save = async (kind: "svg" | "dxf"): Promise<void> => {
    try {
      setError(null);
      const sheet = await sheetOf(p);
      saveFile(
        `test-plate-${n}.${kind}`,
        kind === "svg" ? writeSvg(sheet) : writeDxf(sheet),
        kind === "svg" ? "image/svg+xml" : "application/dxf",
      );
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const words = layer === "top" ? READ_WORDS : TOUCHED;
  return (
    <article data-plate={t.id} aria-label={`Plate ${n}`} className="border-t-2 border-strong pt-3">
      <h2>
        Plate {n}{" "}
        <span className="text-small font-normal text-muted">
          {p.machine}, {t.at.replace("T", " ")}
        </span>
      </h2>
      <p className="text-muted">
        {plural(t.powers.length, "power")} by {plural(t.speeds.length, "speed")}, {said(`${t.interval} mm`, units)}{" "}
        between lines, {t.passes} {t.passes === 1 ? "pass" : "passes"} in every cell;{" "}
        {said(`${Math.ceil(p.size.w)} mm × ${Math.ceil(p.size.h)} mm`, units)} with labels, {p.minutes} of beam.
      </p>
      {p.other && (
        <p className="text-waiting">It was made on another machine than the job’s: it says nothing of this one.</p>
      )}
      {p.guards.map((g) => (
        <p key={g} className="text-small text-waiting">
          {said(g, units)}
        </p>
      ))}
      {p.made && !numbers && !t.cells.length && p.cells.length > FEW && p.cells.every((c) => c.e !== null) && (
        <FewerCells key={p.cells.length} t={t} made={p.made} first={p.first} />
      )}
      {!numbers && (
        <LabelledPick
          label="Read"
          value={layer}
          onChange={(v) => setLayer(v as "top" | "under")}
          options={Object.entries(LAYERS).map(([value, label]) => ({ value, label }))}
          className="my-2 w-60"
        />
      )}
      <p className="text-small text-muted">
        {t.question === "darken"
          ? "Wipe it first. Say how deep each mark is, from 0 (nothing) to 10 (deepest)."
          : t.question === "depth"
            ? `Measure how deep each cell is, in ${units === "inch" ? "in" : "mm"}.`
            : `Wipe it first. Press a cell: whole, ${layer === "top" ? "partly gone, gone" : "touched, eaten through"}, nothing said.`}
      </p>
      <div className="my-2 max-w-full overflow-x-auto">
        <table className="!w-auto" aria-label={`Cells of plate ${n}: power in rows, speed in columns`}>
          <thead>
            <tr>
              <th scope="col">power</th>
              {t.speeds.map((v) => (
                <th key={v} scope="col" className="num whitespace-nowrap">
                  {r1(v)} mm/s
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {t.powers.map((power, row) => (
              <tr key={power}>
                <th scope="row" className="num whitespace-nowrap">
                  {r1(100 * power)} %
                </th>
                {t.speeds.map((_v, col) => {
                  const c = p.cells.find((x) => x.row === row && x.col === col)!;
                  const is = read.get(`${row} ${col}`);
                  const e = c.e === null ? "energy unknown" : `${c.e.toFixed(2)} J/mm²`;
                  const name = `Power ${r1(100 * power)} %, ${r1(c.speed)} mm/s, ${e}`;
                  const value = numbers ? "" : (is?.[layer] ?? "");
                  return (
                    <td key={col} className="!p-0.5">
                      {numbers ? (
                        <input
                          aria-label={`${name}: ${t.question === "depth" ? "depth" : "mark 0 to 10"}`}
                          className="field-in !w-20 text-center text-ink"
                          inputMode="decimal"
                          title={e}
                          defaultValue={(t.question === "depth" ? is?.mm : is?.mark) ?? ""}
                          onBlur={(x) => {
                            const was = String((t.question === "depth" ? is?.mm : is?.mark) ?? "");
                            if (x.target.value !== was)
                              send(row, col, t.question === "depth" ? "mm" : "mark", x.target.value);
                          }}
                        />
                      ) : (
                        <button
                          type="button"
                          data-cell={`${row} ${col}`}
                          data-read={value}
                          aria-label={`${name}: ${value ? words[value] : "nothing said"}`}
                          className={`h-12 w-20 rounded border border-strong text-small ${value ? LOOK[value] : "bg-lifted"}`}
                          onClick={() => send(row, col, layer, "next")}
                        >
                          {c.e === null ? "?" : c.e.toFixed(2)}
                          <span className="block text-fine">{value ? words[value] : ""}</span>
                        </button>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {t.question !== "depth" && <PlatePhoto p={p} n={n} />}
      {(error ?? fetcher.data?.error) && (
        <p role="alert" className="text-wrong">
          {error ?? fetcher.data?.error}
        </p>
      )}
      <div
        aria-live="polite"
        data-plate-says={fit.advice ? fit.advice.e.toFixed(3) : fit.depth ? fit.depth.perJ.toFixed(4) : ""}
      >
        {fit.lacks && <p className="text-waiting">{fit.lacks}</p>}
        {fit.advice && (
          <p>
            {fit.advice.says} Take <strong>{r1(100 * fit.advice.power)} %</strong> at{" "}
            <strong>{said(`${fit.advice.speed} mm/s`, units)}</strong>.
          </p>
        )}
        {fit.window && fit.window.hi && (
          <p className="text-small text-muted">
            Nine in ten: gone from {fit.window.lo.low.toFixed(2)} to {fit.window.lo.high.toFixed(2)} J/mm²; beneath it
            is touched from {fit.window.hi.low.toFixed(2)} to {fit.window.hi.high.toFixed(2)}. A further cell would tell
            most at {fit.next.map((e) => e.toFixed(2)).join(", ")} J/mm².
          </p>
        )}
        {fit.depth && (
          <p>
            {fit.depth.perJ.toFixed(3)} mm per J/mm², {said(`${fit.depth.offMm.toFixed(3)} mm`, units)} off the line, by{" "}
            {fit.depth.n} cells.
            {p.used && <span className="text-ready"> Kept with {p.machine}: depths are planned by it.</span>}
          </p>
        )}
      </div>
      <div className="screen-only mt-2 flex flex-wrap gap-3">
        {(fit.advice || fit.depth) && (
          <ActButton className="btn btn-main" act={{ intent: "test-use", id: t.id }}>
            {fit.depth
              ? p.used
                ? "Keep it again"
                : "Keep it with the machine"
              : p.used
                ? "Go by it again"
                : "Go by it"}
          </ActButton>
        )}
        {(fit.window ?? fit.peak) && (
          <ActButton act={{ intent: "test-zoom", id: t.id }}>A closer plate round it</ActButton>
        )}
        <button type="button" className="btn" onClick={() => void save("svg")}>
          SVG
        </button>
        <button type="button" className="btn" onClick={() => void save("dxf")}>
          DXF
        </button>
        <button
          type="button"
          className="btn"
          onClick={() => saveFile(`test-plate-${n}.csv`, plateKey(t, p.cells), "text/csv")}
        >
          Key as CSV
        </button>
        <ActButton className="link-act" act={{ intent: "test-remove", id: t.id }} label={`Take it out: plate ${n}`}>
          Take it out
        </ActButton>
      </div>
    </article>
  );
}

/** cells that nobody wants fewer of */
const FEW = 6;
const percent = (ln: number): number => Math.round(100 * (Math.exp(ln) - 1));
/** How few cells would do, asked for by a press: many plates are drawn and read for it. */
function FewerCells({ t, made, first }: { t: TestPlate; made: Machine; first: number | null }) {
  const [said, hear] = useState<ReturnType<typeof fewer> | undefined>(undefined);
  const [busy, works] = useState(false);
  const ask = (): void => {
    works(true);
    // the word is on the page before the reckoning begins
    setTimeout(() => {
      hear(fewer(t, made, first));
      works(false);
    }, 30);
  };
  return (
    <div aria-live="polite" data-fewer={said ? said.rows * said.cols : ""} className="screen-only my-2">
      {said === undefined ? (
        <button type="button" className="btn" disabled={busy} onClick={ask}>
          {busy ? "Reckoning…" : "How few cells would do?"}
        </button>
      ) : said === null ? (
        <p className="text-small">
          No smaller plate over this stretch tells an edge to {percent(WANTED)} % either way; over a narrower stretch
          fewer cells may.
        </p>
      ) : (
        <>
          <p>
            {said.rows * said.cols} cells, {plural(said.rows, "power")} by {plural(said.cols, "speed")}, should tell an
            edge to {percent(said.width)} % either way, nine times in ten; all {t.powers.length * t.speeds.length} to{" "}
            {percent(said.whole)} %.
          </p>
          <ActButton act={{ intent: "test-fewer", id: t.id }}>Make it {said.rows * said.cols} cells</ActButton>
        </>
      )}
    </div>
  );
}

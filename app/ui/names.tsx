/** A name on each piece: pasted or from a file, fitted into one block, looked at one by one before they are taken. */
import { useRef, useState } from "react";
import { useFetcher } from "react-router";
import { nowMs } from "../clock";
import { origin } from "../core/geometry/origin";
import { nameSheet } from "../core/explain/names";
import { named } from "../core/geometry/names";
import { NameBlock, type Job } from "../core/records/job";
import type { Outcome } from "../core/records/outcome";
import { parseLength, parseNumber } from "../core/units/parse";
import { said } from "../core/units/said";
import { plural, showLength, type UnitSystem } from "../core/units/show";
import type { NamesFound } from "../io/names";
import { setPaper } from "../workers/paper";
import { saveFile } from "./files";
import { setNames } from "../workers/zones";
import { DropFile } from "./kit/drop";
import { ActButton } from "./kit/field";
import { Fold } from "./kit/fold";
import { Tick } from "./kit/pick";
import { NEW_PAINT } from "./inks";

/** names that are drawn at once */
const DRAWN = 48;
/** bytes of a list, of a font */
const LIST_LIMIT = 5_000_000;
const FONT_LIMIT = 20_000_000;

/** mm from the corner of the piece to that of the artwork, which moves with its names */
const cornerOf = (job: Job): [number, number] => (job.artwork ? origin(job) : [0, 0]);
/** What stands in the list: a line a piece. */
const listOf = (job: Job): string =>
  job.zones
    .flatMap((z) => z.onPieces ?? [])
    .sort((a, b) => a.n - b.n)
    .map((p) => p.text)
    .join("\n");

type Typed = Record<"x" | "y" | "w" | "h" | "tracking", string>;
function typedOf(job: Job, units: UnitSystem): Typed {
  const { w, h } = job.substrate;
  const [ox, oy] = cornerOf(job);
  const b = job.names
    ? { ...job.names, x: job.names.x + ox, y: job.names.y + oy }
    : { x: w * 0.1, y: h * 0.7, w: w * 0.8, h: h * 0.2, tracking: 0 };
  const len = (mm: number): string => showLength(Math.round(mm * 10) / 10, units);
  return { x: len(b.x), y: len(b.y), w: len(b.w), h: len(b.h), tracking: String(b.tracking) };
}
/** The block as typed, or what is wrong with it. */
function blockOf(
  t: Typed,
  units: UnitSystem,
  [ox, oy]: readonly [number, number],
  more: Pick<NameBlock, "bold" | "oneSize" | "font">,
): NameBlock | string {
  const mm = new Map<string, number>();
  for (const k of ["x", "y", "w", "h"] as const) {
    const r = parseLength(t[k], units === "inch" ? "in" : "mm");
    if (!r.ok) return r.error;
    mm.set(k, r.value);
  }
  const em = parseNumber(t.tracking);
  if (!em.ok) return em.error;
  if (em.value < -0.2 || em.value > 1) return "Between letters: from −0.2 to 1 em.";
  const [x, y, w, h] = ["x", "y", "w", "h"].map((k) => mm.get(k) as number);
  if (!(w >= 0.5 && h >= 0.5)) return "A block for names is half a millimetre wide and high at least.";
  return { x: x - ox, y: y - oy, w, h, tracking: em.value, ...more };
}

const FIELDS = [
  ["x", "Block from the piece’s left"],
  ["y", "Block from its top"],
  ["w", "Block wide"],
  ["h", "Block high"],
  ["tracking", "Between letters, em"],
] as const;

function Found({
  found,
  block,
  leastCapMm,
  units,
}: {
  found: NamesFound;
  block: NameBlock;
  leastCapMm: number | null;
  units: UnitSystem;
}) {
  const low = (capMm: number): boolean => leastCapMm !== null && capMm < leastCapMm - 1e-9;
  const small = found.list.filter((x) => low(x.capMm));
  const lacking = found.list.filter((x) => x.lacks.length);
  const size = (mm: number): string => said(`${mm.toFixed(1)} mm`, units);
  const caps = found.list.map((x) => x.capMm);
  const most = found.list.reduce((a, b) => (b.areaMm2 > a.areaMm2 ? b : a));
  const mean = found.list.reduce((s, x) => s + x.areaMm2, 0) / found.list.length;
  const cm2 = (mm2: number): string => said(`${(mm2 / 100).toFixed(2)} cm²`, units);
  return (
    <div data-names={found.list.length} className="flex flex-col gap-2">
      <p>
        {plural(found.list.length, "name")}: capitals {size(Math.min(...caps))} to {size(Math.max(...caps))} high;{" "}
        {cm2(mean)} each on average, {cm2(most.areaMm2)} for “{most.lines.join(", ")}”.
      </p>
      {small.length > 0 && (
        <p className="text-wrong">
          Under {size(leastCapMm as number)} this way does not hold plain capitals:{" "}
          {small
            .slice(0, 6)
            .map((x) => x.lines.join(", "))
            .join("; ")}
          {small.length > 6 && ` and ${small.length - 6} more`}.
        </p>
      )}
      {lacking.length > 0 && (
        <p className="text-wrong">
          The font does not have {[...new Set(lacking.flatMap((x) => x.lacks))].join(" ")}: in{" "}
          {lacking
            .slice(0, 6)
            .map((x) => x.lines.join(", "))
            .join("; ")}
          {lacking.length > 6 && ` and ${lacking.length - 6} more`}.
        </p>
      )}
      <ul className="grid fields-40 gap-x-4 gap-y-2">
        {found.list.slice(0, DRAWN).map((x, i) => (
          <li key={i} className="min-w-0">
            <svg
              role="img"
              aria-label={x.lines.join(", ")}
              viewBox={`${block.x} ${block.y} ${block.w} ${block.h}`}
              className={`max-h-16 w-full border bg-lifted ${low(x.capMm) || x.lacks.length ? "border-wrong" : "border-line"}`}
            >
              <path d={x.outline} fill="var(--ink)" fillRule="evenodd" />
            </svg>
            <span className="tag">
              {i + 1}: capitals {size(x.capMm)}
            </span>
          </li>
        ))}
      </ul>
      {found.list.length > DRAWN && <p className="tag">The first {DRAWN} are drawn; all are set.</p>}
    </div>
  );
}

/** The sheet on which who ordered them reads them through. */
function Proof({ job, has }: { job: Job; has: number }) {
  const [told, setTold] = useState<string | null>(null);
  const save = async (): Promise<void> => {
    setTold("Setting the names…");
    try {
      const made = nowMs();
      saveFile(
        `${job.title}.names.pdf`,
        await setPaper({ do: "names", sheet: nameSheet(job), made }),
        "application/pdf",
      );
      setTold(null);
    } catch (e) {
      setTold((e as Error).message);
    }
  };
  return (
    <p>
      {has === 1 ? "One piece carries a name." : `${has} pieces carry a name each.`}{" "}
      <button type="button" className="link-act" onClick={() => void save()}>
        Proof sheet, PDF
      </button>{" "}
      <span role="status" className="text-waiting">
        {told}
      </span>
    </p>
  );
}

/** @param leastCapMm height of plain capitals that the way holds; null: not known */
export function Names({ job, units, leastCapMm }: { job: Job; units: UnitSystem; leastCapMm: number | null }) {
  const [text, setText] = useState(() => listOf(job));
  const [t, setT] = useState(() => typedOf(job, units));
  const [bold, setBold] = useState(job.names?.bold ?? true);
  const [oneSize, setOneSize] = useState(job.names?.oneSize ?? false);
  const [own, setOwn] = useState<{ name: string; bytes: Uint8Array<ArrayBuffer> } | null>(null);
  const [found, setFound] = useState<{ key: string; is: NamesFound; block: NameBlock } | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [error, setError] = useState<string | null>(null);
  const stop = useRef<AbortController | null>(null);
  const fetcher = useFetcher<Outcome>();
  const key = JSON.stringify([text, t, bold, oneSize, own?.name]);
  const now = found?.key === key ? found : null;
  const has = named(job.zones);
  const look = async (): Promise<void> => {
    setError(null);
    const block = blockOf(t, units, cornerOf(job), { bold, oneSize, ...(own ? { font: own.name } : {}) });
    if (typeof block === "string") return setError(block);
    stop.current = new AbortController();
    setShare(0);
    try {
      const { readNames } = await import("../io/import/names");
      setFound({
        key,
        is: await setNames(own?.bytes ?? null, readNames(text), block, stop.current.signal, setShare),
        block,
      });
    } catch (e) {
      if (!stop.current.signal.aborted) setError((e as Error).message);
    }
    setShare(null);
  };
  const take = async (f: File, read: () => Promise<void>): Promise<void> => {
    setError(null);
    await read().catch(() => setError(`${f.name} could not be read.`));
  };
  return (
    <Fold summary="A name on each piece: from a list, fitted, with a proof sheet" inside="my-3 flex flex-col gap-3">
      <p className="text-muted">
        A line a piece. From a table: columns are lines of text; one headed “colour” says which paint a name is to have.
      </p>
      <label className="flex flex-col gap-0.5 text-small text-muted">
        Names
        <textarea className="field-in text-ink" rows={6} value={text} onChange={(e) => setText(e.target.value)} />
      </label>
      <div className="grid fields-40 gap-3">
        <DropFile
          label="Names from a file"
          what="a list: CSV or plain text"
          kinds={{ "text/csv": [".csv", ".tsv"], "text/plain": [".txt"] }}
          limit={LIST_LIMIT}
          onFile={(f) => void take(f, async () => setText(await f.text()))}
          onRefused={setError}
        >
          {(choose) => (
            <button type="button" className="btn" onClick={choose}>
              Take a list
            </button>
          )}
        </DropFile>
        <DropFile
          label="A font of your own"
          what="a font: TTF, OTF or WOFF"
          kinds={{ "font/ttf": [".ttf"], "font/otf": [".otf"], "font/woff": [".woff"] }}
          limit={FONT_LIMIT}
          onFile={(f) =>
            void take(f, async () =>
              setOwn({ name: f.name.slice(0, 120), bytes: new Uint8Array(await f.arrayBuffer()) }),
            )
          }
          onRefused={setError}
        >
          {(choose) => (
            <>
              <button type="button" className="btn" onClick={choose}>
                Take a font
              </button>
              <span className="tag">{own ? own.name : "else the one that ships"}</span>
            </>
          )}
        </DropFile>
      </div>
      {job.names?.font && !own && (
        <p className="text-waiting">
          They were set in {job.names.font}; choose that file again to set them anew in it.
        </p>
      )}
      <div className="grid fields-30 items-end gap-3">
        {FIELDS.map(([name, label]) => (
          <label key={name} className="flex flex-col gap-0.5 text-small text-muted">
            {label}
            <input
              className="field-in text-ink"
              value={t[name]}
              onChange={(e) => setT({ ...t, [name]: e.target.value })}
            />
          </label>
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-4">
        {!own && (
          <label className="flex min-h-line items-center gap-2">
            <Tick checked={bold} onChange={setBold} /> bold
          </label>
        )}
        <label className="flex min-h-line items-center gap-2">
          <Tick checked={oneSize} onChange={setOneSize} /> all as large as the longest allows
        </label>
        <button type="button" className="btn" onClick={() => void look()} disabled={!text.trim() || share !== null}>
          Fit the names
        </button>
        {share !== null && (
          <>
            <span role="status" className="text-waiting">
              {Math.round(100 * share)} % set…
            </span>
            <button type="button" className="link-act" onClick={() => stop.current?.abort()}>
              Stop
            </button>
          </>
        )}
      </div>
      {(error ?? fetcher.data?.error) && (
        <p role="alert" className="text-wrong">
          {error ?? fetcher.data?.error}
        </p>
      )}
      {now && <Found found={now.is} block={now.block} leastCapMm={leastCapMm} units={units} />}
      <div className="flex flex-wrap gap-3">
        {now && (
          <button
            type="button"
            className="btn btn-main"
            disabled={fetcher.state !== "idle"}
            onClick={() =>
              void fetcher.submit(
                {
                  intent: "names",
                  block: JSON.stringify(now.block),
                  found: JSON.stringify({
                    zones: now.is.zones,
                    list: now.is.list.map(({ lines, key: colour, outline }) => ({ lines, key: colour, outline })),
                  }),
                  colour: job.zones.find((z) => z.onPieces)?.colour ?? NEW_PAINT,
                },
                { method: "post" },
              )
            }
          >
            Put a name on each of {plural(now.is.list.length, "piece")}
          </button>
        )}
        {has > 0 && <ActButton act={{ intent: "names-off" }}>Take the names off</ActButton>}
      </div>
      {has > 0 && <Proof job={job} has={has} />}
    </Fold>
  );
}

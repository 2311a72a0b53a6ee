/** What may be promised for a further order, and what would help: asked of the worker, best shown as it comes. */
import { useEffect, useRef, useState } from "react";
import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from "recharts";
import type { World } from "../../core/records/world";
import { ROUTES } from "../../core/catalogue/routes";
import { SUBSTRATES } from "../../core/catalogue/substrates";
import type { Asked as Order, WhatIf } from "../../core/plan/promise";
import type { RouteId } from "../../core/records/ids";
import { parseLength } from "../../core/units/parse";
import { showLength, showMinutes, type UnitSystem } from "../../core/units/show";
import { askPromise, askWhatIf, type PromiseRows } from "../../workers/shop";
import { Cancelled } from "../../workers/call";
import { Pick } from "../kit/pick";

interface Asking {
  worlds: World[];
  now: number;
  /** the wall clock as it stands */
  local: string;
}
/** A question under way, ended when another one is asked or the page is left. */
function useAsking(): {
  ask: (go: (signal: AbortSignal) => Promise<void>) => void;
  busy: boolean;
  error: string | null;
  stop: () => void;
} {
  const [state, put] = useState<{ busy: boolean; error: string | null }>({ busy: false, error: null });
  const going = useRef<AbortController | null>(null);
  useEffect(() => () => going.current?.abort(), []);
  return {
    ...state,
    stop: () => going.current?.abort(),
    ask: (go) => {
      going.current?.abort();
      const mine = new AbortController();
      going.current = mine;
      put({ busy: true, error: null });
      go(mine.signal).then(
        () => put({ busy: false, error: null }),
        (e: Error) => put({ busy: false, error: e instanceof Cancelled ? null : e.message }),
      );
    },
  };
}

/** for an order that is like none that is known */
const ROUGH = "";
const BODIES = SUBSTRATES.map((s) => ({ value: s.id, label: s.name }));
const WAYS = ROUTES.map((r) => ({ value: r.id, label: r.name }));
const lengthIn = (typed: string, units: UnitSystem): number => {
  const p = parseLength(typed, units === "inch" ? "in" : "mm");
  if (!p.ok) throw new RangeError(p.error);
  if (!(p.value >= 5 && p.value <= 3000)) throw new RangeError(`“${typed}” is no size of a piece.`);
  return p.value;
};

export function PromiseForm({ worlds, now, local, jobs }: Asking & { jobs: { value: string; label: string }[] }) {
  const [like, pick] = useState(jobs[0]?.value ?? ROUGH);
  const [body, pickBody] = useState<string>(worlds[0]?.job.substrate.id ?? BODIES[0].value);
  const [way, pickWay] = useState<string>(worlds[0]?.job.route ?? WAYS[0].value);
  const units = worlds[0]?.shop.units ?? "metric";
  const [said, hear] = useState<PromiseRows | null>(null);
  const [bad, refuse] = useState<string | null>(null);
  const q = useAsking();
  const ask = (
    <button className="btn" disabled={q.busy}>
      {q.busy ? "Trying…" : "When could it be ready?"}
    </button>
  );
  return (
    <form
      aria-label="Promise a date"
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        const form = new FormData(e.currentTarget);
        const typed = String(form.get("pieces")).trim();
        const pieces = Number(typed);
        if (!Number.isInteger(pieces) || pieces < 1 || pieces > 100000)
          return refuse(`“${typed}” is no number of pieces.`);
        let asked: Order;
        try {
          const size = (k: string): number => lengthIn(String(form.get(k)), units);
          asked =
            like === ROUGH
              ? { pieces, rough: { route: way as RouteId, substrate: body, w: size("wide"), h: size("high") } }
              : { pieces, like };
        } catch (x) {
          return refuse((x as Error).message);
        }
        refuse(null);
        hear(null);
        q.ask(async (signal) => hear(await askPromise({ worlds, now }, asked, local, signal)));
      }}
    >
      <div className="grid items-end gap-3 sm:grid-cols-[minmax(0,1fr)_--spacing(28)_auto]">
        <label className="flex flex-col gap-0.5 text-small text-muted">
          An order like
          <Pick
            label="An order like"
            value={like}
            options={[{ value: ROUGH, label: "None of these: told roughly" }, ...jobs]}
            onChange={pick}
          />
        </label>
        <label className="flex flex-col gap-0.5 text-small text-muted">
          Pieces
          <input name="pieces" className="field-in text-ink" inputMode="numeric" defaultValue="12" />
        </label>
        {like !== ROUGH && ask}
      </div>
      {like === ROUGH && (
        <div className="grid items-end gap-3 sm:grid-cols-2">
          <label className="flex flex-col gap-0.5 text-small text-muted">
            Material
            <Pick label="Material" value={body} options={BODIES} onChange={pickBody} />
          </label>
          <label className="flex flex-col gap-0.5 text-small text-muted">
            Way
            <Pick label="Way" value={way} options={WAYS} onChange={pickWay} />
          </label>
          {(["wide", "high"] as const).map((k) => (
            <label key={k} className="flex flex-col gap-0.5 text-small text-muted">
              {k === "wide" ? "Wide" : "High"}
              <input name={k} className="field-in text-ink" defaultValue={showLength(100, units)} />
            </label>
          ))}
          <p className="tag sm:col-span-2">One colour over a quarter of the face, on the first machine that does it.</p>
          {ask}
        </div>
      )}
      <div aria-live="polite" className="flex flex-col gap-1">
        {(bad ?? q.error) && (
          <p role="alert" className="text-wrong">
            {bad ?? q.error}
          </p>
        )}
        {said?.why && <p className="text-wrong">{said.why}</p>}
        {said?.ready && (
          <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-1" data-promise={said.ready}>
            <dt className="text-muted">Earliest, all others where they stand</dt>
            <dd className="font-semibold">{said.ready}</dd>
            <dt className="text-muted">Kept in four runs of five</dt>
            <dd className="font-semibold">{said.surely ?? "not known"}</dd>
            <dt className="text-muted">With longer evenings</dt>
            <dd>{said.evenings ?? "no plan was found"}</dd>
            <dt className="text-muted">If it goes before the others</dt>
            <dd>
              {said.soonest ?? "no plan was found"}
              {said.pushes.length
                ? `; it pushes ${said.pushes.map((p) => `${p.title} by ${p.later}`).join(", ")}`
                : "; it pushes nobody"}
            </dd>
          </dl>
        )}
        {said?.ready && (
          <p className="tag">
            Four of five: 200 runs with work (±{Math.round(said.scatter.work * 100)} %) and waits a little longer or
            shorter each,{" "}
            {said.scatter.n > 0
              ? `as ${said.scatter.n} logged steps of these jobs and most shops have it.`
              : "as they scatter in most shops: nothing is logged here yet."}
          </p>
        )}
      </div>
    </form>
  );
}

/** minutes gained that are not worth a word */
const MINOR = 15;
const gained = (min: number | null): string =>
  min === null
    ? "not known"
    : min >= MINOR
      ? showMinutes(Math.round(min))
      : min <= -MINOR
        ? `${showMinutes(Math.round(-min))} later`
        : "nothing";

export function WhatIfs({ worlds, now }: Omit<Asking, "local">) {
  const [rows, hear] = useState<WhatIf[]>([]);
  const q = useAsking();
  const hours = (min: number): number => Math.round(min / 6) / 10;
  return (
    <div className="flex flex-col gap-3">
      <div className="flex gap-3">
        <button
          type="button"
          className="btn"
          disabled={q.busy}
          onClick={() => {
            hear([]);
            q.ask(async (signal) => {
              await askWhatIf({ worlds, now }, (row) => hear((had) => [...had, row]), signal);
            });
          }}
        >
          {q.busy ? "Laying…" : "What would help?"}
        </button>
        {q.busy && (
          <button type="button" className="btn" onClick={q.stop}>
            Stop
          </button>
        )}
      </div>
      {q.error && (
        <p role="alert" className="text-wrong">
          {q.error}
        </p>
      )}
      {rows.length > 0 && (
        <>
          <table className="w-full text-left">
            <thead className="text-small text-muted">
              <tr>
                <th className="py-1 font-normal">If</th>
                <th className="font-normal">all is done sooner by</th>
                <th className="font-normal">a job on the whole by</th>
                <th className="font-normal">late</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.id} data-if={r.id} className="border-t border-line">
                  <td className="py-1.5 pr-3">{r.name}</td>
                  <td className="pr-3">{r.why ?? (r.id === "now" ? "–" : gained(r.sooner))}</td>
                  <td className="pr-3">{r.id === "now" || r.why ? "–" : gained(r.each)}</td>
                  <td>{r.late ? `${r.late}: ${showMinutes(r.lateMin)}` : "none"}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length > 2 && <p className="tag">Hours that a job is ready sooner, on the whole.</p>}
          {rows.length > 2 && (
            <div className="h-48" aria-hidden="true">
              <ResponsiveContainer>
                <BarChart
                  data={rows
                    .filter((r) => r.id !== "now")
                    .map((r) => ({ name: r.name, h: hours(Math.max(0, r.each ?? 0)) }))}
                  layout="vertical"
                  accessibilityLayer={false}
                >
                  <XAxis type="number" unit=" h" tick={{ fill: "var(--color-muted)", fontSize: 12 }} />
                  <YAxis
                    type="category"
                    dataKey="name"
                    width={170}
                    interval={0}
                    tick={{ fill: "var(--color-muted)", fontSize: 12 }}
                  />
                  <Bar dataKey="h" fill="var(--color-act)" isAnimationActive={false} />
                </BarChart>
              </ResponsiveContainer>
            </div>
          )}
        </>
      )}
    </div>
  );
}

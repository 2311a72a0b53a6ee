import { learnedAct } from "../acts/shop";
import { formOf } from "../acts/answer";
import type { Route } from "./+types/exercise";
import { useState } from "react";
import { data, Link, useFetcher, useNavigate } from "react-router";
import { exercise } from "../core/practice";
import { start, type Answer, type Control, type Verdict } from "../core/practice/exercise";
import { Job } from "../core/records/job";
import type { Outcome } from "../core/records/outcome";
import type { World } from "../core/records/world";
import { readShop } from "../store/queries";
import { SprayPad } from "../ui/spray-pad";
import { DrawingView } from "../ui/drawing";

export async function clientLoader({ params, request }: Route.ClientLoaderArgs) {
  const e = exercise(params.id);
  if (!e) throw data(`There is no exercise “${params.id}”.`, { status: 404 });
  const q = new URL(request.url).searchParams;
  const level = Math.min(e.levels, Math.max(1, Number(q.get("level") ?? 1) || 1));
  const seed = Math.max(1, Math.floor(Number(q.get("seed") ?? 1) || 1));
  const base = e.own ? await readShop() : null;
  const mine: World | null = base && { ...base, job: new Job(), log: [] };
  const goes = mine !== null && e.own!.has(mine);
  const own = goes && q.get("where") === "own" ? mine : null;
  const lacks = mine && !goes ? e.own!.of : null;
  return { id: e.id, level, seed, own, where: own ? "own" : "", goes, lacks };
}
export const clientAction = async ({ request }: Route.ClientActionArgs) => learnedAct(await formOf(request));

function ControlField({
  c,
  value,
  set,
  all,
}: {
  c: Control;
  value: number | string;
  set: (v: number | string) => void;
  all: Answer;
}) {
  if (c.kind === "path") return <SprayPad c={c} distance={Number(all[c.distance])} value={String(value)} set={set} />;
  if (c.kind === "choice")
    return (
      <fieldset>
        <legend className="text-small text-muted">{c.label}</legend>
        <div className="flex flex-col">
          {c.options.map((o) => (
            <label key={o.value} className="flex min-h-line items-center gap-2 max-lg:min-h-touch">
              <input
                type="radio"
                name={c.id}
                value={o.value}
                checked={value === o.value}
                onChange={() => set(o.value)}
                className="h-5 w-5 accent-[var(--act)]"
              />
              {o.label}
            </label>
          ))}
        </div>
      </fieldset>
    );
  return (
    <label className="flex flex-col gap-1 text-small text-muted">
      <span className="flex justify-between gap-3">
        {c.label}
        <strong className="num text-ink">
          {Math.round(Number(value) * 100) / 100} {c.unit}
        </strong>
      </span>
      <input
        type="range"
        min={c.min}
        max={c.max}
        step={c.step}
        value={Number(value)}
        aria-label={c.unit ? `${c.label}, ${c.unit}` : c.label}
        onChange={(e) => set(Number(e.target.value))}
        className="h-touch w-full accent-[var(--act)]"
      />
    </label>
  );
}

/** What was chosen, in words. */
function chosen(c: Control, a: Answer): string {
  const v = a[c.id];
  if (c.kind === "path") return `${c.label.toLowerCase()} ${v === "" ? "at rest" : "as it went"}`;
  const says =
    c.kind === "choice"
      ? (c.options.find((o) => o.value === v)?.label ?? "")
      : `${Math.round(Number(v) * 100) / 100} ${c.unit}`;
  return `${c.label.toLowerCase()} ${says}`;
}

export default function ExercisePage({ loaderData: d }: Route.ComponentProps) {
  return <Doing key={`${d.id} ${d.level} ${d.seed} ${d.where}`} d={d} />;
}
function Doing({ d }: { d: Route.ComponentProps["loaderData"] }) {
  const e = exercise(d.id)!;
  const go = useNavigate();
  const fetcher = useFetcher<Outcome>();
  const task = e.task(d.seed, d.level, d.own);
  const [answer, setAnswer] = useState<Answer>(() => start(task));
  const [tries, setTries] = useState<{ answer: Answer; verdict: Verdict }[]>([]);
  const last = tries[tries.length - 1] ?? null;
  const fresh = last !== null && JSON.stringify(last.answer) === JSON.stringify(answer);
  const judge = (a: Answer): void => {
    const verdict = e.judge(d.seed, d.level, a, d.own);
    setTries((t) => [...t, { answer: a, verdict }]);
    // a shop of one’s own has no figures of its own to be counted by
    if (!d.own)
      void fetcher.submit(
        { intent: "tried", exercise: e.id, level: String(d.level), seed: String(d.seed), answer: JSON.stringify(a) },
        { method: "post" },
      );
  };
  const picture = last && fresh ? (last.verdict.picture ?? task.picture) : task.picture;
  const to = (more: { level?: number; seed?: number; where?: string }): string => {
    const { level = d.level, seed = d.seed, where = d.where } = more;
    return `/practice/${e.id}?level=${level}&seed=${seed}${where ? `&where=${where}` : ""}`;
  };
  return (
    <main id="main" data-view="exercise" className="mx-auto w-full max-w-page px-5 py-5">
      <title>{`${e.name} · Practice · Rich Layer`}</title>
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h1>{e.name}</h1>
        <p className="flex flex-wrap gap-x-4">
          {Array.from({ length: e.levels }, (_v, i) => i + 1).map((level) => (
            <Link
              key={level}
              className={level === d.level ? "alone font-bold" : "text alone"}
              aria-current={level === d.level ? "page" : undefined}
              to={to({ level, seed: 1 })}
            >
              Level {level}
            </Link>
          ))}
          {d.goes && (
            <Link className="text alone" to={to({ where: d.where ? "" : "own" })}>
              {d.where ? "Made up again" : "In my own shop"}
            </Link>
          )}
          {d.lacks && (
            <span className="alone inline-flex items-center text-muted">In your own shop once it has {d.lacks}</span>
          )}
          <Link className="text alone" to="/practice">
            All exercises
          </Link>
        </p>
      </div>
      <div className="mt-3 grid gap-8 lg:grid-cols-2">
        <section aria-label="The task" className="flex min-w-0 flex-col gap-4">
          <p className="text-lead">{task.says}</p>
          {task.facts.length > 0 && (
            <ul className="list-disc pl-5">
              {task.facts.map((f) => (
                <li key={f}>{f}</li>
              ))}
            </ul>
          )}
          {task.controls.map((c) => (
            <ControlField
              key={c.id}
              c={c}
              all={answer}
              value={answer[c.id]}
              set={(v) => setAnswer((a) => ({ ...a, [c.id]: v }))}
            />
          ))}
          <div className="flex flex-wrap gap-3">
            <button type="button" className="btn btn-main" onClick={() => judge(answer)}>
              Do it
            </button>
            <button type="button" className="btn" onClick={() => void go(to({ seed: d.seed + 1 }))}>
              Another one
            </button>
          </div>
        </section>
        <section
          aria-label="What comes of it"
          // what is asked about is seen before it is answered
          className={`min-w-0 ${task.picture && !fresh ? "max-lg:order-first" : ""}`}
        >
          {picture && <DrawingView of={picture} />}
          <div
            aria-live="polite"
            data-verdict={last && fresh ? String(last.verdict.good) : ""}
            aria-busy={fetcher.state !== "idle" || undefined}
          >
            {last && fresh && (
              <>
                <p className={`mt-3 text-lead ${last.verdict.good ? "text-ready" : "text-wrong"}`}>
                  {last.verdict.good ? "Good. " : ""}
                  {last.verdict.says}
                </p>
                {last.verdict.wrongAt && !last.verdict.says.includes(last.verdict.wrongAt) && (
                  <p className="text-muted">Where: {last.verdict.wrongAt}.</p>
                )}
                <dl className="mt-2 grid grid-cols-[--spacing(52)_minmax(0,1fr)] gap-x-3">
                  {last.verdict.figures.map(([name, value]) => (
                    <div key={name} className="contents">
                      <dt className="text-muted">{name}</dt>
                      <dd>{value}</dd>
                    </div>
                  ))}
                </dl>
                {!last.verdict.good && (
                  <button type="button" className="btn mt-3" onClick={() => setAnswer(last.verdict.next)}>
                    Set it a step better
                  </button>
                )}
                <p className="mt-3">
                  <Link className="text" to={`/guide/${e.guide}`}>
                    What the field guide says
                  </Link>
                </p>
              </>
            )}
          </div>
          {tries.length > 1 && (
            <ol aria-label="Tries" className="mt-4 list-decimal pl-5 text-small text-muted">
              {tries.map((t, i) => (
                <li key={i}>
                  {t.verdict.good ? "good" : (t.verdict.wrongAt ?? "")}:{" "}
                  {task.controls.map((c) => chosen(c, t.answer)).join(", ")}
                </li>
              ))}
            </ol>
          )}
        </section>
      </div>
    </main>
  );
}

import type { Route } from "./+types/guide-page";
import { useState } from "react";
import { Link } from "react-router";
import { flawKind, type FlawId } from "../core/catalogue/flaws";
import { EXERCISES } from "../core/practice";
import { flawDrawing } from "../core/practice/flaw-drawing";
import { DrawingView } from "../ui/drawing";
import { BEAMS } from "../core/records/ids";
import { FINISHING } from "../core/catalogue/finishing";
import { FINISHES, inWords } from "../core/catalogue/finishes";
import { ROUTES, taken, takes, paintless } from "../core/catalogue/routes";
import { SCHOOLS } from "../core/catalogue/schools";
import { SUBSTRATES } from "../core/catalogue/substrates";
import { absorption, BEAM_KINDS, beamOn } from "../core/catalogue/beams";
import { cells } from "../core/catalogue/support";
import { isKind, kindOf, type KindId } from "../core/process/kinds";
import { makePlan, type Plan } from "../core/plan/plan";
import { burntOf } from "../core/process/polarity";
import { said } from "../core/units/said";
import { showMinutes, showShare, showTemp, showUm, type UnitSystem } from "../core/units/show";
import { nowMinutes } from "../clock";
import { readHeads, readShop, readWorld } from "../store/queries";
import { guideWorld } from "../demo/guide";
import { Empty } from "../ui/kit/bits";
import { PlanSample } from "../ui/plan-sample";
import { GUIDE, type GuidePage as Page } from "../views/guide";
import { canTry, tryOn } from "../views/try";
import { TryIt } from "../ui/try-it";
import { levels } from "../views/layers";
import { CHAR, CLEAR_TAPE, LIGHT_WOOD, PAPER_TAPE } from "../ui/inks";

/** A guide page is worked out, not stored: its plan is made when it is opened. */
export async function clientLoader({ params, request }: Route.ClientLoaderArgs) {
  const units = (await readShop())?.shop.units ?? "metric";
  const page = GUIDE.find((p) => p.id === params.topic) ?? null;
  const plan =
    page?.kind === "route"
      ? makePlan(guideWorld(page.id.slice(6)))
      : page?.kind === "step"
        ? planWith(page.id.slice(5))
        : null;
  const tried = page && canTry(page) ? await tries(page, new URL(request.url).searchParams.get("job")) : null;
  return { page, plan, range: plan ? levels(plan) : null, units, tried };
}

/** Open jobs that it can be tried on, and what it would make of the one that is chosen. */
async function tries(page: Page, job: string | null) {
  const jobs = (await readHeads())
    .filter((h) => h.open === 1)
    .map((h) => ({ value: h.id, label: h.title }))
    .sort((a, b) => a.label.localeCompare(b.label));
  const world = job !== null && jobs.some((j) => j.value === job) ? await readWorld(job) : null;
  return { jobs, job: world ? job : null, rows: world ? tryOn(world, Math.floor(nowMinutes()), page) : [] };
}

/** The first route whose plan holds a kind of step. */
function planWith(kind: string): Plan | null {
  for (const r of ROUTES) {
    const p = makePlan(guideWorld(r.id), null, true);
    if (p.placed.some((x) => x.step.kind === kind)) return p;
  }
  return null;
}

export default function GuidePage({ loaderData: { page, plan, range, units, tried } }: Route.ComponentProps) {
  if (!page)
    return (
      <main id="main" data-view="guide-page" className="px-5">
        <title>Field guide · Rich Layer</title>
        <h1 className="mt-5">Field guide</h1>
        <Empty title="There is no such page in it">
          <Link className="btn" to="/guide">
            All pages
          </Link>
        </Empty>
      </main>
    );
  const id = page.id.slice(page.id.indexOf("-") + 1);
  return (
    <main id="main" data-view="guide-page" data-topic={page.id} className="mx-auto w-full max-w-page px-5 py-5">
      <title>{`${page.name} · Field guide · Rich Layer`}</title>
      <p>
        <Link className="text alone" to="/guide">
          Field guide
        </Link>
      </p>
      <h1>{page.name}</h1>
      {page.kind === "route" && plan && range && <RoutePage id={id} plan={plan} range={range} />}
      {page.kind === "school" && <SchoolPage id={id} />}
      {page.kind === "idea" && <IdeaPage id={id} />}
      {page.kind === "finish" && <FinishPage id={id} units={units} />}
      {page.kind === "flaw" && <FlawPage id={id as FlawId} />}
      {page.kind === "step" && isKind(id) && <StepPage id={id} plan={plan} range={range} />}
      <Exercises page={page} id={id} />
      {tried && tried.jobs.length > 0 && <TryIt {...tried} />}
    </main>
  );
}

function RoutePage({ id, plan, range }: { id: string; plan: Plan; range: { top: number; bottom: number } }) {
  const r = ROUTES.find((x) => x.id === id)!;
  const on = [
    ...new Set(
      cells()
        .filter((c) => c.route.id === id)
        .map((c) => c.substrate.name.toLowerCase()),
    ),
  ];
  return (
    <>
      <p className="mt-2 max-w-3xl text-lead">
        {r.gives} {r.goes}
      </p>
      <dl className="my-3 grid max-w-3xl grid-cols-[--spacing(35)_1fr] gap-x-3 gap-y-1">
        <dt className="text-muted">Goes on</dt>
        <dd>{on.join(", ")}</dd>
        <dt className="text-muted">By</dt>
        <dd>{r.beams.map((b) => BEAM_KINDS[b].name).join("; ")}</dd>
        <dt className="text-muted">Colours</dt>
        <dd>{r.maxColours === 1 ? "one" : `up to ${r.maxColours}`}</dd>
        <dt className="text-muted">Filled with</dt>
        <dd>
          {taken(r)
            .map((f) => inWords(f.name))
            .join(", ") || "nothing: no paint is laid"}
        </dd>
        <dt className="text-muted">Way round</dt>
        <dd>
          a drawing {burntOf("drawing", r).says}; a picture {burntOf("picture", r).says}
          {paintless(r) ? ", and inverted on a body that the mark is lighter than" : ""};{" "}
          {r.mirrored ? "mirrored, worked from the back" : "not mirrored"}
        </dd>
        <dt className="text-muted">Lost, usually</dt>
        <dd>{showShare(r.loss)} of the pieces, until your own log says otherwise</dd>
        <dt className="text-muted">May end with</dt>
        <dd>
          {FINISHING.filter((m) => !m.families || m.families.some((f) => r.families.includes(f)))
            .map((m) => m.name.toLowerCase())
            .join(", ")}
        </dd>
      </dl>
      <PlanSample plan={plan} range={range} />
    </>
  );
}

const MARKS = { marks: "marks", passes: "passes through", refuses: "does nothing", poor: "poor", unknown: "not known" };

function IdeaPage({ id }: { id: string }) {
  const [rule, setRule] = useState<"evenodd" | "nonzero">("evenodd");
  const [swapped, setSwapped] = useState(false);
  if (id === "beams")
    return (
      <div className="mt-3 overflow-x-auto">
        <p className="max-w-3xl text-muted">
          The bare surface; a film of paint on it takes up the beam by its own colour. Vinyl and anything else with
          chlorine: never, under no beam.
        </p>
        <table className="mt-2">
          <thead>
            <tr>
              <th>Material</th>
              {BEAMS.map((b) => (
                <th key={b}>{BEAM_KINDS[b].name}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {SUBSTRATES.map((s) => (
              <tr key={s.id}>
                <td>{s.name}</td>
                {BEAMS.map((b) => (
                  <td
                    key={b}
                    className={beamOn(b, s) === "marks" ? "text-ready" : beamOn(b, s) === "unknown" ? "text-muted" : ""}
                  >
                    {MARKS[beamOn(b, s)]}
                  </td>
                ))}
              </tr>
            ))}
            {FINISHES.filter((f) => f.mask).map((f) => (
              <tr key={f.id}>
                <td>{f.name}</td>
                {BEAMS.map((b) => (
                  <td key={b}>
                    {absorption(b, f.mask!.clear ? CLEAR_TAPE : PAPER_TAPE, {
                      clear: f.mask!.clear,
                      metallic: false,
                    }) >= 0.2
                      ? "cuts it"
                      : "passes through"}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    );
  if (id === "figure-ground")
    return (
      <div className="mt-3 max-w-3xl">
        <p>
          What is inside a shape is burnt, what is outside is left. Where outlines cross or lie in one another, the fill
          rule says which is which; swapping figure and ground is inverting the picture, and is done in one place only.
        </p>
        <div className="my-3 flex flex-wrap gap-3">
          <button
            type="button"
            className="btn"
            aria-pressed={rule === "evenodd"}
            onClick={() => setRule(rule === "evenodd" ? "nonzero" : "evenodd")}
          >
            {rule === "evenodd" ? "Every second outline is a hole" : "Outlines of one sense are all filled"}
          </button>
          <button type="button" className="btn" aria-pressed={swapped} onClick={() => setSwapped(!swapped)}>
            {swapped ? "Ground is burnt" : "Figure is burnt"}
          </button>
        </div>
        <svg
          viewBox="0 0 200 100"
          role="img"
          aria-label={`Two rings and a leaf, ${rule === "evenodd" ? "holes open" : "holes filled"}, ${swapped ? "ground" : "figure"} burnt`}
          className="w-full max-w-139 border border-strong"
        >
          <rect width="200" height="100" fill={swapped ? CHAR : LIGHT_WOOD} />
          <path
            fillRule={rule}
            fill={swapped ? LIGHT_WOOD : CHAR}
            d="M50 10A40 40 0 1 1 49.9 10ZM50 30A20 20 0 1 1 49.9 30ZM90 50Q130 5 190 50Q130 95 90 50ZM120 50Q140 35 165 50Q140 65 120 50Z"
          />
        </svg>
      </div>
    );
  return (
    <div className="mt-3 max-w-3xl">
      <ul>
        {[
          [
            "The bed’s corner",
            "The same place every time; for a jig or stop screwed to the bed. A piece that is not where the file " +
              "thinks it is gets burnt beside.",
          ],
          ["A corner of your own", "Set once for a run, at the stop; lost when the machine is switched off."],
          [
            "Where the head stands",
            "Quick for one piece; look first that nothing runs off the bed or into a clamp: frame with the beam off.",
          ],
          ["The piece’s middle", "For round and odd shapes; needs a centre mark on piece and mask."],
        ].map(([k, v]) => (
          <li key={k} className="border-t border-line py-2">
            <strong>{k}</strong>
            <br />
            {v}
          </li>
        ))}
      </ul>
      <p className="mt-3">
        For more than one visit take the nest or the stop: how closely a piece comes back decides what may touch. It is
        chosen on the job’s Artwork page.
      </p>
    </div>
  );
}

const SEVERITIES = ["faint", "plain", "bad"];
/** A flaw drawn in three severities, what makes it, what can be done for the piece and for the next one. */
function FlawPage({ id }: { id: FlawId }) {
  const f = flawKind(id);
  return (
    <div className="mt-3 max-w-3xl">
      <p className="text-lead">{f.looks}</p>
      <ul className="my-3 grid grid-cols-3 gap-3" data-flaw-drawings={id}>
        {SEVERITIES.map((name, i) => (
          <li key={name} className="min-w-0">
            <DrawingView of={flawDrawing(id, i + 1, i + 1)} className="w-full" />
            <span className="tag">{name}</span>
          </li>
        ))}
      </ul>
      <h2 className="mt-3">What makes it</h2>
      <ul className="list-disc pl-5">
        {f.causes.map((c) => (
          <li key={c.id}>{c.says}</li>
        ))}
      </ul>
      <h2 className="mt-3">For this piece, the gentlest first</h2>
      <ol className="list-decimal pl-5">
        {f.rescue.map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ol>
      <h2 className="mt-3">Next time</h2>
      <p>
        {f.next.say}.{" "}
        {isKind(f.next.kind) && (
          <Link className="text" to={`/guide/step-${f.next.kind}`}>
            {kindOf(f.next.kind).name}
          </Link>
        )}
      </p>
    </div>
  );
}

/** Exercises that a page is about, each with what it looks like. */
function Exercises({ page, id }: { page: Page; id: string }) {
  const mine = EXERCISES.filter(
    (e) =>
      e.guide === page.id ||
      (page.kind === "step" && e.kinds.includes(id)) ||
      (page.kind === "flaw" && e.guide === "step-final-check"),
  );
  if (!mine.length) return null;
  return (
    <section aria-labelledby="ex" className="mt-5 border-t-2 border-strong pt-3">
      <h2 id="ex">To be tried without losing a piece</h2>
      <ul className="mt-2 grid gap-6 sm:grid-cols-2 lg:grid-cols-3">
        {mine.map((e) => {
          const { picture } = e.task(1, 1, null);
          return (
            <li key={e.id} data-exercise-beside={e.id} className="min-w-0">
              <h3>
                <Link className="text alone" to={`/practice/${e.id}`}>
                  {e.name}
                </Link>
              </h3>
              <p className="text-muted">{e.about}</p>
              {picture && <DrawingView of={picture} className="mt-2 max-h-40 w-full" />}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function SchoolPage({ id }: { id: string }) {
  const s = SCHOOLS.find((x) => x.id === id)!;
  return (
    <div className="mt-3 max-w-3xl">
      <ul>
        {s.picks.map((p) => (
          <li key={p.id} className="border-t border-line py-2">
            <strong>{p.name}</strong>
            {p.id === s.standard && <span className="ml-2 text-ready">taken when nobody says</span>}
            <br />
            {p.more}
          </li>
        ))}
      </ul>
      <p className="mt-3">{s.why}</p>
      <p className="mt-3">
        Picked for the whole shop in the{" "}
        <Link className="text" to="/workshop/schools">
          Workshop
        </Link>
        , for one job on its Route page; plans change at once.
      </p>
    </div>
  );
}

function FinishPage({ id, units }: { id: string; units: UnitSystem }) {
  const f = FINISHES.find((x) => x.id === id)!;
  const rows: [string, string][] = [
    ["Laid by", f.by],
    ["A coat, dry", showUm(f.coatUm)],
    ["Volume solids", showShare(f.solids)],
    ["Dries from", showTemp(f.minC, units)],
    ...(
      [
        ["Flashes off", f.times.flash],
        ["Touch dry", f.times.touch],
        ["Next coat from", f.times.recoat],
        ["Window shuts", f.times.closes],
        ["Window reopens", f.times.reopens],
        ["Bears tape", f.times.maskable],
        ["Sandable", f.times.sandable],
        ["Laser-safe", f.times.laserSafe],
        ["Cured", f.times.cured],
      ] as [string, number | null][]
    )
      .filter(([, v]) => v !== null)
      .map(([k, v]): [string, string] => [k, showMinutes(v)]),
    ...(f.lift
      ? [
          [
            "A mask beside it lifts",
            `${f.lift.from} to ${f.lift.to} min` +
              (f.lift.again === null ? "" : `, or from ${showMinutes(f.lift.again)} to ${showMinutes(f.lift.last)}`),
          ] as [string, string],
        ]
      : []),
    ...(f.powder
      ? ([
          ["Flows at", showTemp(f.powder.flowC, units)],
          ["Cures", `${showTemp(f.powder.holdC, units)} for ${f.powder.holdMin} min`],
          ["Packed in", showShare(f.powder.packing)],
        ] as [string, string][])
      : []),
    ...(f.mask
      ? ([
          ["Risky from", showTemp(f.mask.riskC, units)],
          ["Fails past", showTemp(f.mask.limitC, units)],
        ] as [string, string][])
      : []),
  ];
  const routes = ROUTES.filter((r) => takes(r, f));
  return (
    <div className="mt-3 max-w-3xl">
      <p className="text-muted">
        {said("Defaults at 20 °C, 50 % humidity, one ordinary coat.", units)} Its data sheet, typed in on the Shelf,
        wins over them; what you measure wins over both.
      </p>
      <dl className="mt-2">
        {rows.map(([k, v]) => (
          <div key={k} className="flex justify-between border-b border-line py-1">
            <dt className="text-muted">{k}</dt>
            <dd>{v}</dd>
          </div>
        ))}
      </dl>
      {routes.length > 0 && (
        <p className="mt-3">
          Fills:{" "}
          {routes.map((r, i) => (
            <span key={r.id}>
              {i > 0 && ", "}
              <Link className="text" to={`/guide/route-${r.id}`}>
                {r.id} {r.name.toLowerCase()}
              </Link>
            </span>
          ))}
          .
        </p>
      )}
    </div>
  );
}

function StepPage({
  id,
  plan,
  range,
}: {
  id: KindId;
  plan: Plan | null;
  range: { top: number; bottom: number } | null;
}) {
  const k = kindOf(id);
  const p = plan?.placed.find((x) => x.step.kind === id);
  if (!plan || !range || !p)
    return (
      <p className="mt-3 max-w-3xl">
        No route puts this step in by itself; it is there to be added by hand.{" "}
        {SUBSTRATES.length > 0 && k.irreversible ? "It can’t be undone on the piece." : ""}
      </p>
    );
  const c = plan.context;
  const look = kindOf(id).lookFor(p.step, c);
  return (
    <>
      <dl className="my-3 grid max-w-3xl grid-cols-[--spacing(30)_1fr] gap-x-3 gap-y-1">
        <dt className="text-muted">For</dt>
        <dd>{k.purpose(p.step, c)}</dd>
        <dt className="text-muted">With</dt>
        <dd>{k.tool(p.step, c)}</dd>
        <dt className="text-muted">Work</dt>
        <dd>
          <ul className="list-disc pl-5">
            {k.cues(p.step, c).map((x) => (
              <li key={x}>{x}</li>
            ))}
          </ul>
        </dd>
        <dt className="text-muted">Look for</dt>
        <dd>
          {look.look}: {look.how}
        </dd>
        {k.irreversible && (
          <>
            <dt className="text-muted">Mind</dt>
            <dd>It can’t be undone on the piece.</dd>
          </>
        )}
      </dl>
      <p className="mb-2">
        Here in{" "}
        <Link className="text" to={`/guide/route-${c.route!.id}`}>
          {c.route!.id} {c.route!.name.toLowerCase()}
        </Link>
        :
      </p>
      <PlanSample plan={plan} range={range} />
    </>
  );
}

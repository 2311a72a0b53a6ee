import clsx from "clsx";
import { kindOf, own } from "../core/process/kinds";
import type { Route } from "./+types/job-layers";
import { useRef, useState } from "react";
import { Link, useFetcher, useSearchParams } from "react-router";
import { useHotkeys } from "react-hotkeys-hook";
import { nowMinutes } from "../clock";
import { picturedIn, surfaceUm } from "../core/piece/state";
import { simulate } from "../core/explain/report";
import { showInterval, showAmount, showMl, showShare, showSpeed, showUm } from "../core/units/show";
import { CoreSample, Lens, lensScale, lookOf, magnified } from "../ui/core-sample/core-sample";
import { Face } from "../ui/face";
import { Empty, Swatch } from "../ui/kit/bits";
import { ActButton } from "../ui/kit/field";
import type { Outcome } from "../core/records/outcome";
import { Why } from "../ui/kit/why";
import { Snags } from "../ui/snags";
import { StepCard } from "../ui/step-card";
import { StepList } from "../ui/step-list/step-list";
import { TimeRail } from "../ui/time-rail";
import { formOf } from "../acts/answer";
import { jobAct } from "../acts/job";
import { readJob } from "./job-data";
import { onlySearch } from "./only-search";
import { elsewhereView } from "../views/elsewhere";
import { opened, openedLayer } from "../views/opened";
import { Elsewhere } from "../ui/elsewhere";
import { filmNow, levels, railBlocks, snagRows, stepCard, stepRows } from "../views/layers";
import { turns } from "../core/plan/plan";
import { bareBody, capital } from "../core/process/words";
import { isFirst } from "../core/plan/proof";
import { Fold } from "../ui/kit/fold";
import { showLocal } from "../core/time/typed";
import { useFace } from "../ui/kit/ways";
import { AskForm, AskText } from "../ui/kit/ask";
import { PlateForm } from "../core/records/forms";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { world, plan, now } = await readJob(params.id);
  return {
    world,
    plan,
    now,
    rows: stepRows(plan, now),
    rail: railBlocks(plan, now),
    snags: snagRows(plan, world, now),
    range: levels(plan),
    elsewhere: elsewhereView(plan, now),
  };
}
export const clientAction = async ({ request, params }: Route.ClientActionArgs) =>
  jobAct(params.id, await formOf(request));
export const shouldRevalidate = onlySearch;

/** px across the lens */
const LENS = 250;

export default function Layers({ loaderData: d }: Route.ComponentProps) {
  const { plan, world } = d;
  const { job } = world;
  const [search, setSearch] = useSearchParams();
  const [lit, setLit] = useState<string | null>(null);
  const [sheet, setSheet] = useState(false);
  const [turned, setTurned] = useState(false);
  const fetcher = useFetcher<Outcome>();
  const touch = useRef<number | null>(null);
  const first = d.rows.find((r) => r.now)?.id ?? d.rows[d.rows.length - 1]?.id ?? null;
  const wanted = search.get("step");
  const line = turns(plan);
  const nth = Math.max(
    0,
    line.findIndex((x) => x.p.step.id === (wanted ?? first)),
  );
  /** the plan in which the step stands: that of the piece that goes first, or the batch’s */
  const here = line[nth]?.plan ?? plan;
  const p = line[nth]?.p;
  const at = search.get("at") ? Number(search.get("at")) : null;
  const choose = (id: string, when: number | null = null): void =>
    setSearch(
      (s) => {
        s.set("step", id);
        if (when === null) s.delete("at");
        else s.set("at", String(when));
        return s;
      },
      { replace: true, preventScrollReset: true },
    );
  const by = (k: number): void => {
    const next = line[Math.min(line.length - 1, Math.max(0, nth + k))];
    if (next) choose(next.p.step.id);
  };
  useHotkeys("[", () => by(-1), { useKey: true }, [nth, plan]);
  useHotkeys("]", () => by(1), { useKey: true }, [nth, plan]);
  if (!p) {
    return (
      <main id="main" data-view="layers" className="px-5">
        <title>{`${job.title}: layers · Rich Layer`}</title>
        <Empty title="No steps yet">
          {plan.missing.map((m) => (
            <p key={m.what}>{m.say}</p>
          ))}
          <Link
            to={plan.missing[0]?.what === "route" && job.zones.length ? "../route" : "../artwork"}
            relative="path"
            className="btn btn-main"
          >
            {plan.missing[0]?.what === "route" && job.zones.length ? "Choose a route" : "Go to the artwork"}
          </Link>
        </Empty>
      </main>
    );
  }
  const { index } = p;
  const moment = at ?? p.end;
  const zones = simulate(here, p, moment);
  const after = isFirst(p.step.id) ? `after “${p.step.title}” of the piece that goes first` : `after step ${index + 1}`;
  const names = Object.fromEntries([
    ...job.zones.map((z) => [z.id, { name: z.name, areaMm2: z.areaMm2 }]),
    ["ground", { name: "rest of the face", areaMm2: 1 }],
  ]);
  const paints = Object.fromEntries(
    plan.context.shelf.map((x) => [x.id, { name: x.name, colour: x.colour, clear: plan.context.paintOf(x.id).clear }]),
  );
  const chosen =
    zones.find((z) => z.zone === search.get("zone"))?.zone ??
    zones.find((z) => z.zone !== "ground" && p.step.zones.includes(z.zone))?.zone ??
    zones[0].zone;
  const chosenZone = zones.find((z) => z.zone === chosen)!;
  const ground = {
    colour: plan.context.substrate.colour,
    name: plan.context.substrate.name,
    wood: plan.context.substrate.family === "wood",
  };
  const sand = here.placed.find((x) => kindOf(x.step.kind).sands === "face");
  const colours = Object.fromEntries(zones.map((z) => [z.zone, z.front]));
  const card = stepCard(here, index);
  // The ghost: where the real piece stands by the log, against the step of the plan that is looked at.
  const logged = here.placed.filter((x) => x.actual?.end != null).pop() ?? null;
  const ghost =
    logged && logged.index !== index ? Object.fromEntries(logged.after.zones.map((z) => [z.zone, surfaceUm(z)])) : null;
  return (
    <main
      id="main"
      data-view="layers"
      className="flex min-h-0 flex-1 flex-col lg:h-[calc(100dvh---spacing(34))] lg:flex-none"
    >
      <title>{`${job.title}: layers · Rich Layer`}</title>
      <div className="grid min-h-0 flex-1 lg:grid-cols-[--spacing(73)_minmax(0,1fr)_--spacing(82)]">
        <div
          tabIndex={0}
          role="region"
          aria-label="Step list"
          data-scroller
          className="min-h-0 overflow-y-auto border-r border-line max-lg:order-3 max-lg:border-0 max-lg:px-2"
        >
          {d.elsewhere && <Elsewhere of={d.elsewhere} />}
          <StepList
            rows={d.rows}
            chosen={p.step.id}
            lit={lit}
            onChoose={(id) => choose(id)}
            onLight={setLit}
            onMove={(step, after) =>
              void fetcher.submit({ intent: "step-move", step, after: after ?? "" }, { method: "post" })
            }
          />
          {plan.toBuy.length > 0 && (
            <div className="p-3">
              <p className="text-waiting">To buy first: {plan.toBuy.map((p) => p.name).join(", ")}.</p>
              <Link to="../route" relative="path" className="text alone">
                What you have goes on the Shelf there
              </Link>
            </div>
          )}
          {plan.missing.length > 0 && (
            <div className="p-3">
              {plan.missing.map((m) => (
                <p key={m.what} className="text-waiting">
                  {m.say}
                </p>
              ))}
              <Link to="../route" relative="path" className="text alone">
                Mend it on the route page
              </Link>
            </div>
          )}
          {plan.late.length > 0 && (
            <section aria-label="Too late" className="border-t border-line p-3 text-small">
              <h3>Too late for this job</h3>
              <p className="text-muted">
                By today’s brief these would stand before what is done: {plan.late.map((s) => s.title).join(", ")}.
              </p>
            </section>
          )}
          {plan.unfit.length > 0 && (
            <section aria-label="Changes that no longer fit" className="border-t border-line p-3">
              <h3>
                {plan.unfit.length === 1 ? "1 change no longer fits" : `${plan.unfit.length} changes no longer fit`}
              </h3>
              <ul>
                {plan.unfit.map((u, i) => (
                  <li key={`${u.edit.id}${i}`} className="border-t border-line py-1.5 text-small">
                    {u.edit.op === "set" ? `${u.edit.field} of ${u.edit.step}` : `${u.edit.op} ${u.edit.step}`}: {u.why}
                    .{" "}
                    <ActButton className="link-act" act={{ intent: "edit-forget", edit: u.edit.id }}>
                      Forget it
                    </ActButton>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {job.edits.length > 0 && (
            <p className="px-3 py-2">
              <ActButton className="link-act" act={{ intent: "edits-forget" }}>
                Go back to the plan’s own steps ({job.edits.length} {job.edits.length === 1 ? "change" : "changes"})
              </ActButton>
            </p>
          )}
        </div>
        <div
          className="flex min-h-0 min-w-0 flex-col overflow-y-auto px-4 py-3 max-lg:order-1 max-lg:px-3"
          tabIndex={0}
          role="region"
          aria-label="Core sample"
          onTouchStart={(e) => (touch.current = e.touches[0].clientX)}
          onTouchEnd={(e) => {
            const dx = e.changedTouches[0].clientX - (touch.current ?? e.changedTouches[0].clientX);
            if (Math.abs(dx) > 60) by(dx < 0 ? 1 : -1);
          }}
        >
          <div className="flex flex-wrap items-baseline justify-between gap-x-3">
            <h2>
              Core sample {after}
              {at !== null && p.end !== null ? ", while it waits" : ""}
            </h2>
            <p className="text-small text-muted">
              {ghost && logged ? `dashed: the piece as logged, after step ${logged.index + 1} · ` : ""}lens on{" "}
              <strong>{names[chosen].name}</strong>, {magnified(lensScale(chosenZone, LENS))}
            </p>
          </div>
          <p className="font-semibold lg:hidden">{p.step.title}</p>
          <div className="h-[40%] min-h-58 shrink-0 max-lg:h-[40dvh]">
            <CoreSample
              zones={zones}
              names={names}
              paints={paints}
              ground={ground}
              range={d.range}
              sandedUm={p.after.sandedUm}
              sandTo={sand && sand.index > index ? sand.after.sandedUm : null}
              ghost={ghost}
              lensFromRight={LENS / 2}
              chosen={chosen}
              lit={lit}
              onZone={(id) => setSearch((s) => (s.set("zone", id), s), { replace: true, preventScrollReset: true })}
              onLight={setLit}
            />
          </div>
          <div className="flex flex-wrap items-start gap-5 max-lg:mt-3">
            <div className="min-w-56 flex-1">
              <h3>Layers in {names[chosen].name}, top first</h3>
              {chosenZone.layers.length === 0 && <p className="text-muted">{capital(bareBody(ground.name))}.</p>}
              <ul>
                {[...chosenZone.layers].reverse().map((l, i) => (
                  <li
                    key={i}
                    onMouseEnter={() => setLit(l.step)}
                    onMouseLeave={() => setLit(null)}
                    className={clsx(
                      "flex items-center gap-2 border-b border-line py-1 text-small",
                      lit && lit === l.step && "font-semibold",
                    )}
                  >
                    <Swatch colour={lookOf(l, paints).fill} />
                    {l.step ? (
                      <button
                        type="button"
                        className="says min-h-7.5 flex-1 text-left hover:underline max-lg:min-h-touch"
                        onFocus={() => setLit(l.step)}
                        onBlur={() => setLit(null)}
                        onClick={() => choose(l.step!)}
                      >
                        {lookOf(l, paints).name}
                      </button>
                    ) : (
                      <span className="flex-1">{lookOf(l, paints).name}</span>
                    )}
                    <Why of={openedLayer(plan, p.step.id, chosen, l, lookOf(l, paints).name)}>
                      <span className="num">{showUm(l.bottomUm - l.topUm)}</span>
                    </Why>
                    <span className="w-23 text-right text-muted">
                      {l.left < 1
                        ? `${Math.round(l.left * 100)} % left`
                        : l.kind === "char"
                          ? ""
                          : l.state.replace("-", " ")}
                    </span>
                  </li>
                ))}
              </ul>
              <div className="mt-2 text-small text-muted">
                {filmNow(here, index, chosen, moment ?? d.now)
                  .map((x) => ({ ...x, text: `${x.text[0].toUpperCase()}${x.text.slice(1)}.` }))
                  .map((x) => (
                    <p key={x.text}>
                      {x.why ? (
                        <Why quiet of={x.why}>
                          {x.text}
                        </Why>
                      ) : (
                        x.text
                      )}
                    </p>
                  ))}
              </div>
              <figure className="mt-2 max-w-91">
                <Face
                  job={turned ? { ...job, zones: [] } : job}
                  colours={turned ? { ground: zones[zones.length - 1].back } : colours}
                  grain={ground.wood}
                  lit={kindOf(p.step.kind).lays === "film" ? p.step.zones : []}
                  pictured={turned ? [] : picturedIn(p.after)}
                  label={`${turned ? "Back" : "Front"} of the piece ${after}`}
                  className="max-h-32 w-full"
                />
                <figcaption className="flex items-center justify-between gap-2">
                  <span className="tag">
                    {turned
                      ? `back, after step ${index + 1}: ${bareBody(ground.name)}${p.after.labelled ? ", labelled" : ", no label yet"}`
                      : `front, after step ${index + 1}`}
                  </span>
                  <button type="button" className="link-act" aria-pressed={turned} onClick={() => setTurned(!turned)}>
                    Turn it over
                  </button>
                </figcaption>
              </figure>
            </div>
            <Lens
              zone={chosenZone}
              paints={paints}
              ground={ground}
              name={names[chosen].name}
              size={LENS}
              lit={lit}
              onLight={setLit}
            />
          </div>
        </div>
        <div
          tabIndex={0}
          role="region"
          aria-label="Step and snags"
          className="min-h-0 overflow-y-auto border-l border-line px-4 py-3 max-lg:order-2 max-lg:border-0 max-lg:px-3"
        >
          <StepCard
            key={p.step.id}
            s={card}
            plate={
              kindOf(p.step.kind).tries === "setting" ? (
                <PlatePart
                  key={job.plate?.at ?? "none"}
                  plate={job.plate}
                  start={own(p.step, "laser")}
                  local={plan.context.clock.toLocal(Math.floor(nowMinutes()))}
                />
              ) : null
            }
          />
          <button
            type="button"
            className="btn my-2 w-full lg:hidden"
            aria-expanded={sheet}
            onClick={() => setSheet(!sheet)}
          >
            {d.snags.filter((s) => s.waived === null).length} snags
          </button>
          <div className={`border-t border-line pt-3 ${sheet ? "" : "max-lg:hidden"}`}>
            <Snags rows={d.snags} onStep={(id) => choose(id)} />
          </div>
          {plan.amounts.length > 0 && (
            <Fold summary="Paint for the whole job" className="border-t border-line py-1">
              <ul>
                {plan.amounts.map((a) => (
                  <li key={a.product} className="flex items-center gap-2 border-b border-line py-1 text-small">
                    <Swatch colour={paints[a.product].colour} />
                    <span className="flex-1">{paints[a.product].name}</span>
                    <Why of={opened(plan, { of: "amount", product: a.product })}>
                      {showAmount(a.ml, a.g)}
                      {a.cans === null ? ", stock unknown" : a.cans > 0 ? `, buy ${a.cans}` : ", on the Shelf"}
                      {a.othersMl > 0 ? ` beside ${showMl(a.othersMl)} for other jobs` : ""}
                    </Why>
                  </li>
                ))}
              </ul>
            </Fold>
          )}
        </div>
      </div>
      <TimeRail blocks={d.rail} chosen={p.step.id} at={at} onChoose={choose} />
    </main>
  );
}

interface Setting {
  power: number;
  speed: number;
  interval: number;
  passes: number;
}

/** The setting that won on the test plate, typed in and logged. */
function PlatePart({
  plate,
  start,
  local,
}: {
  plate: (Setting & { at: string; note: string }) | null;
  start: Setting | null;
  local: string;
}) {
  const from = plate ?? start;
  const face = useFace();
  return (
    <AskForm
      form={PlateForm}
      intent="plate"
      keeps
      extra={{ at: local }}
      start={{
        power: from ? String(Math.round(from.power * 1000) / 10) : "",
        speed: from ? `${from.speed} mm/s` : "",
        interval: from ? `${from.interval} mm` : "",
        passes: from ? String(from.passes) : "1",
        note: plate?.note ?? "",
      }}
      className="mt-3 grid grid-cols-2 gap-2 border-t border-line pt-3"
    >
      <h3 className="col-span-2">The setting that won</h3>
      <AskText name="power" label="Power, %" inputMode="decimal" />
      <AskText name="speed" label="Speed" />
      <AskText name="interval" label="Interval" />
      <AskText name="passes" label="Passes" inputMode="numeric" />
      <AskText name="note" label="Seen on the plate" className="col-span-2" />
      <button className="btn col-span-2">Log this setting</button>
      <p className="tag col-span-2">
        {plate
          ? `Logged ${showLocal(plate.at, face)}: ${showShare(plate.power)}, ${showSpeed(plate.speed)}, ${showInterval(plate.interval)}.`
          : "Not logged yet; the figures shown are where to start."}
      </p>
    </AskForm>
  );
}

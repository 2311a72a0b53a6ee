import type { Route } from "./+types/workshop";
import { Link, NavLink, redirect } from "react-router";
import { formOf } from "../acts/answer";
import { shopAct } from "../acts/shop";
import { nowMinutes } from "../clock";
import { type OwnRules, ROUTE_RULES, type RouteRule, rulesFile, weightOf } from "../core/catalogue/route-rules";
import { ROUTES } from "../core/catalogue/routes";
import { ownRules } from "../core/plan/choose";
import { picksOf } from "../core/process/context";
import type { Shop } from "../core/records/shop";
import { showWhen, shopClock } from "../core/time/zoned";
import { readLastSaved, readShop } from "../store/queries";
import { AddMachine } from "../ui/forms";
import { ActButton, PostForm, TextField, TickField } from "../ui/kit/field";
import { Fold } from "../ui/kit/fold";
import { saveFile } from "../ui/files";
import { AskPickPlain } from "../ui/kit/plain-pick";
import { SchoolsPart } from "../ui/schools";
import { ClimatePart, TheDay } from "../ui/workshop/climate";
import { EnergyTool } from "../ui/workshop/energy";
import { Gears } from "../ui/workshop/gear";
import { HoursPart } from "../ui/workshop/hours";
import { MachineForm } from "../ui/workshop/machine-form";
import { MoneyPart } from "../ui/workshop/money";
import { ScreenPart } from "../ui/workshop/screen";
import { partsOf } from "../views/workshop";
import { FilesPart } from "./files-part";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const base = await readShop();
  if (!base) throw redirect("/");
  const clock = shopClock(base.shop);
  const saved = await readLastSaved();
  const parts = partsOf(base);
  if (params.part && !parts.some((p) => p.id === params.part)) throw new Response("no such part", { status: 404 });
  return {
    ...base,
    parts,
    today: clock.toLocal(Math.floor(nowMinutes())).slice(0, 10),
    saved: saved === null ? null : showWhen(clock, Math.floor(saved / 60000)),
  };
}

export const clientAction = async ({ request }: Route.ClientActionArgs) => shopAct(await formOf(request));

type Data = Route.ComponentProps["loaderData"];

export default function Workshop({ loaderData: d, params }: Route.ComponentProps) {
  const here = d.parts.find((p) => p.id === params.part);
  return (
    <main id="main" data-view="workshop" data-part={here?.id} className="mx-auto w-full max-w-page px-5 py-5">
      <title>{`${here ? `${here.name} · ` : ""}Workshop · Rich Layer`}</title>
      <h1>Workshop</h1>
      <div className="mt-4 grid gap-x-12 gap-y-6 lg:grid-cols-[--spacing(56)_minmax(0,1fr)]">
        <nav aria-label="Parts of the Workshop" className="min-w-0">
          <ul className="flex gap-x-4 overflow-x-auto lg:flex-col lg:border-r lg:border-line lg:pr-4">
            {[{ id: "", name: "All at a glance" }, ...d.parts].map((p) => (
              <li key={p.id} className="flex-none">
                <NavLink
                  end
                  to={p.id ? `/workshop/${p.id}` : "/workshop"}
                  className={({ isActive }) =>
                    "flex min-h-line items-center max-lg:min-h-touch " +
                    (isActive ? "font-bold underline decoration-2 underline-offset-6" : "")
                  }
                >
                  {p.name}
                </NavLink>
              </li>
            ))}
          </ul>
        </nav>
        {here ? (
          <section aria-labelledby="part" className="flex min-w-0 max-w-[62rem] flex-col gap-4">
            <h2 id="part">
              {here.name} {here.byDefault && <span className="tag">default</span>}
            </h2>
            <Part id={here.id} d={d} />
          </section>
        ) : (
          <div className="grid min-w-0 items-start gap-x-12 gap-y-8 xl:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
            <section aria-labelledby="glance">
              <h2 id="glance">What every plan of this shop goes by</h2>
              <dl className="mt-2">
                {d.parts
                  .filter((p) => p.says)
                  .map((p) => (
                    <div
                      key={p.id}
                      className="grid items-baseline gap-x-4 border-b border-line py-2 sm:grid-cols-[11rem_1fr]"
                    >
                      <dt>
                        <Link className="text alone min-h-7.5" to={`/workshop/${p.id}`}>
                          {p.name}
                        </Link>
                      </dt>
                      <dd>
                        {p.says} {p.byDefault && <span className="tag">default</span>}
                      </dd>
                    </div>
                  ))}
              </dl>
              <h3 className="mt-6 mb-2">The air over the day</h3>
              <TheDay shop={d.shop} />
            </section>
            <FilesPart today={d.today} name={d.shop.name} saved={d.saved} />
          </div>
        )}
      </div>
    </main>
  );
}

function Part({ id, d }: { id: string; d: Data }) {
  switch (id) {
    case "hours":
      return <HoursPart shop={d.shop} />;
    case "climate":
      return <ClimatePart shop={d.shop} />;
    case "machines":
      return <Machines d={d} />;
    case "gear":
      return <Gears shop={d.shop} />;
    case "money":
      return <MoneyPart shop={d.shop} machines={d.machines} />;
    case "schools":
      return <Schools shop={d.shop} />;
    case "screen":
      return <ScreenPart shop={d.shop} />;
    case "files":
      return <FilesPart today={d.today} name={d.shop.name} saved={d.saved} />;
    default:
      return null;
  }
}

function Machines({ d: { machines, shop } }: { d: Data }) {
  return (
    <>
      {!machines.length && (
        <p className="text-muted">No machine yet. Depth, settings and laser minutes are unknown until there is one.</p>
      )}
      {machines.map((m) => (
        <MachineForm key={m.id} m={m} units={shop.units} />
      ))}
      <AddMachine intent="machine-add" />
      <EnergyTool machines={machines} units={shop.units} />
    </>
  );
}

/** Above 0 for a way, below against it; of those it speaks of, and any other by its name. */
function Weights({ of: r, own }: { of: RouteRule; own: OwnRules }) {
  const spoken = ROUTES.filter((x) => weightOf(r, x.id, own) !== 0 || r.weighs[x.id]);
  const others = ROUTES.filter((x) => !spoken.includes(x)).map((x) => ({ value: x.id, label: x.name }));
  return (
    <>
      {spoken.map((x) => (
        <TextField
          key={x.id}
          name="weight"
          label={x.name}
          value={String(weightOf(r, x.id, own)).replace("-", "−")}
          hint={
            weightOf(r, x.id, own) === (r.weighs[x.id] ?? 0)
              ? "as it is given"
              : `given: ${String(r.weighs[x.id] ?? 0)}`
          }
          extra={{ intent: "route-weight", rule: r.id, route: x.id }}
        />
      ))}
      {others.length > 0 && (
        <PostForm intent="route-weight" extra={{ rule: r.id }} className="col-span-full flex flex-wrap items-end gap-2">
          <AskPickPlain key={others.length} name="route" label="Another way" options={others} />
          <label className="flex w-20 flex-col gap-0.5 text-small text-muted">
            Weighs
            <input name="value" className="field-in text-ink" inputMode="numeric" defaultValue="1" />
          </label>
          <button className="btn">Add</button>
        </PostForm>
      )}
    </>
  );
}

function Schools({ shop }: { shop: Shop }) {
  return (
    <>
      <p className="text-muted">What every plan of this shop goes by; a job may go its own way on its Route page.</p>
      <SchoolsPart job={null} shop={picksOf(shop.schools)} />
      <h3>Questions that choose a route</h3>
      <div className="grid grid-cols-1 gap-x-8 lg:grid-cols-2">
        {ROUTE_RULES.map((r) => (
          <div key={r.id} data-question={r.id}>
            <TickField
              name={r.id}
              label={`${r.asks} ${r.why}`}
              value={!shop.routeRulesOff?.includes(r.id)}
              extra={{ intent: "route-rule" }}
            />
            <Fold summary="What it weighs" className="ml-8" inside="my-2 grid fields-30 gap-3">
              {() => <Weights of={r} own={ownRules(shop)} />}
            </Fold>
          </div>
        ))}
      </div>
      <div className="mt-4 flex flex-wrap gap-3">
        <button
          type="button"
          className="btn"
          onClick={() => saveFile("route-questions.json", rulesFile(ownRules(shop)), "application/json")}
        >
          Save the questions as a file
        </button>
        {(shop.routeWeights || shop.routeRulesOff) && (
          <ActButton act={{ intent: "route-rules-reset" }}>All as they are given</ActButton>
        )}
      </div>
    </>
  );
}

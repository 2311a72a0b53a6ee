import { said } from "../core/units/said";
import { shelfAct } from "../acts/shelf";
import type { Route } from "./+types/shelf";
import { useSearchParams } from "react-router";
import { FINISHES, finishNamed } from "../core/catalogue/finishes";
import { paint } from "../core/catalogue/properties";
import { onShelf } from "../core/plan/amounts";
import { attack } from "../core/judge/rules/33-finishes-that-attack";
import { context } from "../core/process/context";
import { showMl } from "../core/units/show";
import { readDraws, type Draws } from "../store/draws";
import { readShop } from "../store/queries";
import { ActButton } from "../ui/kit/field";
import { Empty, Head, Swatch } from "../ui/kit/bits";
import { ProductEditor } from "../ui/product-editor";
import { formOf } from "../acts/answer";
import { Job } from "../core/records/job";
import { AddPaint } from "../ui/forms";
import { Fold } from "../ui/kit/fold";

export async function clientLoader() {
  const base = await readShop();
  if (!base) return { products: [], attacks: [], finishes: FINISHES, drawn: {} as Draws, units: "metric" as const };
  const c = context({
    ...base,
    job: { ...new Job(), id: "x", title: "x", start: "2027-01-01T00:00", zones: [] },
    log: [],
  });
  const film = {
    step: "",
    productId: "",
    role: "colour" as const,
    coat: 1,
    dryUm: 10,
    wetUm: null,
    left: 1,
    laidAt: 0,
    roomC: null,
    roomRh: null,
  };
  const one = [...new Map(base.products.map((p) => [p.finish, p])).values()];
  const attacks = one.flatMap((u) =>
    one.flatMap((l) => {
      const why = u.id === l.id ? null : attack(paint(u), paint(l), { ...film, productId: l.id }, c, 0);
      return why ? [{ upper: finishNamed(u.finish).name, lower: finishNamed(l.finish).name, why }] : [];
    }),
  );
  const drawn = (await readDraws(base)).all;
  return {
    products: base.products.sort((a, b) => a.name.localeCompare(b.name)),
    attacks,
    finishes: FINISHES,
    drawn,
    units: base.shop.units,
  };
}

export const clientAction = async ({ request }: Route.ClientActionArgs) => shelfAct(await formOf(request));

export default function Shelf({ loaderData: d }: Route.ComponentProps) {
  const [search, setSearch] = useSearchParams();
  const p = d.products.find((x) => x.id === search.get("product")) ?? null;
  return (
    <main
      id="main"
      data-view="shelf"
      className="mx-auto grid w-full max-w-[1500px] gap-8 px-5 py-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]"
    >
      <title>Shelf · Rich Layer</title>
      <section aria-labelledby="s1" className="min-w-0">
        <h1 id="s1" className="mb-3">
          Shelf
        </h1>
        {!d.products.length && (
          <Empty title="Nothing on the Shelf yet">
            <p>
              Paints, sealers and clear coats with how thick they go on, how they hide, how long they dry, and what is
              left in each can.
            </p>
            <ActButton className="btn btn-main" act={{ intent: "starter" }}>
              Begin with four plain ones, all figures default
            </ActButton>
          </Empty>
        )}
        {d.products.length > 0 && (
          <ul className="divide-y divide-line border-y border-line">
            {d.products.map((x) => {
              const left = onShelf(x.cans);
              const full = x.cans.reduce((a, c) => a + c.fullMl, 0);
              return (
                <li key={x.id}>
                  <button
                    type="button"
                    aria-pressed={p?.id === x.id}
                    onClick={() => setSearch({ product: x.id }, { preventScrollReset: true })}
                    className={`flex min-h-[52px] w-full items-center gap-3 px-2 text-left ${p?.id === x.id ? "bg-chosen" : ""}`}
                  >
                    <Swatch colour={x.colour} />
                    <span className="min-w-0 flex-1">
                      <strong>{x.name}</strong>
                      <span className="block text-[0.93rem] text-muted">
                        {said(finishNamed(x.finish).name, d.units)}
                        {x.chlorinated === true ? ", holds chlorine" : ""}
                      </span>
                    </span>
                    <span className="w-44 text-right text-[0.93rem]">
                      {!x.cans.length ? (
                        <span className="text-muted">no can listed</span>
                      ) : left === null ? (
                        "contents unknown"
                      ) : (
                        <>
                          {showMl(left)} left
                          {d.drawn[x.id] > 0 && (
                            <span className={`block ${d.drawn[x.id] > left ? "text-wrong" : "text-muted"}`}>
                              open jobs take {showMl(d.drawn[x.id])}
                            </span>
                          )}
                          <span className="mt-0.5 block h-2 border border-strong" aria-hidden="true">
                            <span
                              className={`block h-full ${left / full < 0.2 ? "bg-wrong" : "bg-ready"}`}
                              style={{ width: `${Math.min(100, (left / full) * 100)}%` }}
                            />
                          </span>
                        </>
                      )}
                    </span>
                  </button>
                </li>
              );
            })}
          </ul>
        )}
        <Fold summary="Put a further one on the Shelf" className="mt-4">
          <AddPaint
            intent="add"
            finishes={d.finishes.map((x) => ({ value: x.id, label: said(x.name, d.units) }))}
            start={{ finish: d.finishes[0].id, colour: "#a8235a", zone: "" }}
            zones={null}
          />
        </Fold>
        {d.products.length > 0 && (
          <section aria-labelledby="s3" className="mt-6">
            <h2 id="s3">What attacks what</h2>
            {!d.attacks.length && <p className="text-muted">Nothing on this Shelf attacks anything else on it.</p>}
            <ul>
              {d.attacks.map((a) => (
                <li key={`${a.upper}${a.lower}`} className="border-b border-line py-1.5">
                  {a.upper} over {a.lower.toLowerCase()}: {a.why}.
                </li>
              ))}
            </ul>
            <p className="tag mt-2">
              {said("Cans spray evenly from 20 °C to 30 °C;", d.units)} warm them in hand-warm water at most, never on a
              heater. Try each off the piece before it goes on.
            </p>
          </section>
        )}
      </section>
      {p && (
        <section aria-labelledby="s2" className="flex flex-col gap-4">
          <Head
            right={
              <ActButton className="link-act" act={{ intent: "remove", id: p.id }}>
                Take it off the Shelf
              </ActButton>
            }
          >
            <span id="s2" className="flex items-center gap-2">
              <Swatch colour={p.colour} />
              {p.name}
            </span>
          </Head>
          <ProductEditor key={p.id} p={p} units={d.units} />
        </section>
      )}
    </main>
  );
}

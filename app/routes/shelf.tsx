import type { Route } from "./+types/shelf";
import { useSearchParams } from "react-router";
import { FINISHES, finishNamed } from "../core/catalogue/finishes";
import { paint } from "../core/catalogue/properties";
import { STARTER, defaultProduct } from "../core/catalogue/starter";
import { onShelf } from "../core/plan/amounts";
import { attack } from "../core/judge/rules/33-finishes-that-attack";
import { context } from "../core/process/context";
import { Can, Swatch as SwatchRecord, type Product } from "../core/records/product";
import { showMl } from "../core/units/show";
import { change, commit, Refused } from "../store/acts";
import { readHeads, readShop } from "../store/queries";
import { ActButton, PostForm } from "../ui/kit/field";
import { Empty, Head, Swatch } from "../ui/kit/bits";
import { ProductEditor } from "../ui/product-editor";
import { answer, formOf, typed } from "./answer";
import { Job } from "../core/records/job";

export async function clientLoader() {
  const base = await readShop();
  if (!base) return { products: [], attacks: [], finishes: FINISHES };
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
  return { products: base.products.sort((a, b) => a.name.localeCompare(b.name)), attacks, finishes: FINISHES };
}

export async function clientAction({ request }: Route.ClientActionArgs) {
  const f = await formOf(request);
  return answer(f.field, async () => {
    const base = (await readShop())!;
    const upd = (label: string, more: (p: Product) => Partial<Product>): Promise<void> =>
      change<Product>(label, "products", f.id, (p) => ({ ...p, ...more(p) }));
    const can = (k: string, more: (c: Can) => Partial<Can>): Promise<void> =>
      upd("can on the Shelf", (p) => ({ cans: p.cans.map((c) => (c.id === k ? { ...c, ...more(c) } : c)) }));
    const v = f.value ?? "";
    switch (f.intent) {
      case "add": {
        const name = f.name.trim();
        if (!name) throw new Refused("Give it a name that you find on its can.");
        const slug =
          name
            .toLowerCase()
            .normalize("NFKD")
            .replace(/[^a-z0-9]+/g, "-")
            .replace(/^-|-$/g, "")
            .slice(0, 60) || "paint";
        let id = slug;
        for (let n = 2; base.products.some((p) => p.id === id); n++) id = `${slug}-${n}`;
        return commit(`“${name}” on the Shelf`, [
          { table: "products", id, next: defaultProduct(id, name, f.finish, f.colour), base: null },
        ]);
      }
      case "starter": {
        const fresh = STARTER.filter((s) => !base.products.some((p) => p.id === s.id));
        return commit(
          "plain beginnings of a Shelf",
          fresh.map((s) => ({
            table: "products" as const,
            id: s.id,
            next: defaultProduct(s.id, s.name, s.finish, s.colour),
            base: null,
          })),
        );
      }
      case "remove": {
        const used = (await readHeads()).filter((j) => j.open === 1 && j.products.includes(f.id));
        if (used.length) throw new Refused(`“${used[0].title}” uses it in a zone. Give the zone another finish first.`);
        return commit("paint taken off the Shelf", [{ table: "products", id: f.id, next: null }]);
      }
      case "can-add":
        return upd("can on the Shelf", (p) => {
          const ml = p.cans[0]?.fullMl ?? (finishNamed(p.finish).by === "spray" ? 400 : 60);
          let n = p.cans.length + 1;
          while (p.cans.some((c) => c.id === `${p.id}.can${n}`)) n++;
          return { cans: [...p.cans, { ...new Can(), id: `${p.id}.can${n}`, label: `Can ${n}`, fullMl: ml }] };
        });
      case "swatch-add":
        return upd("swatch", (p) => {
          const coats = typed.whole(f.coats);
          if (!["wet", "dry", "after clear"].includes(f.when))
            throw new Refused(`“${f.when}” is neither wet, dry nor after clear.`);
          let n = (p.swatches?.length ?? 0) + 1;
          while (p.swatches?.some((s) => s.id === `swatch.${n}`)) n++;
          return {
            swatches: [
              ...(p.swatches ?? []),
              {
                ...new SwatchRecord(),
                id: `swatch.${n}`,
                over: f.over.toLowerCase(),
                seen: f.seen.toLowerCase(),
                coats,
                when: f.when as SwatchRecord["when"],
              },
            ],
          };
        });
      case "swatch-remove":
        return upd("swatch taken out", (p) => {
          const left = (p.swatches ?? []).filter((s) => s.id !== f.swatch);
          return { swatches: left.length ? left : undefined };
        });
      case "can-remove":
        return upd("can taken off the Shelf", (p) => ({ cans: p.cans.filter((c) => c.id !== f.can) }));
      case "can":
        return can(f.can, () => {
          switch (f.field) {
            case "label":
              return { label: v.trim() || "Can" };
            case "openedOn":
              return { openedOn: v || null };
            case "fullMl":
              return { fullMl: typed.volume(v) };
            case "leftMl":
              return { leftMl: typed.volumeOrNull(v) };
            case "lot":
              return { lot: v };
            default:
              return { [f.field]: typed.weightOrNull(v) };
          }
        });
      case "time":
        return upd("drying time", (p) => ({ times: { ...p.times, [f.field]: typed.minutesOrNull(v) } }));
      case "set":
        return upd("paint on the Shelf", () => {
          switch (f.field) {
            case "name":
              return { name: v.trim() || "Unnamed" };
            case "colour":
              return { colour: v.toLowerCase() };
            case "finish":
              return { finish: finishNamed(v).id };
            case "sheen":
              return { sheen: (v || null) as Product["sheen"] };
            case "base":
              return { base: (v || null) as Product["base"] };
            case "hideUm":
              return { hideUm: typed.numberOrNull(v) };
            case "flowC":
            case "holdC":
            case "holdMin":
            case "density":
            case "limitC":
              return { [f.field]: v.trim() ? typed.number(v) : undefined };
            case "packing":
              return { packing: v.trim() ? typed.share(v) : undefined };
            case "coatUm":
              return { coatUm: typed.numberOrNull(v) };
            case "solids":
              return { solids: typed.shareOrNull(v) };
            case "minC":
              return { minC: typed.temperatureOrNull(v) };
            case "chlorinated":
              return { chlorinated: v === "" ? null : v === "true" };
            case "foodRated":
              return { foodRated: v === "true" };
            case "clear":
              return { clear: v === "true" };
            case "origin":
              return { origin: v as Product["origin"] };
            case "note":
              return { note: v };
            default:
              throw new Refused(`There is nothing called “${f.field}” here.`);
          }
        });
      default:
        throw new Refused(`There is no act “${f.intent}”.`);
    }
  });
}

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
                        {finishNamed(x.finish).name}
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
        <details className="mt-4" open={false}>
          <summary className="link-act">Put a further one on the Shelf</summary>
          <PostForm intent="add" className="mt-2 flex flex-wrap items-end gap-3">
            <label className="text-muted">
              Name
              <input name="name" required maxLength={80} className="field-in text-ink" autoComplete="off" />
            </label>
            <label className="text-muted">
              Finish
              <select name="finish" className="field-in text-ink">
                {d.finishes.map((x) => (
                  <option key={x.id} value={x.id}>
                    {x.name}
                  </option>
                ))}
              </select>
            </label>
            <label className="text-muted">
              Colour
              <input name="colour" type="color" defaultValue="#a8235a" className="field-in w-20" />
            </label>
            <button className="btn">Add</button>
          </PostForm>
        </details>
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
              Cans spray evenly from 20 to 30 °C; warm them in hand-warm water at most, never on a heater. Try each off
              the piece before it goes on.
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
          <ProductEditor key={p.id} p={p} />
        </section>
      )}
    </main>
  );
}

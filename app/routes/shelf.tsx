import { said } from "../core/units/said";
import { shelfAct } from "../acts/shelf";
import type { Route } from "./+types/shelf";
import { lazy, Suspense, useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { FINISHES } from "../core/catalogue/finishes";
import { listWords, showMl } from "../core/units/show";
import { readDraws } from "../store/draws";
import { nowMinutes } from "../clock";
import { readHeads, readShop, readUse, readWorldsOf } from "../store/queries";
import { ActButton } from "../ui/kit/field";
import { Empty, Head, Swatch } from "../ui/kit/bits";
import { ProductEditor } from "../ui/product-editor";
import { formOf } from "../acts/answer";
import { AddPaint } from "../ui/forms";
import { Fold } from "../ui/kit/fold";
import { Stock } from "../ui/stock";
import { freeBlanks, leftovers, lotRows } from "../views/stock";
import { ToBuyList } from "../ui/to-buy";
import { LabelledPick } from "../ui/kit/pick";
import { Table, type Column } from "../ui/kit/table";
import { attacksOn, SHELF_KINDS, shelfRows, usedByWeek, usedSince, type ShelfRow } from "../views/shelf";
import { NEW_PAINT } from "../ui/inks";

const UseChart = lazy(() => import("../ui/charts/use-chart"));

export async function clientLoader({ request }: Route.ClientLoaderArgs) {
  const base = await readShop();
  if (!base)
    return {
      rows: [],
      attacks: [],
      finishes: FINISHES,
      units: "metric" as const,
      weeks: [],
      buying: null,
      stock: null,
    };
  const chosen = new URL(request.url).searchParams.get("product");
  const now = Math.floor(nowMinutes());
  const [draws, heads, used] = await Promise.all([
    readDraws(base),
    readHeads(),
    chosen === null ? [] : readUse(chosen, usedSince(now)),
  ]);
  const open = heads.filter((h) => h.open === 1);
  const search = new URL(request.url).searchParams;
  const lots = lotRows(base.shop, heads);
  return {
    stock: search.has("blanks") ? { lots, left: leftovers(base.products, base.shop.units) } : null,
    buying: await buyingOf(open, search.get("buy"), freeBlanks(lots)),
    weeks: chosen === null ? [] : usedByWeek(used, chosen, base.shop, now),
    rows: shelfRows(base.products, open, draws.all),
    attacks: attacksOn(base),
    finishes: FINISHES,
    units: base.shop.units,
  };
}

/** jobs that are bought for at once */
const MOST_BOUGHT_FOR = 60;
/** @param buy ids of jobs, or all of them; null: nobody asks */
async function buyingOf(
  open: { id: string; title: string }[],
  buy: string | null,
  free: Readonly<Record<string, number>>,
) {
  if (buy === null) return null;
  const ids = buy === "all" ? open.map((h) => h.id) : buy.split(",");
  const chosen = open.filter((h) => ids.includes(h.id)).slice(0, MOST_BOUGHT_FOR);
  const { shopping } = await import("../core/explain/shopping");
  return {
    list: shopping(
      await readWorldsOf(
        chosen.map((h) => h.id),
        false,
      ),
      free,
    ),
    jobs: open.map((h) => ({ id: h.id, title: h.title, chosen: chosen.includes(h) })),
  };
}

export const clientAction = async ({ request }: Route.ClientActionArgs) => shelfAct(await formOf(request));

/** How much of a product is left, as a bar. */
function Left({ r }: { r: ShelfRow }) {
  if (!r.product.cans.length) return <span className="text-muted">no can listed</span>;
  if (r.left === null) return <>contents unknown</>;
  const share = r.full > 0 ? Math.min(1, r.left / r.full) : 0;
  return (
    <span className="block min-w-[7rem]">
      {showMl(r.left)}
      {r.low && <strong className="text-wrong"> · low</strong>}
      <span className="mt-0.5 block h-2 border border-strong" aria-hidden="true">
        <span className={`block h-full ${r.low ? "bg-wrong" : "bg-ready"}`} style={{ width: `${share * 100}%` }} />
      </span>
    </span>
  );
}

/** @param chosen beside the editor there is room for what matters most only */
const columnsOf = (units: "metric" | "inch", chosen: string | null): Column<ShelfRow>[] => {
  const all: (Column<ShelfRow> & { wide?: boolean })[] = [
    {
      id: "name",
      name: "Called",
      heads: true,
      by: (r) => r.product.name,
      find: (r) => r.product.name,
      cell: (r) => (
        <Link
          to={`/shelf?product=${r.product.id}`}
          preventScrollReset
          aria-current={chosen === r.product.id ? "true" : undefined}
          className={`flex min-h-line items-center gap-3 ${chosen === r.product.id ? "font-bold" : "text"}`}
        >
          <Swatch colour={r.product.colour} />
          <span>
            {r.product.name}
            {chosen !== null && <span className="tag block">{said(r.finish, units)}</span>}
          </span>
        </Link>
      ),
    },
    {
      id: "finish",
      name: "What it is",
      from: "md",
      wide: true,
      by: (r) => r.finish,
      find: (r) => `${r.finish} ${SHELF_KINDS[r.kind]}`,
      cell: (r) => `${said(r.finish, units)}${r.product.chlorinated === true ? ", holds chlorine" : ""}`,
    },
    { id: "left", name: "Left", by: (r) => r.left ?? -1, cell: (r) => <Left r={r} /> },
    {
      id: "drawn",
      name: "Open jobs take",
      from: "sm",
      by: (r) => r.drawn,
      cell: (r) =>
        r.drawn > 0 ? (
          <span className={r.left !== null && r.drawn > r.left ? "font-semibold text-wrong" : ""}>
            {showMl(r.drawn)}
          </span>
        ) : (
          "–"
        ),
    },
    {
      id: "used",
      name: "In use by",
      from: "lg",
      wide: true,
      by: (r) => r.usedBy.length,
      find: (r) => r.usedBy.join(" "),
      cell: (r) =>
        r.usedBy.length > 3
          ? `${r.usedBy.slice(0, 2).join(", ")} and ${r.usedBy.length - 2} more`
          : listWords(r.usedBy) || "–",
    },
  ];
  return chosen === null ? all : all.filter((c) => !c.wide);
};

const SHOWN = [
  { value: "", label: "everything" },
  ...Object.entries(SHELF_KINDS).map(([value, label]) => ({ value, label })),
  { value: "low", label: "what is low" },
  { value: "used", label: "what open jobs use" },
];
const shows = (r: ShelfRow, what: string): boolean =>
  what === "low" ? r.low : what === "used" ? r.usedBy.length > 0 || r.drawn > 0 : !what || r.kind === what;

export default function Shelf({ loaderData: d }: Route.ComponentProps) {
  const [search] = useSearchParams();
  const [text, setText] = useState("");
  const [what, setWhat] = useState("");
  const p = d.rows.find((r) => r.product.id === search.get("product"))?.product ?? null;
  const chosen = p?.id ?? (d.buying || d.stock ? "" : null);
  const columns = useMemo(() => columnsOf(d.units, chosen), [d.units, chosen]);
  const rows = useMemo(() => d.rows.filter((r) => shows(r, what)), [d.rows, what]);
  return (
    <main
      id="main"
      data-view="shelf"
      className={
        "mx-auto grid w-full max-w-page gap-8 px-5 py-5 " +
        (p || d.buying || d.stock ? "lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]" : "")
      }
    >
      <title>Shelf · Rich Layer</title>
      <section aria-labelledby="s1" className="min-w-0">
        <div className="mb-3 flex flex-wrap items-end justify-between gap-3">
          <div className="flex flex-wrap items-baseline gap-x-6">
            <h1 id="s1">Shelf</h1>
            <Link className="text" to="/shelf?blanks=all" preventScrollReset>
              Blanks and leftovers
            </Link>
            {d.rows.length > 0 && (
              <Link className="text" to="/shelf?buy=all" preventScrollReset>
                What to buy for open jobs
              </Link>
            )}
          </div>
          {d.rows.length > 3 && (
            <div className="flex flex-wrap items-end gap-3">
              <label className="flex flex-col gap-0.5 text-small text-muted">
                Find
                <input
                  className="field-in !w-52 text-ink"
                  type="search"
                  value={text}
                  onChange={(e) => setText(e.target.value)}
                  placeholder="name, finish, job"
                />
              </label>
              <LabelledPick label="Show" value={what} options={SHOWN} onChange={setWhat} className="w-52" />
            </div>
          )}
        </div>
        {!d.rows.length ? (
          <Empty title="Nothing on the Shelf yet">
            <p>
              Paints, sealers and clear coats with how thick they go on, how they hide, how long they dry, and what is
              left in each can.
            </p>
            <ActButton className="btn btn-main" act={{ intent: "starter" }}>
              Begin with four plain ones, all figures default
            </ActButton>
          </Empty>
        ) : (
          <Table
            label="On the Shelf"
            rows={rows}
            columns={columns}
            rowId={(r) => r.product.id}
            rowProps={(r) => ({ className: r.product.id === chosen ? "bg-chosen" : undefined })}
            find={text.trim()}
            none="Nothing of that kind on this Shelf."
          />
        )}
        <Fold summary="Put a further one on the Shelf" className="mt-4" open={!d.rows.length}>
          <AddPaint
            intent="add"
            finishes={d.finishes.map((x) => ({ value: x.id, label: said(x.name, d.units) }))}
            start={{ finish: d.finishes[0].id, colour: NEW_PAINT, zone: "" }}
            zones={null}
          />
        </Fold>
        {d.rows.length > 0 && (
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
      {!p && !d.buying && d.stock && <Stock rows={d.stock.lots} left={d.stock.left} units={d.units} />}
      {!p && d.buying && <ToBuyList list={d.buying.list} jobs={d.buying.jobs} />}
      {p && (
        <section aria-labelledby="s2" className="flex flex-col gap-4">
          <Head
            right={
              <span className="flex gap-4">
                <ActButton className="link-act" act={{ intent: "remove", id: p.id }}>
                  Take it off the Shelf
                </ActButton>
                <Link className="text alone self-center" to="/shelf" preventScrollReset>
                  Close
                </Link>
              </span>
            }
          >
            <span id="s2" className="flex items-center gap-2">
              <Swatch colour={p.colour} />
              {p.name}
            </span>
          </Head>
          <ProductEditor key={p.id} p={p} units={d.units} />
          {d.weeks.length > 0 && (
            <Fold summary="What was used of it">
              <Suspense fallback={<p className="h-48 text-muted">Drawing what was used…</p>}>
                <UseChart weeks={d.weeks} />
              </Suspense>
            </Fold>
          )}
        </section>
      )}
    </main>
  );
}

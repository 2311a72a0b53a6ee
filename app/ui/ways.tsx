/** Ways to the colour side by side: a table one can sort, up to three of them laid open, and those that do not go, with what would help. */
import { useState, useSyncExternalStore } from "react";
import { Link } from "react-router";
import type { WaysRun } from "../workers/ways";
import { ROUTES } from "../core/catalogue/routes";
import type { Severity } from "../core/records/ids";
import type { World } from "../core/records/world";
import { plural } from "../core/units/show";
import {
  graveness,
  snagsEverywhere,
  wayRows,
  waysNot,
  apart,
  type Told,
  type WayNot,
  type WayRow,
} from "../views/ways";
import { Mark, Share, Swatch } from "./kit/bits";
import { ActButton } from "./kit/field";
import { Fold } from "./kit/fold";
import { Tick } from "./kit/pick";
import { Table, type Column } from "./kit/table";
import { Why } from "./kit/why";
import { SmallSection } from "./small-section";

/** ways that can be laid side by side */
const MOST = 3;
const ALL = ROUTES.length;

const Figure = ({ of: f }: { of: Told }) =>
  f.why ? (
    <Why quiet of={f.why}>
      {f.text}
    </Why>
  ) : (
    f.text
  );

/** How many snags of the gravest kind there are. */
const Worst = ({ snags, worst }: { snags: { severity: Severity }[]; worst: Severity | null }) =>
  worst === null ? (
    "none"
  ) : (
    <span className="inline-flex items-center gap-1 whitespace-nowrap">
      <Mark severity={worst} /> {snags.filter((s) => s.severity === worst).length}
    </span>
  );

const BuyWords = ({ list }: { list: WayRow["toBuy"] }) =>
  list.length === 0 ? (
    "nothing"
  ) : (
    <ul>
      {list.map((p) => (
        <li key={p.id} className="flex items-center gap-1.5">
          <Swatch colour={p.colour} />
          {p.name}
        </li>
      ))}
    </ul>
  );

/** A column of figures. */
const number = (
  id: "hands" | "laser" | "begin" | "finest" | "creeps" | "cost",
  name: string,
  from: "sm" | "md" | "lg",
): Column<WayRow> => ({
  id,
  name,
  from,
  className: "num whitespace-nowrap",
  by: (w) => w[id].n,
  cell: (w) => w[id].text,
});

function columnsFor(beside: readonly string[], put: (id: WayRow["id"], on: boolean) => void): Column<WayRow>[] {
  return [
    {
      id: "way",
      name: "Way, best advised first",
      heads: true,
      by: (w) => w.rank,
      cell: (w) => (
        <div className="flex items-start gap-3">
          <span className="max-sm:hidden">
            {w.section && <SmallSection s={w.section} label={`Section at the end by ${w.name}, not to scale`} />}
          </span>
          <div>
            <p className="font-semibold">
              {w.name}
              {w.chosen && <span className="ml-2 text-ready">chosen</span>}
            </p>
            {w.reasons[0] && <p className="text-small text-muted">{w.reasons[0]}</p>}
            {w.lacks[0] && <p className="text-small text-waiting">{w.lacks[0]}</p>}
            <p className="text-small text-muted sm:hidden">
              {w.hands.text} of hands; {w.toBuy.length ? `${w.toBuy.length} to buy` : "nothing to buy"}
            </p>
          </div>
        </div>
      ),
    },
    number("hands", "Hands", "sm"),
    number("laser", "Laser", "md"),
    { id: "ready", name: "Ready", by: (w) => w.ready.n, cell: (w) => <Figure of={w.ready} /> },
    number("begin", "Begin", "md"),
    number("cost", "Cost", "md"),
    number("finest", "Finest", "lg"),
    number("creeps", "Creeps", "lg"),
    {
      id: "bears",
      name: "In use",
      from: "lg",
      by: (w) => w.fails,
      cell: (w) => (w.bears.length ? w.bears.map((b) => <p key={b}>{b}</p>) : "nothing asked"),
      className: "text-small",
    },
    {
      id: "buy",
      name: "To buy",
      from: "md",
      by: (w) => w.toBuy.length,
      cell: (w) =>
        w.toBuy.length === 0 ? (
          "nothing"
        ) : (
          <span className="flex flex-wrap items-center gap-1" title={w.toBuy.map((p) => p.name).join(", ")}>
            <span className="mr-1">{w.toBuy.length}</span>
            {w.toBuy.map((p) => (
              <Swatch key={p.id} colour={p.colour} label={p.name} />
            ))}
          </span>
        ),
      className: "text-small",
    },
    {
      id: "snags",
      name: "Snags",
      from: "sm",
      by: (w) => -graveness(w.worst) * 100 + w.snags.length,
      cell: (w) => <Worst snags={w.snags} worst={w.worst} />,
    },
    {
      id: "take",
      name: "Choose",
      quiet: true,
      cell: (w) => (
        <div className="flex flex-col items-end gap-1">
          {!w.chosen && (
            <ActButton act={{ intent: "set", field: "route", value: w.id }} label={`Choose ${w.name}`}>
              Choose
            </ActButton>
          )}
          <span className="flex items-center gap-1.5 whitespace-nowrap text-small">
            <Tick
              label={`Lay open ${w.name}`}
              checked={beside.includes(w.id)}
              disabled={!beside.includes(w.id) && beside.length >= MOST}
              onChange={(on) => put(w.id, on)}
            />
            <span aria-hidden="true">Lay open</span>
          </span>
        </div>
      ),
    },
  ];
}

/** One way laid open: everything that the table says of it, and why. */
function Open({ w }: { w: WayRow }) {
  const rows: [string, React.ReactNode][] = [
    ["Hands", <Figure key="h" of={w.hands} />],
    ["Laser", w.laser.text],
    ["Work in all", <Figure key="w" of={w.work} />],
    ["Ready", <Figure key="r" of={w.ready} />],
    ["Begin with", w.begin.text],
    ["Cost in all", w.cost.text.replace("≥", "at least")],
    ["Finest stroke", w.finest.text],
    ["Creeps past an edge", w.creeps.text],
    ["In use", w.bears.join("; ") || "nothing asked"],
    ["To buy", <BuyWords key="b" list={w.toBuy} />],
  ];
  return (
    <article data-way-open={w.id} aria-label={w.name} className="min-w-0 border-t-2 border-strong pt-3">
      <h3>{w.name}</h3>
      <p className="mt-1">{w.gives}</p>
      <p className="mt-1 text-muted">
        {w.goes}{" "}
        <Link className="text" to={`/guide/route-${w.id}`}>
          Field guide
        </Link>
      </p>
      {w.reasons.map((x) => (
        <p key={x} className="mt-1 text-small">
          {x}
        </p>
      ))}
      <dl className="mt-2 grid grid-cols-[--spacing(35)_minmax(0,1fr)] gap-x-3 gap-y-0.5">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-muted">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {[...w.lacks].map((x) => (
        <p key={x} className="mt-1 text-waiting">
          {x}
        </p>
      ))}
      <ul className="mt-2">
        {w.snags.map((s) => (
          <li key={`${s.rule}${s.why}`} className="mt-1">
            <Mark severity={s.severity} /> {s.why}
          </li>
        ))}
      </ul>
    </article>
  );
}

const Not = ({ list }: { list: WayNot[] }) => (
  <Fold summary={`${plural(list.length, "way")} that ${list.length === 1 ? "does" : "do"} not go here, and why`}>
    <ul>
      {list.map((w) => (
        <li key={w.id} data-not={w.id} className="flex flex-wrap items-center gap-x-3 border-t border-line py-1.5">
          <span>
            <Link className="text" to={`/guide/route-${w.id}`}>
              {w.name}
            </Link>
            : {w.no.join(" ")}
          </span>
          {w.mend && <ActButton act={w.mend.act}>{w.mend.label}</ActButton>}
        </li>
      ))}
    </ul>
  </Fold>
);

export function Ways({ run, world, now }: { run: WaysRun; world: World; now: number }) {
  const { ways, done, error } = useSyncExternalStore(run.subscribe, run.get);
  const [beside, setBeside] = useState<WayRow["id"][]>([]);
  const rows = wayRows(ways, world, now);
  const not = waysNot(ways);
  const put = (id: WayRow["id"], on: boolean): void =>
    setBeside((b) => (on ? [...b.filter((x) => x !== id), id] : b.filter((x) => x !== id)));
  const open = rows.filter((w) => beside.includes(w.id));
  const everywhere = snagsEverywhere(rows);
  return (
    <>
      {world.log.length > 0 && (
        <p className="mb-2 text-muted">This job has begun: each way goes on from what is done by now.</p>
      )}
      {everywhere.length > 0 && (
        <ul aria-label="On every way" className="mb-2">
          {everywhere.map((s) => (
            <li key={s.why}>
              <Mark severity={s.severity} /> On every way: {s.why}
            </li>
          ))}
        </ul>
      )}
      {!done && (
        <p role="status" className="my-1 flex items-center gap-3 text-muted">
          <Share of={ways.length / ALL} label="Ways planned" /> Planning every way on this job…
        </p>
      )}
      {error && (
        <p role="alert" className="my-1 text-wrong">
          {error} Reload the page to try again.
        </p>
      )}
      {rows.length > 0 && (
        <Table
          label="Ways to the colour"
          rows={apart(rows, everywhere)}
          columns={columnsFor(beside, put)}
          rowId={(w) => w.id}
          rowProps={(w) => ({ "data-route": w.id, "data-chosen": w.chosen ? "" : undefined })}
        />
      )}
      {done && !rows.length && !error && (
        <p className="my-2 text-waiting">
          {not.length === ALL ? "No way goes on this piece with this beam." : "There is no artwork yet to plan with."}
        </p>
      )}
      {open.length > 0 && (
        <section aria-label="Side by side" className="mt-4 grid gap-6 lg:grid-cols-3">
          {apart(open, everywhere).map((w) => (
            <Open key={w.id} w={w} />
          ))}
        </section>
      )}
      {not.length > 0 && (
        <div className="mt-3">
          <Not list={not} />
        </div>
      )}
    </>
  );
}

/** What has to be bought for the jobs that are chosen: paints less what stands on the Shelf, in cans; blanks by kind and size. */
import { Link, useSearchParams } from "react-router";
import type { ToBuy } from "../core/explain/shopping";
import { writeShopping } from "../io/csv";
import { Swatch } from "./kit/bits";
import { Tick } from "./kit/pick";
import { saveFile } from "./files";

export function ToBuyList({ list, jobs }: { list: ToBuy; jobs: { id: string; title: string; chosen: boolean }[] }) {
  const [, go] = useSearchParams();
  const choose = (id: string, on: boolean): void => {
    const ids = jobs.filter((j) => (j.id === id ? on : j.chosen)).map((j) => j.id);
    go({ buy: ids.length === jobs.length ? "all" : ids.join(",") }, { preventScrollReset: true });
  };
  const wanted = list.paints.filter((p) => p.cans !== 0);
  const there = list.paints.filter((p) => p.cans === 0);
  return (
    <section
      aria-labelledby="b1"
      className="flex min-w-0 flex-col gap-4 max-lg:order-first"
      data-to-buy-list={wanted.length}
    >
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h2 id="b1">To buy for open jobs</h2>
        <span className="flex gap-4 print:hidden">
          <button
            type="button"
            className="link-act"
            onClick={() => saveFile("to-buy.csv", writeShopping(list), "text/csv")}
          >
            Save as CSV
          </button>
          <button type="button" className="link-act" onClick={() => window.print()}>
            Print it
          </button>
          <Link className="text alone" to="/shelf" preventScrollReset>
            Close
          </Link>
        </span>
      </div>
      <ul className="flex flex-wrap gap-x-5 gap-y-1" aria-label="For which jobs">
        {jobs.map((j) => (
          <li key={j.id}>
            <label className="flex min-h-line items-center gap-2">
              <Tick checked={j.chosen} onChange={(on) => choose(j.id, on)} />
              {j.title}
            </label>
          </li>
        ))}
      </ul>
      {!wanted.length && !list.blanks.length && <p>Nothing has to be bought for these.</p>}
      <ul className="divide-y divide-line border-y border-line empty:hidden">
        {wanted.map((p) => (
          <li key={p.id} data-buy={p.id} className="grid grid-cols-[--spacing(8)_minmax(0,1fr)_auto] gap-x-3 py-2">
            <Swatch colour={p.colour} />
            <span className="min-w-0">
              <strong>{p.name}</strong>
              {p.unknown && <span className="text-waiting"> not on the Shelf yet</span>}
              <span className="block text-small text-muted">
                {p.finish}. {p.takes}
                {p.has !== null && !p.unknown && `, ${p.has} on the Shelf`}, for {p.jobs}.
              </span>
            </span>
            <span className="font-semibold whitespace-nowrap">
              {p.cans === null ? "look what is left" : `${p.cans} × ${p.can}`}
            </span>
          </li>
        ))}
        {list.blanks.map((b) => (
          <li
            key={b.key}
            data-blank={b.pieces}
            data-buy-blanks={b.buy}
            className="grid grid-cols-[--spacing(8)_minmax(0,1fr)_auto] gap-x-3 py-2"
          >
            <span />
            <span className="min-w-0">
              <strong>{b.name}</strong>
              <span className="block text-small text-muted">
                Blanks: {b.ordered} ordered
                {b.pieces > b.ordered && `, ${b.pieces - b.ordered} more for what is usually lost`}
                {b.has !== null && `, ${b.has} free on the Shelf`}, for {b.jobs}.
                {b.has !== null &&
                  b.buy > b.pieces - b.has &&
                  b.buy > 0 &&
                  ` ${b.buy - Math.max(0, b.pieces - b.has)} more, as some of each lot are turned away.`}
              </span>
            </span>
            <span className="font-semibold whitespace-nowrap">{b.buy === 0 ? "enough" : b.buy}</span>
          </li>
        ))}
      </ul>
      {list.blanks.some((b) => b.has === null) && (
        <p className="tag">
          Of some of these no lot is listed: take off those that lie here, or{" "}
          <Link className="text" to="/shelf?blanks=all" preventScrollReset>
            put them among the blanks
          </Link>
          .
        </p>
      )}
      {there.length > 0 && (
        <p className="text-muted">Enough is there of {there.map((p) => `${p.name} (${p.takes})`).join(", ")}.</p>
      )}
      {list.left.map((l) => (
        <p key={l.title} className="text-waiting">
          {l.title}: {l.why}
        </p>
      ))}
    </section>
  );
}

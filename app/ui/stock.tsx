/** Blanks by lot, with what was turned away and why; cans that are nearly empty and what they would still do. */
import { Link } from "react-router";
import { SUBSTRATES } from "../core/catalogue/substrates";
import { LotForm, RejectForm } from "../core/records/forms";
import { typedMoney } from "../core/units/money";
import { showLength, type UnitSystem } from "../core/units/show";
import type { Leftover, LotRow } from "../views/stock";
import { Swatch } from "./kit/bits";
import { AskButton, AskForm, AskPick, AskText } from "./kit/ask";
import { ActButton, TextField } from "./kit/field";
import { Fold } from "./kit/fold";
import { When } from "./kit/when";
import { useCurrency } from "./kit/ways";

function Lot({ r, units }: { r: LotRow; units: UnitSystem }) {
  const { lot } = r;
  const currency = useCurrency();
  const e = { intent: "lot", id: lot.id };
  const len = (name: "w" | "h" | "t", label: string) => (
    <TextField
      action="/workshop"
      name={name}
      label={label}
      value={showLength(lot[name], units)}
      extra={e}
      inputMode="decimal"
    />
  );
  return (
    <li data-lot={lot.id} data-left={r.left} data-free={r.free} className="border-t border-line py-3">
      <p className="flex flex-wrap items-baseline justify-between gap-x-4">
        <span>
          <strong>{lot.name}</strong> <span className="text-muted">{r.what}</span>
        </span>
        <span className="font-semibold">
          {r.left} left
          {r.reserved > 0 && (
            <span className={r.free < 0 ? "text-wrong" : ""}>
              , {r.free < 0 ? `${-r.free} too few for open jobs` : `${r.free} free`}
            </span>
          )}
        </span>
      </p>
      <p className="text-small text-muted">
        {lot.came} came on <When at={lot.cameOn} />
        {r.each && `, ${r.each} each`}
        {r.turnedAway > 0 && `; ${r.turnedAway} turned away (${r.reasons}), ${r.yield ?? ""} good`}
        {r.forTen !== null && `: for 10 good ones order ${r.forTen}`}
        {r.used > 0 && `; ${r.used} used${r.usedBy ? `: ${r.usedBy}` : ""}`}
        {r.reserved > 0 && `; ${r.reserved} wanted by ${r.reservedBy}`}.{lot.note && ` ${lot.note}`}
      </p>
      <div className="mt-1 flex flex-wrap gap-x-6">
        <Fold summary="Turn some away" className="">
          <AskForm
            form={RejectForm}
            intent="lot-reject"
            action="/workshop"
            extra={{ id: lot.id }}
            start={{ n: "1", why: "" }}
          >
            <AskText name="n" label="How many" inputMode="numeric" className="w-24" />
            <AskText name="why" label="Why" placeholder="knot, warp, chip" />
            <AskButton>Turn them away</AskButton>
          </AskForm>
          <ul>
            {(lot.rejects ?? []).map((x, i) => (
              <li key={i} className="flex items-center gap-3 text-small">
                <When at={x.at} /> {x.n} × {x.why}
                <ActButton
                  action="/workshop"
                  className="link-act"
                  label={`Take back ${x.n} turned away: ${x.why}`}
                  act={{ intent: "lot-reject-forget", id: lot.id, at: x.at, n: String(x.n), why: x.why }}
                >
                  Take back
                </ActButton>
              </li>
            ))}
          </ul>
        </Fold>
        <Fold summary="Change" className="" inside="my-3 grid fields-32 items-start gap-3">
          <TextField action="/workshop" name="name" label="Called" value={lot.name} extra={e} />
          {len("w", "Wide")}
          {len("h", "High")}
          {len("t", "Thick")}
          <TextField
            action="/workshop"
            name="came"
            label="Came"
            value={String(lot.came)}
            extra={e}
            inputMode="numeric"
          />
          <TextField
            action="/workshop"
            name="otherwise"
            label="Used otherwise"
            value={lot.otherwise === undefined ? "" : String(lot.otherwise)}
            hint="besides what jobs have begun with"
            extra={e}
            inputMode="numeric"
          />
          <TextField
            action="/workshop"
            name="eachMinor"
            label={`One, ${currency}`}
            value={lot.eachMinor === undefined ? "" : typedMoney(lot.eachMinor, currency)}
            from={lot.eachMinor === undefined ? "not said" : undefined}
            extra={e}
            inputMode="decimal"
          />
          <TextField
            action="/workshop"
            name="note"
            label="Where from, what to ask for"
            value={lot.note}
            extra={e}
            area
          />
          <ActButton
            action="/workshop"
            className="link-act self-end"
            act={{ intent: "lot-remove", id: lot.id }}
            label={`Take this lot out: ${lot.name}`}
          >
            Take this lot out
          </ActButton>
        </Fold>
      </div>
    </li>
  );
}

export function Stock({ rows, left, units }: { rows: LotRow[]; left: Leftover[]; units: UnitSystem }) {
  const currency = useCurrency();
  return (
    <section aria-labelledby="bl" className="flex min-w-0 flex-col gap-4 max-lg:order-first">
      <div className="flex flex-wrap items-baseline justify-between gap-4">
        <h2 id="bl">Blanks that lie here</h2>
        <Link className="text alone" to="/shelf" preventScrollReset>
          Close
        </Link>
      </div>
      {!rows.length && (
        <p className="text-muted">
          None is counted yet. With its lot a blank has a price, jobs take theirs from it with the first tap, and what
          is turned away says how many to order next time.
        </p>
      )}
      <ul className="border-b border-line empty:hidden">
        {rows.map((r) => (
          <Lot key={r.lot.id} r={r} units={units} />
        ))}
      </ul>
      <Fold summary="A further lot" open={!rows.length} className="">
        <AskForm
          form={LotForm}
          intent="lot-add"
          action="/workshop"
          start={{ name: "", substrate: SUBSTRATES[0].id, w: "", h: "", t: "", diameter: "", came: "", each: "" }}
          className="grid fields-32 items-start gap-3"
        >
          <AskText name="name" label="Called" placeholder="beech markers, spring lot" className="col-span-full" />
          <AskPick
            name="substrate"
            label="Made of"
            options={SUBSTRATES.map((s) => ({ value: s.id, label: s.name }))}
            className="col-span-full"
          />
          <AskText name="w" label="Wide" inputMode="decimal" hint={units === "inch" ? "in" : "mm"} />
          <AskText name="h" label="High" inputMode="decimal" hint={units === "inch" ? "in" : "mm"} />
          <AskText name="t" label="Thick" inputMode="decimal" hint={units === "inch" ? "in" : "mm"} />
          <AskText name="diameter" label="Across, if round" inputMode="decimal" />
          <AskText name="came" label="How many came" inputMode="numeric" />
          <AskText name="each" label={`One costs, ${currency}`} inputMode="decimal" />
          <AskButton>Put them here</AskButton>
        </AskForm>
      </Fold>
      <section aria-labelledby="lo">
        <h3 id="lo">Nearly empty</h3>
        {!left.length && <p className="text-muted">No can on this Shelf is nearly empty.</p>}
        <ul>
          {left.map((x) => (
            <li key={x.id} data-leftover={x.id} className="flex items-center gap-3 border-t border-line py-1.5">
              <Swatch colour={x.colour} />
              <span>
                <Link className="text" to={`/shelf?product=${x.id}`} preventScrollReset>
                  {x.name}
                </Link>
                : {x.left}
                {x.covers !== null && `, ${x.covers}: enough for a small job or a touch-up`}
              </span>
            </li>
          ))}
        </ul>
        <p className="tag mt-1">
          What is too little to use is hazardous waste where you live as like as not: let it dry out in the open air, or
          take it where the rules there say.
        </p>
      </section>
    </section>
  );
}

/** What an hour of hands, of each laser and of each oven is worth, what small things a piece takes, what is to stay of a price. */
import type { Machine } from "../../core/records/machine";
import type { Shop } from "../../core/records/shop";
import { typedMoney } from "../../core/units/money";
import { TextField } from "../kit/field";

export function MoneyPart({ shop, machines }: { shop: Shop; machines: Machine[] }) {
  const { rates, currency } = shop;
  const amount = (minor: number | undefined): string => (minor === undefined ? "" : typedMoney(minor, currency));
  const from = (minor: number | undefined): string | undefined => (minor === undefined ? "not said" : undefined);
  const rate = { intent: "rate" };
  const ovens = (shop.gear ?? []).filter((g) => g.kind === "oven");
  return (
    <div className="flex max-w-3xl flex-col gap-5">
      <p className="text-muted">
        All amounts in {currency}. What nobody has said stays unknown, and a sum that lacks it says “at least”. What a
        paint costs stands with it on the Shelf, what a blank costs with its lot.
      </p>
      <div className="grid fields-40 items-start gap-3">
        <TextField
          name="handsMinor"
          label="An hour of hands"
          value={amount(rates?.handsMinor)}
          from={from(rates?.handsMinor)}
          inputMode="decimal"
          extra={rate}
          hint="waiting costs nothing; somebody beside the laser does"
        />
        <TextField
          name="pieceMinor"
          label="Small things, a piece"
          value={amount(rates?.pieceMinor)}
          from={from(rates?.pieceMinor)}
          inputMode="decimal"
          extra={rate}
          hint="sandpaper, gloves, tips, wipes"
        />
        <TextField
          name="margin"
          label="Stays of a price"
          value={rates?.margin === undefined ? "" : `${Math.round(rates.margin * 1000) / 10} %`}
          from={from(rates?.margin)}
          inputMode="decimal"
          extra={rate}
          hint="share of the price, not of the cost"
        />
      </div>
      {(machines.length > 0 || ovens.length > 0) && (
        <fieldset>
          <legend className="mb-1 font-semibold">
            An hour of running: power, wear, what it cost spread over its life
          </legend>
          <div className="grid fields-40 items-start gap-3">
            {machines.map((m) => (
              <TextField
                key={m.id}
                name="minorPerHour"
                label={m.name}
                value={amount(m.minorPerHour)}
                from={from(m.minorPerHour)}
                inputMode="decimal"
                extra={{ intent: "machine", id: m.id }}
              />
            ))}
            {ovens.map((g) => (
              <TextField
                key={g.id}
                name="minorPerHour"
                label={g.name}
                value={amount(g.minorPerHour)}
                from={from(g.minorPerHour)}
                inputMode="decimal"
                extra={{ intent: "gear", id: g.id }}
              />
            ))}
          </div>
        </fieldset>
      )}
    </div>
  );
}

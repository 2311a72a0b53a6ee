/** A product's film, drying and cans, editable; what is left empty is its finish's default and says so. */
import { FINISHES, finishNamed } from "../core/catalogue/finishes";
import { paint, type Figure } from "../core/catalogue/properties";
import { PIGMENTS, type Pigment } from "../core/records/ids";
import type { DryTimes, Product } from "../core/records/product";
import { said } from "../core/units/said";
import { showMinutes, showMl, showShare, showUm, type UnitSystem } from "../core/units/show";
import { Head, Swatch } from "./kit/bits";
import { hideFromSwatch } from "../core/models/film/swatch";
import { ActButton, PickField, TextField, TickField } from "./kit/field";
import { AskButton, AskForm, AskPick, AskText } from "./kit/ask";
import { SEEN_WHEN, SwatchForm } from "../core/records/forms";
import { typedMoney } from "../core/units/money";
import { useCurrency } from "./kit/ways";
import { WhenField } from "./kit/when-field";
import { Fold } from "./kit/fold";
import { DARK_PAPER } from "./inks";

const TIME_WORDS: [keyof DryTimes, string][] = [
  ["flash", "Flashes off"],
  ["touch", "Touch dry"],
  ["recoat", "Next coat from"],
  ["closes", "Window shuts"],
  ["reopens", "Window reopens"],
  ["maskable", "Hard enough to mask or paint"],
  ["sandable", "Sandable"],
  ["laserSafe", "Laser-safe"],
  ["cured", "Cured"],
];
const from = (x: Figure, show: (n: number | null) => string): string =>
  x.from === "default" ? `default${x.value === null ? "" : `: ${show(x.value)}`}` : x.from;

/** A temperature, in what the screen speaks of; it is stored in °C. */
function TempField({
  name,
  label,
  of,
  value,
  id,
  units,
}: {
  name: string;
  label: string;
  of: Figure;
  value: number | null | undefined;
  id: string;
  units: UnitSystem;
}) {
  const shown = (c: number): number => Math.round((units === "inch" ? c * 1.8 + 32 : c) * 10) / 10;
  return (
    <TextField
      action="/shelf"
      name={name}
      label={`${label} ${units === "inch" ? "°F" : "°C"}`}
      from={from(of, (c) => (c === null ? "" : String(shown(c))))}
      value={value === undefined || value === null ? "" : String(shown(value))}
      extra={{ id, units }}
    />
  );
}

/** What colours a paint: it decides how much of it hides, and what a beam makes of it. */
const PIGMENT_WORDS: Record<Pigment, string> = {
  black: "black",
  white: "titanium white",
  pale: "a pale tint",
  yellow: "yellow",
  red: "red or orange",
  earth: "an earth: rust, ochre, brown",
  mid: "a middle tone",
  metallic: "metallic",
};

/** Every figure of one product, with where each came from, and its cans; on the Shelf or where a job uses it. */
export function ProductEditor({ p, units }: { p: Product; units: UnitSystem }) {
  const f = paint(p);
  const id = { id: p.id };
  const currency = useCurrency();
  const packed = f.finish.by === "powder" ? "g" : f.mask ? "m²" : "ml";
  return (
    <>
      <div className="grid grid-cols-2 gap-3 max-lg:grid-cols-1">
        <TextField action="/shelf" name="name" label="Name" value={p.name} extra={id} />
        <PickField
          action="/shelf"
          name="finish"
          label="Finish"
          value={p.finish}
          extra={id}
          options={FINISHES.map((x) => ({ value: x.id, label: said(x.name, units) }))}
        />
        <TextField action="/shelf" name="colour" label="Colour" colour value={p.colour} extra={id} />
        <PickField
          action="/shelf"
          name="pigment"
          label="Pigment"
          from={p.pigment ? p.origin : `by its colour: ${PIGMENT_WORDS[f.pigment.value]}`}
          value={p.pigment ?? ""}
          extra={id}
          options={[
            { value: "", label: "as its colour says" },
            ...PIGMENTS.map((value) => ({ value, label: PIGMENT_WORDS[value] })),
          ]}
        />
        <PickField
          action="/shelf"
          name="sheen"
          label="Sheen"
          value={p.sheen ?? ""}
          extra={id}
          options={[
            ["", "not known"],
            ["gloss", "gloss"],
            ["satin", "satin"],
            ["flat", "flat"],
          ].map(([value, label]) => ({ value, label }))}
        />
        <PickField
          action="/shelf"
          name="base"
          label="Thinned with"
          from={p.base === null ? `default: ${f.base}` : p.origin}
          value={p.base ?? ""}
          extra={id}
          options={[
            ["", "as its finish"],
            ["solvent", "solvent"],
            ["water", "water"],
            ["alcohol", "alcohol"],
            ["resin", "resin"],
          ].map(([value, label]) => ({ value, label }))}
        />
        <PickField
          action="/shelf"
          name="chlorinated"
          label="Holds chlorine (vinyl, PVC)?"
          value={p.chlorinated === null ? "" : String(p.chlorinated)}
          extra={id}
          options={[
            ["", "not known: read its sheet"],
            ["false", "no"],
            ["true", "yes"],
          ].map(([value, label]) => ({ value, label }))}
        />
        <PickField
          action="/shelf"
          name="origin"
          label="Figures typed in here come from"
          value={p.origin}
          extra={id}
          options={[
            ["data sheet", "its data sheet"],
            ["measured here", "measuring here"],
          ].map(([value, label]) => ({ value, label }))}
        />
        <TickField
          action="/shelf"
          name="foodRated"
          label="Rated for food contact by its maker"
          value={p.foodRated}
          extra={id}
          className="self-end"
        />
      </div>
      {f.powder && (
        <>
          <h3>Powder</h3>
          <div className="grid fields-32 gap-3">
            <TempField name="flowC" label="Flows at" of={f.powder.flowC} value={p.flowC} id={p.id} units={units} />
            <TempField name="holdC" label="Cures at" of={f.powder.holdC} value={p.holdC} id={p.id} units={units} />
            <TextField
              action="/shelf"
              name="holdMin"
              label="Held, min"
              from={from(f.powder.holdMin, (n) => `${n}`)}
              value={p.holdMin === undefined ? "" : String(p.holdMin)}
              extra={id}
            />
            <TextField
              action="/shelf"
              name="packing"
              label="Packed in, share"
              from={from(f.powder.packing, showShare)}
              value={p.packing === undefined ? "" : `${Math.round(p.packing * 1000) / 10} %`}
              extra={id}
            />
            <TextField
              action="/shelf"
              name="density"
              label="Fused, mg/mm³"
              from={from(f.powder.density, (n) => `${n}`)}
              value={p.density === undefined ? "" : String(p.density)}
              extra={id}
            />
          </div>
        </>
      )}
      {f.mask && (
        <TempField name="limitC" label="Fails past" of={f.mask.limitC} value={p.limitC} id={p.id} units={units} />
      )}
      <h3>Film</h3>
      <div className="grid fields-32 gap-3">
        <TextField
          action="/shelf"
          name="coatUm"
          label="A coat, dry µm"
          from={from(f.coatUm, showUm)}
          value={p.coatUm === null ? "" : String(p.coatUm)}
          extra={id}
          inputMode="decimal"
        />
        <TextField
          action="/shelf"
          name="hideUm"
          label="Hides at µm"
          from={from(f.hideUm, showUm)}
          value={p.hideUm === null ? "" : String(p.hideUm)}
          extra={id}
          inputMode="decimal"
        />
        <TextField
          action="/shelf"
          name="solids"
          label="Volume solids"
          from={from(f.solids, showShare)}
          value={p.solids === null ? "" : `${Math.round(p.solids * 1000) / 10} %`}
          extra={id}
        />
        <TempField name="minC" label="Dries from" of={f.minC} value={p.minC} id={p.id} units={units} />
      </div>
      <h3>{said("Drying at 20 °C, 50 % humidity, one coat", units)}</h3>
      <div className="grid fields-40 items-end gap-3">
        {TIME_WORDS.map(([k, word]) => (
          <TextField
            action="/shelf"
            key={k}
            name={k}
            label={word}
            from={from(f.times[k], showMinutes)}
            value={p.times[k] === null ? "" : showMinutes(p.times[k])}
            extra={{ ...id, intent: "time" }}
          />
        ))}
      </div>
      {!f.mask && <Swatches p={p} coatUm={f.coatUm.value} />}
      <h3>What it costs</h3>
      <div className="grid fields-40 items-start gap-3">
        <TextField
          action="/shelf"
          name="priceMinor"
          label={`A pack, ${currency}`}
          from={p.priceMinor === undefined ? "not said" : undefined}
          value={p.priceMinor === undefined ? "" : typedMoney(p.priceMinor, currency)}
          extra={{ ...id, intent: "price" }}
          inputMode="decimal"
        />
        <TextField
          action="/shelf"
          name="pack"
          label={`A pack holds, ${packed}`}
          from={p.pack !== undefined ? undefined : packed === "ml" ? "as its first can" : "not said"}
          value={p.pack === undefined ? "" : String(p.pack)}
          extra={id}
          inputMode="decimal"
        />
      </div>
      <Head
        right={
          <ActButton action="/shelf" className="link-act" act={{ intent: "can-add", id: p.id }}>
            Add a can
          </ActButton>
        }
      >
        Cans
      </Head>
      {!p.cans.length && (
        <p className="text-muted">No can is listed, so plans say what to buy and cannot say what is left.</p>
      )}
      {p.cans.map((c) => {
        const e = { ...id, intent: "can", can: c.id };
        return (
          <fieldset
            key={c.id}
            className="grid fields-32 items-start gap-3 border-t border-line pt-2 max-lg:grid-cols-2"
          >
            <legend className="sr-only">{c.label}</legend>
            <TextField action="/shelf" name="label" label="Mark" value={c.label} extra={e} />
            <TextField action="/shelf" name="fullMl" label="Full" value={showMl(c.fullMl)} extra={e} />
            <TextField
              action="/shelf"
              name="leftMl"
              label="Left"
              value={c.leftMl === null ? "" : `${Math.round(c.leftMl * 10) / 10} ml`}
              from={c.leftMl === null ? "unknown" : undefined}
              extra={e}
            />
            <WhenField
              action="/shelf"
              name="openedOn"
              label="Opened"
              kind="day"

              value={c.openedOn ?? ""}
              extra={e}
            />
            <TextField
              action="/shelf"
              name="fullG"
              label="Weighs full, g"
              value={c.fullG === null ? "" : String(c.fullG)}
              extra={e}
            />
            <TextField
              action="/shelf"
              name="nowG"
              label="Weighs now, g"
              value={c.nowG === null ? "" : String(c.nowG)}
              extra={e}
            />
            <TextField
              action="/shelf"
              name="emptyG"
              label="Weighs empty, g"
              value={c.emptyG === null ? "" : String(c.emptyG)}
              extra={e}
            />
            <div className="flex items-end gap-2">
              <TextField action="/shelf" name="lot" label="Lot" value={c.lot} extra={e} className="flex-1" />
              <ActButton
                action="/shelf"
                className="link-act"
                act={{ intent: "can-remove", id: p.id, can: c.id }}
                label={`Remove ${c.label}`}
              >
                Remove
              </ActButton>
            </div>
          </fieldset>
        );
      })}
      <TextField action="/shelf" name="note" label="Notes" value={p.note} extra={id} area />
    </>
  );
}

/** Swatches laid here: over what, as seen, wet, dry or after clear; each says at what thickness the paint hides. */
function Swatches({ p, coatUm }: { p: Product; coatUm: number | null }) {
  return (
    <>
      <h3>Swatches</h3>
      {!p.swatches?.length && <p className="text-muted">None laid yet: how it hides is a default.</p>}
      <ul>
        {(p.swatches ?? []).map((s) => {
          const um = s.um ?? (coatUm === null ? null : coatUm * s.coats);
          const hides = um === null || s.when === "wet" ? null : hideFromSwatch(p.colour, s.over, s.seen, um);
          return (
            <li key={s.id} data-swatch={s.id} className="flex flex-wrap items-center gap-2 border-t border-line py-1">
              <Swatch colour={s.over} label={`over ${s.over}`} />
              <Swatch colour={s.seen} label={`seen ${s.seen}`} />
              <span className="flex-1">
                {s.coats} {s.coats === 1 ? "coat" : "coats"}
                {um !== null && `, ${showUm(um)}`}, {s.when}
                {s.note && `: ${s.note}`}
                {hides !== null
                  ? `; by it hides at ${showUm(hides)}`
                  : s.when === "wet"
                    ? ""
                    : "; says nothing of hiding"}
              </span>
              {hides !== null && (
                <ActButton
                  action="/shelf"
                  className="link-act"
                  act={{ intent: "set", id: p.id, field: "hideUm", value: String(Math.round(hides * 10) / 10) }}
                >
                  Go by it
                </ActButton>
              )}
              <ActButton
                action="/shelf"
                className="link-act"
                act={{ intent: "swatch-remove", id: p.id, swatch: s.id }}
                label={`Remove the swatch over ${s.over}`}
              >
                Remove
              </ActButton>
            </li>
          );
        })}
      </ul>
      <AskForm
        form={SwatchForm}
        intent="swatch-add"
        action="/shelf"
        extra={{ id: p.id }}
        start={{ over: DARK_PAPER, seen: p.colour, coats: "1", when: "dry" }}
      >
        <AskText name="over" label="Over" type="color" />
        <AskText name="seen" label="As seen" type="color" />
        <AskText name="coats" label="Coats" inputMode="numeric" className="w-20" />
        <AskPick name="when" label="When" options={SEEN_WHEN.map((w) => ({ value: w, label: w }))} />
        <AskButton>Keep this swatch</AskButton>
      </AskForm>
    </>
  );
}

/** The products a page speaks of, each to be opened in place. */
export function ProductList({ products, title, units }: { products: Product[]; title: string; units: UnitSystem }) {
  if (!products.length) return null;
  return (
    <section aria-label={title} className="mt-4">
      <h3>{title}</h3>
      {products.map((p) => (
        <Fold
          key={p.id}
          summary={
            <>
              <span className="inline-flex items-center gap-2 align-middle">
                <Swatch colour={p.colour} />
                {p.name}
              </span>{" "}
              <span className="tag">
                {said(finishNamed(p.finish).name, units)}
                {p.cans.length ? `, ${p.cans.length} ${p.cans.length === 1 ? "can" : "cans"}` : ", no can listed"}
              </span>
            </>
          }
        >
          <ProductEditor p={p} units={units} />
        </Fold>
      ))}
    </section>
  );
}

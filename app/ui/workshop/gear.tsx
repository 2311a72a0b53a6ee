/** Ovens, guns, jigs, rotaries: what is known of each, and a further one. */
import { GearForm, PocketsForm } from "../../core/records/forms";
import { GEAR_WORDS, type Gear, type Shop } from "../../core/records/shop";
import { showLength, showTemp, type UnitSystem } from "../../core/units/show";
import { AskButton, AskForm, AskPick, AskText } from "../kit/ask";
import { ActButton, TextField, TickField } from "../kit/field";

export function Gears({ shop }: { shop: Shop }) {
  return (
    <>
      {!shop.gear?.length && (
        <p className="text-muted">
          None yet. Oven loads, and how closely a piece comes back, are planned from what stands here.
        </p>
      )}
      {(shop.gear ?? []).map((g) => (
        <GearPart key={g.id} g={g} units={shop.units} />
      ))}
      <AskForm form={GearForm} intent="gear-add" action="/workshop" start={{ kind: "oven", name: "" }}>
        <AskPick
          name="kind"
          label="What"
          options={Object.entries(GEAR_WORDS).map(([value, label]) => ({ value, label }))}
        />
        <AskText name="name" label="Called" placeholder="as you call it" />
        <AskButton>Add it</AskButton>
      </AskForm>
    </>
  );
}

/** One oven, gun, jig or rotary with what is known of it. */
function GearPart({ g, units }: { g: Gear; units: UnitSystem }) {
  const e = { intent: "gear", id: g.id };
  const mm = (x: number | null): string => (x === null ? "" : showLength(x, units));
  const len = (name: "trayW" | "trayH" | "errorMm" | "gripMm", label: string) => (
    <TextField
      name={name}
      label={label}
      value={mm(g[name])}
      from={g[name] === null ? "unknown" : undefined}
      extra={e}
    />
  );
  return (
    <fieldset data-gear={g.id} className="grid min-w-0 fields-40 items-end gap-3 border-t border-line pt-2">
      <legend className="font-semibold">{GEAR_WORDS[g.kind]}</legend>
      <TextField name="name" label="Called" value={g.name} extra={e} />
      {(g.kind === "oven" || g.kind === "gun") && (
        <TextField
          name="maxC"
          label="Hottest"
          value={g.maxC === null ? "" : showTemp(g.maxC, units)}
          from={g.maxC === null ? "unknown" : undefined}
          extra={e}
        />
      )}
      {g.kind === "oven" && (
        <>
          {len("trayW", "Tray wide")}
          {len("trayH", "Tray deep")}
          <TickField
            name="notForFood"
            label="Never used for food again, and labelled so"
            value={g.notForFood === true}
            extra={e}
            className="col-span-2"
          />
        </>
      )}
      {g.kind === "gun" && <TickField name="lowFan" label="Has a low fan" value={g.lowFan === true} extra={e} />}
      {g.kind === "jig" && len("errorMm", "Brings a piece back within")}
      {g.kind === "jig" && <PocketsPart g={g} units={units} />}
      {g.kind === "rotary" && len("gripMm", "Grips up to")}
      <ActButton className="link-act self-end" act={{ intent: "gear-remove", id: g.id }}>
        Take {g.name} out
      </ActButton>
    </fieldset>
  );
}

const POCKETS = [
  ["across", "Pockets across"],
  ["down", "Pockets down"],
  ["w", "A pocket wide"],
  ["h", "A pocket high"],
  ["gap", "Between two"],
  ["x", "First one from the left of the bed"],
  ["y", "First one from its top"],
] as const;
/** The pockets of a jig: asked for once, then each figure by itself. */
function PocketsPart({ g, units }: { g: Gear; units: UnitSystem }) {
  const { pockets } = g;
  if (!pockets)
    return (
      <details className="col-span-full">
        <summary className="link-act w-fit cursor-pointer">Tell its pockets</summary>
        <p className="my-2 text-muted">
          Where a job is put back by this jig, its pieces lie in these pockets: loads, minutes and files follow.
        </p>
        <AskForm
          form={PocketsForm}
          intent="pockets-set"
          action="/workshop"
          extra={{ id: g.id }}
          start={{ across: "", down: "", w: "", h: "", gap: showLength(5, units), x: "", y: "" }}
          className="grid fields-40 items-start gap-3"
        >
          {POCKETS.map(([name, label]) => (
            <AskText key={name} name={name} label={label} />
          ))}
          <AskButton>Keep these pockets</AskButton>
        </AskForm>
      </details>
    );
  const show = (name: (typeof POCKETS)[number][0]): string =>
    name === "across" || name === "down" ? String(pockets[name]) : showLength(pockets[name], units);
  return (
    <>
      {POCKETS.map(([name, label]) => (
        <TextField key={name} name={name} label={label} value={show(name)} extra={{ intent: "pockets", id: g.id }} />
      ))}
      <ActButton className="link-act self-end" act={{ intent: "pockets-off", id: g.id }}>
        {g.name} has no pockets
      </ActButton>
    </>
  );
}

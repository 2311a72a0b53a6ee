/** Shields for colours that are sprayed beside one another: looked at, and saved with the jig that holds them. */
import { useState } from "react";
import { HAND_REACH_MM } from "../../core/explain/shields";
import type { World } from "../../core/records/world";
import { listWords, plural } from "../../core/units/show";
import { said } from "../../core/units/said";
import type { UnitSystem } from "../../core/units/show";
import { writeShields } from "../../workers/packets";
import type { LaidShields } from "../../workers/packets-api";
import type { Sheet } from "../../io/export/vectors";
import { saveFile } from "../files";
import { SheetView } from "./sheet";

/** What stays of a sheet shown as what it is: card, and not the line that is cut. */
const filled = (s: Sheet): Sheet => ({
  ...s,
  layers: s.layers.map((l) => ({ ...l, layer: { ...l.layer, how: "fill" } })),
});

export function Shields({
  laid,
  ask,
  title,
  units,
}: {
  laid: LaidShields;
  ask: { world: World; now: number };
  title: string;
  units: UnitSystem;
}) {
  const [told, setTold] = useState<string | null>(null);
  const { set } = laid;
  const save = async (): Promise<void> => {
    setTold("Writing the shields…");
    try {
      saveFile(`${title}.shields.zip`, await writeShields(ask), "application/zip");
      setTold(null);
    } catch (e) {
      setTold(`${(e as Error).message} Nothing was saved.`);
    }
  };
  return (
    <section aria-labelledby="sh" data-shields={set.shields.length} className="border-t-2 border-strong pt-3">
      <h2 id="sh">Shields, colour by colour</h2>
      <p className="text-muted">
        {said(
          `Sheets of ${set.w} × ${set.h} mm, cut from card or film, sit on two pins in one jig with the piece. What must ` +
            `stay is covered ${Math.round(set.errorMm * 100) / 100} mm beyond its edge, as far as the piece may lie off. Spray ` +
            `reaches about ${set.reachMm} mm under a loose edge; a cover laid by hand reaches ${HAND_REACH_MM} mm (defaults).`,
          units,
        )}
      </p>
      <ul className="mt-3 grid grid-cols-2 gap-6 lg:grid-cols-4">
        {set.shields.map((s, i) => (
          <li key={s.step} data-shield={i + 1} className="min-w-0">
            <h3>
              {i + 1}. Opens {listWords(s.opens)}
            </h3>
            <SheetView
              sheet={filled(s.islands && laid.sheets[i].covers ? laid.sheets[i].covers : laid.sheets[i].sheet)}
              lit={null}
              label={`Shield ${i + 1}: opens ${listWords(s.opens)}`}
            />
            <p className="text-small">
              {s.covers.length ? `Keeps ${listWords(s.covers)}. ` : ""}
              {s.islands ? `${plural(s.islands, "part")} would fall out of a sheet: lay the covers by hand. ` : ""}
              {plural(s.weights, "weight")}, counted off again.
            </p>
          </li>
        ))}
        <li className="min-w-0">
          <h3>The jig</h3>
          <SheetView sheet={filled(laid.jig)} lit={null} label="Jig: a pocket for the piece, two pins" />
        </li>
      </ul>
      <p className="screen-only mt-3 flex flex-wrap items-center gap-3">
        <button type="button" className="btn" onClick={() => void save()}>
          Save the shields
        </button>
        <span role="status" className="text-waiting">
          {told}
        </span>
      </p>
    </section>
  );
}

/** What the pieces lie in on the bed: in rows by a stop, or in the pockets of a jig, of which some stay empty. */
import { RETURN_MM } from "../../core/geometry/registration";
import { plural } from "../../core/units/show";
import { said } from "../../core/units/said";
import type { filesView } from "../../views/files";
import { ActButton, PickField } from "../kit/field";

/** pockets that are drawn; of a larger tray the first ones are */
const DRAWN = 200;

type View = ReturnType<typeof filesView>;
export function OnTheBed({ d }: { d: View }) {
  const action = `/jobs/${d.job.id}/artwork`;
  const { tray } = d;
  return (
    <div>
      <h3>What they lie in</h3>
      <PickField
        name="placedBy"
        label="Put by"
        value={d.placedBy}
        extra={{ intent: "choice" }}
        action={action}
        options={[
          ...Object.entries(RETURN_MM).map(([value, r]) => ({ value, label: r.name })),
          ...d.jigs.map((j) => ({ value: j.id, label: j.name })),
        ]}
      />
      {!tray && (
        <p className="mt-1 text-muted">
          In rows, with room for clamps. A jig from the Workshop with pockets of its own lays them as its pockets lie.
        </p>
      )}
      {tray?.keptOut && <p className="mt-1 text-wrong">{said(tray.keptOut, d.units)}</p>}
      {tray && (
        <>
          <p className="mt-1">
            {tray.perLoad
              ? `${plural(tray.loads, "load")} of ${tray.perLoad} for ${plural(tray.pieces, "piece")}.`
              : "No load lies in it."}{" "}
            Press a pocket to leave it empty; with its number: the piece of the first load.
          </p>
          <div
            role="group"
            aria-label={`Pockets of ${tray.name}`}
            data-tray={tray.loads}
            className="mt-2 grid max-h-80 gap-1 overflow-auto p-1"
            style={{ gridTemplateColumns: `repeat(${tray.across}, minmax(2.25rem, 1fr))` }}
          >
            {tray.pockets.slice(0, DRAWN).map((p) => (
              <ActButton
                key={p.n}
                act={{ intent: "choice", field: `pocket:${p.n}`, value: String(!p.empty) }}
                action={action}
                pressed={!p.empty}
                label={p.empty ? `empty: pocket ${p.n}` : `${p.piece ?? "–"} in pocket ${p.n}`}
                className={`btn px-0 ${p.empty ? "border-dashed" : ""}`}
              >
                {p.empty ? "empty" : (p.piece ?? "–")}
              </ActButton>
            ))}
          </div>
          {tray.pockets.length > DRAWN && (
            <p className="tag">
              The first {DRAWN} of {tray.pockets.length} pockets.
            </p>
          )}
        </>
      )}
    </div>
  );
}

/** The colours beneath the picture: one all over, bands that run into one another, or areas that a drawing says. */
import type { Job } from "../../core/records/job";
import type { Thin } from "../../core/geometry/areas";
import { said } from "../../core/units/said";
import { showLength, type UnitSystem } from "../../core/units/show";
import { ActButton, TextField } from "../kit/field";

export function AreasFields({
  job,
  units,
  thin,
  along,
}: {
  job: Job;
  units: UnitSystem;
  thin: Thin[];
  along: number | null;
}) {
  const { areas, zones } = job;
  const len = (mm: number): string => showLength(Math.round(mm * 100) / 100, units);
  const kind = areas?.over ? "stack" : (areas?.kind ?? "drawn");
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap gap-2" role="group" aria-label="Colours beneath">
        <ActButton pressed={kind === "whole"} act={{ intent: "areas", kind: "whole" }}>
          One colour all over
        </ActButton>
        <ActButton pressed={kind === "bands"} act={{ intent: "areas", kind: "bands" }}>
          Blended bands
        </ActButton>
        <ActButton pressed={kind === "stack"} act={{ intent: "areas", kind: "stack" }}>
          Over one another
        </ActButton>
      </div>
      {kind === "drawn" && (
        <p className="text-muted">
          As the drawing says it: {zones.length} {zones.length === 1 ? "area" : "areas"}. Another drawing is taken in
          under Artwork.
        </p>
      )}
      <ul className="divide-y divide-line border-y border-line">
        {zones.map((z) => {
          const strip = areas?.strips?.find((s) => s.zone === z.id);
          return (
            <li key={z.id} data-zone={z.id} className="flex flex-wrap items-end gap-3 py-2">
              <TextField
                name="wanted"
                label={`Colour of ${z.name}`}
                hideLabel
                colour
                value={z.wanted ?? z.colour}
                extra={{ intent: "zone", zone: z.id }}
                className="w-12"
              />
              <TextField
                name="name"
                label="Area"
                value={z.name}
                extra={{ intent: "zone", zone: z.id }}
                className="min-w-28 flex-1"
              />
              {kind === "stack" && zones.length > 1 && (
                <ActButton
                  className="btn btn-quiet"
                  label={`Take away ${z.name}`}
                  act={{ intent: "stack-remove", zone: z.id, field: "", value: "" }}
                >
                  Take away
                </ActButton>
              )}
              {strip && (
                <>
                  <TextField
                    name="from"
                    label="From"
                    value={len(strip.from)}
                    extra={{ intent: "bands", zone: z.id }}
                    className="w-24"
                  />
                  <TextField
                    name="to"
                    label="To"
                    value={len(strip.to)}
                    extra={{ intent: "bands", zone: z.id }}
                    className="w-24"
                  />
                  <ActButton
                    className="btn btn-quiet"
                    label={`Take away ${z.name}`}
                    act={{ intent: "band-remove", zone: z.id, field: "", value: "" }}
                  >
                    Take away
                  </ActButton>
                </>
              )}
            </li>
          );
        })}
      </ul>
      {kind === "stack" && (
        <>
          <p className="text-muted">
            Each lies over the whole face, the lightest at the bottom, the dark top over all. The beam digs to each by
            its own power.
          </p>
          <ActButton act={{ intent: "stack-add" }}>A further colour</ActButton>
        </>
      )}
      {areas?.kind === "bands" && (
        <>
          <div className="grid fields-30 gap-3">
            <TextField
              name="angle"
              label="Following one another at"
              value={`${areas.angle ?? 0}°`}
              hint="0°: downwards; 90°: to the left"
              extra={{ intent: "bands" }}
            />
            <TextField
              name="overlapMm"
              label="Lying over one another"
              value={len(areas.overlapMm ?? 0)}
              extra={{ intent: "bands" }}
            />
            <TextField
              name="fadeMm"
              label="Thinning out over"
              value={len(areas.fadeMm ?? 0)}
              extra={{ intent: "bands" }}
            />
          </div>
          <ActButton act={{ intent: "band-add", zone: "", field: "", value: "" }}>
            A further band, all made even
          </ActButton>
          {thin.length ? (
            <ul>
              {thin.map((t) => (
                <li key={t.from} className="text-wrong" data-thin={`${t.from} ${t.to}`}>
                  {t.least <= 0 ? "No colour" : `Only ${Math.round(t.least * 100)} % of a coat`} from {len(t.from)} to{" "}
                  {len(t.to)} of {len(along ?? 0)}:{" "}
                  {t.least <= 0
                    ? "the picture would be dug out of nothing there"
                    : "burnt shallow there, it comes out dull"}
                  .
                </li>
              ))}
            </ul>
          ) : (
            <p data-thin="">
              {said(`No gap: every place of ${Math.round((along ?? 0) * 10) / 10} mm has a full coat or more.`, units)}
            </p>
          )}
        </>
      )}
    </div>
  );
}

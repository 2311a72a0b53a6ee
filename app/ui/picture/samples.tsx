/** The same place of the picture made in several ways, side by side: kinds of dots, interval, screen angle, direction of the lines. */
import { useEffect, useState, useSyncExternalStore } from "react";
import { MATTERS, samplesOf, type Matter, type Sample } from "../../core/tone/samples";
import type { PictureWork } from "../../core/explain/picture";
import { said } from "../../core/units/said";
import type { UnitSystem } from "../../core/units/show";
import type { PictureRun, Shown } from "../../workers/picture";
import { ActButton } from "../kit/field";
import type { Place } from "./board";
import { Pixels } from "./shown";

/** pixels of the laser that a sample shows, each way */
const SAMPLE_PX = 64;
const NAMES: Record<Matter, string> = {
  dots: "Kinds of dots",
  interval: "Lines nearer or farther",
  screen: "Angle of a screen",
  lines: "Direction of the lines",
};

export function Samples({
  run,
  work,
  place,
  units,
}: {
  run: PictureRun;
  work: PictureWork;
  place: Place;
  units: UnitSystem;
}) {
  const [matter, about] = useState<Matter>("dots");
  const [real, size] = useState(false);
  const { made, share } = useSyncExternalStore(run.subscribe, run.get, run.get);
  const ready = made !== null && share === null;
  const samples = samplesOf(matter, work.recipe, work.spotMm);
  const shown = useSamples(run, ready ? made : null, samples, place);
  return (
    <div className="flex flex-col gap-3" data-samples={matter}>
      <div role="group" aria-label="What differs" className="flex flex-wrap gap-2">
        {MATTERS.map((m) => (
          <button key={m} type="button" className="btn" aria-pressed={matter === m} onClick={() => about(m)}>
            {NAMES[m]}
          </button>
        ))}
        <button type="button" className="btn ml-auto" aria-pressed={real} onClick={() => size(!real)}>
          At true size
        </button>
      </div>
      <p className="tag">
        The place under the lens, from the picture’s own tones, in your paints, each corrected for the spot as it would
        be burnt.
        {real && " True size as far as this screen knows its own."}
      </p>
      <ul className="grid grid-cols-2 gap-4 sm:grid-cols-3 xl:grid-cols-4">
        {samples.map((s, i) => (
          <li key={s.name} className="flex min-w-0 flex-col gap-1" data-sample={s.name}>
            <div className={real ? "grid h-16 place-items-center bg-sunken" : "aspect-square bg-sunken"}>
              {shown[i] && (
                <div
                  style={real ? { width: `${SAMPLE_PX * work.recipe.intervalMm}mm` } : undefined}
                  className={real ? "" : "size-full"}
                >
                  <Pixels of={shown[i]} label={s.name} className={real ? "w-full" : "size-full"} />
                </div>
              )}
            </div>
            <strong className="text-small">{said(s.name, units)}</strong>
            <p className="text-small text-muted">{said(s.says, units)}</p>
            {s.other && (
              <ActButton
                className="link-act self-start"
                label={`Use this: ${s.name}`}
                act={{
                  intent: "picture-dots",
                  render: s.render,
                  angle: String(s.dots.angle),
                  serpentine: String(s.dots.serpentine),
                }}
              >
                Use this
              </ActButton>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Samples as they come, one after another; what is made anew in between ends the older ones. */
function useSamples(run: PictureRun, made: object | null, samples: Sample[], place: Place): (Shown | null)[] {
  const key = JSON.stringify([samples, place]);
  const [state, put] = useState<{ key: string; made: object | null; list: (Shown | null)[] }>({
    key: "",
    made: null,
    list: [],
  });
  useEffect(() => {
    if (!made) return;
    let newest = true;
    const list: (Shown | null)[] = [];
    void (async () => {
      for (const s of samples) {
        list.push(await run.sample(s, place.x, place.y, SAMPLE_PX));
        if (!newest) return;
        put({ key, made, list: [...list] });
      }
    })();
    return () => {
      newest = false;
    };
    // the key says all that they are made of
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [run, made, key]);
  return state.key === key && state.made === made ? state.list : [];
}

/** A plan to leaf through: its steps, and the core sample after each, drawn from the simulated state. */
import { Slider } from "radix-ui";
import { useState } from "react";
import { simulate, type ZoneLayers } from "../core/explain/report";
import type { Plan } from "../core/plan/plan";
import { CoreSample } from "./core-sample/core-sample";
import { Face } from "./face";

export function PlanSample({ plan, range }: { plan: Plan; range: { top: number; bottom: number } }) {
  const [index, setIndex] = useState(plan.placed.length - 1);
  const [lit, setLit] = useState<string | null>(null);
  const p = plan.placed[index];
  const zones: ZoneLayers[] = simulate(plan, p, p.end);
  const names = Object.fromEntries([
    ...plan.context.job.zones.map((z) => [z.id, { name: z.name, areaMm2: z.areaMm2 }]),
    ["ground", { name: "rest of the face", areaMm2: 1 }],
  ]);
  const paints = Object.fromEntries(
    plan.context.shelf.map((x) => [x.id, { name: x.name, colour: x.colour, clear: plan.context.paintOf(x.id).clear }]),
  );
  const ground = {
    colour: plan.context.substrate.colour,
    name: plan.context.substrate.name,
    wood: plan.context.substrate.family === "wood",
  };
  const masked = p.after.zones.filter((z) => z.mask).map((z) => z.zone);
  return (
    <div className="grid gap-6 lg:grid-cols-[--spacing(80)_minmax(0,1fr)]">
      <div>
        <p className="text-muted">
          Step {index + 1} of {plan.placed.length}
        </p>
        <Slider.Root
          className="slider"
          min={0}
          max={plan.placed.length - 1}
          value={[index]}
          onValueChange={([i]) => setIndex(i)}
        >
          <Slider.Track className="slider-track">
            <Slider.Range className="slider-range" />
          </Slider.Track>
          <Slider.Thumb className="slider-thumb" aria-label="Step" aria-valuetext={p.step.title} />
        </Slider.Root>
        <ol className="mt-2 max-h-102 overflow-y-auto" tabIndex={0} aria-label="Steps of this route">
          {plan.placed.map((x, i) => (
            <li key={x.step.id}>
              <button
                type="button"
                aria-current={i === index ? "step" : undefined}
                className={`min-h-7.5 w-full px-2 text-left max-lg:min-h-touch ${i === index ? "bg-chosen font-semibold" : ""}`}
                onClick={() => setIndex(i)}
              >
                {i + 1}. {x.step.title}
              </button>
            </li>
          ))}
        </ol>
      </div>
      <figure>
        <div className="h-88">
          <CoreSample
            zones={zones}
            names={names}
            paints={paints}
            ground={ground}
            range={range}
            sandedUm={p.after.sandedUm}
            sandTo={null}
            ghost={null}
            lensFromRight={null}
            chosen={zones[0].zone}
            lit={lit}
            onZone={() => {}}
            onLight={setLit}
          />
        </div>
        <Face
          job={plan.context.job}
          colours={Object.fromEntries(zones.map((z) => [z.zone, z.front]))}
          grain={ground.wood}
          masked={p.after.side === "front" ? masked : []}
          className="mt-3 max-h-40 w-full"
          label={`What an onlooker sees after “${p.step.title}”`}
        />
        <figcaption className="tag">
          {ground.name}, default figures; drawn from the same simulation as any job. Above: cut through. Below: from the
          front.
        </figcaption>
      </figure>
    </div>
  );
}

import { said } from "../core/units/said";
import { artworkView } from "../views/artwork";
import type { Route } from "./+types/job-artwork";
import { useState } from "react";
import { Link, useSubmit } from "react-router";
import { FINISHES } from "../core/catalogue/finishes";
import { bodyOf } from "../core/catalogue/substrates";
import { showLength, UNKNOWN, type UnitSystem } from "../core/units/show";
import { parseLength } from "../core/units/parse";
import { PickField, TextField } from "../ui/kit/field";
import { Empty } from "../ui/kit/bits";
import { DRAWING, DRAWING_LIMIT, MeasuringWords, useMeasuring } from "../ui/measuring";
import { DropFile } from "../ui/kit/drop";
import { Face } from "../ui/face";
import { Placing } from "../ui/placing";
import { isPicture, PICTURES } from "../ui/taking";
import { Tracing } from "../ui/tracing";
import { RETURN_MM } from "../core/geometry/registration";
import { circumference, DOF_MM } from "../core/models/round/round";
import { Names } from "../ui/names";
import { Shapes } from "../ui/shapes";
import { Visits } from "../ui/visits";
import { ProductList } from "../ui/product-editor";
import { route as routeOf } from "../core/catalogue/routes";
import { boughtFor, isStandIn } from "../core/process/wanted";
import { formOf } from "../acts/answer";
import { jobAct } from "../acts/job";
import { readJob } from "./job-data";
import { AddPaint } from "../ui/forms";
import { Fold } from "../ui/kit/fold";
import { NEW_PAINT } from "../ui/inks";

const areaWords = (mm2: number, units: UnitSystem): string =>
  units === "inch" ? said(`${mm2.toFixed(1)} mm²`, units) : `${(mm2 / 100).toFixed(mm2 < 1000 ? 2 : 1)} cm²`;

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  return artworkView((await readJob(params.id)).plan);
}
export const clientAction = async ({ request, params }: Route.ClientActionArgs) =>
  jobAct(params.id, await formOf(request));

/** What stands for “no paint is picked”: the one that follows, and how near it comes. */
const followWords = (w: { follows: boolean; got: { name: string; off: number; toBuy: boolean } | null }): string =>
  !w.follows
    ? "not chosen"
    : w.got === null
      ? "follows from the way"
      : `follows: ${w.got.name}${w.got.toBuy ? ", to buy" : w.got.off < 2 ? ", matches" : `, ${w.got.off} away`}`;

/** colours nearer than this are hard to tell apart across a bench */
const PLAIN_DIFFERENCE = 12;

export default function Artwork({
  loaderData: {
    job,
    units,
    spotMm,
    products,
    near,
    wants,
    takes,
    visits,
    place,
    band,
    gear,
    round,
    boxes,
    facesHint,
    lies,
    stroke,
    contrast,
    between,
  },
}: Route.ComponentProps) {
  const submit = useSubmit();
  const m = useMeasuring((name, svg, found) =>
    submit({ intent: "artwork", name, svg, found: JSON.stringify(found) }, { method: "post" }),
  );
  const [flat, setFlat] = useState<File | null>(null);
  const take = async (file: File): Promise<void> => {
    // a logo in pixels is asked about first
    if (isPicture(file)) return setFlat(file);
    setFlat(null);
    await m.measure(file.name, await file.text(), null);
  };
  const resize = (text: string): void => {
    const mm = parseLength(text, units === "inch" ? "in" : "mm");
    if (!mm.ok || !(mm.value > 0)) return m.refuse(mm.ok ? "The width must be above 0." : mm.error);
    if (job.artwork && Math.abs(mm.value - job.artwork.w) > 1e-6)
      void m.measure(job.artwork.name, job.artwork.svg, mm.value);
  };
  const ground = bodyOf(job.substrate);
  const colours = Object.fromEntries([
    ["ground", between ?? ground.colour],
    ...job.zones.map((z) => [
      z.id,
      z.bare
        ? (wants[z.id].meant ?? ground.colour)
        : z.productId
          ? (products.find((p) => p.id === z.productId)?.colour ?? z.colour)
          : wants[z.id].wanted,
    ]),
  ]);
  const [lit, light] = useState<string | null>(null);
  const next = job.zones.find((z) => wants[z.id].picked === "" && (wants[z.id].got?.toBuy ?? true));
  const open = job.zones.filter((z) => !z.bare && !z.productId && !wants[z.id].follows).length;
  const bought = job.zones.flatMap((z) => (wants[z.id].got?.toBuy ? [wants[z.id].got!.name] : []));
  const drop = (
    <DropFile
      label="SVG file"
      what="an SVG file, or a flat picture,"
      kinds={{ ...DRAWING, ...PICTURES }}
      limit={DRAWING_LIMIT}
      onFile={(file) => void take(file)}
      onRefused={m.refuse}
    >
      {(choose) => (
        <>
          <p>
            {job.artwork ? (
              <>
                In use: <strong className="break-all">{job.artwork.name || "zones typed in"}</strong>
              </>
            ) : (
              "Drop an SVG file here."
            )}
          </p>
          <button className={job.artwork ? "btn" : "btn btn-main"} onClick={choose}>
            {job.artwork ? "Take another file" : "Choose an SVG file"}
          </button>
          <p className="tag">
            Plain fills and strokes. Text as paths; gradients, pictures and see-through paint are refused, because paint
            is none of these. A flat logo (PNG, JPEG, WebP) becomes zones too.
          </p>
        </>
      )}
    </DropFile>
  );
  return (
    <main
      id="main"
      data-view="artwork"
      className="mx-auto grid w-full max-w-page gap-8 px-5 py-5 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]"
    >
      <title>{`${job.title}: artwork · Rich Layer`}</title>
      <section aria-labelledby="a1" className="flex flex-col gap-4">
        <h2 id="a1">The drawing</h2>
        {!job.artwork && drop}
        {flat && (
          <Tracing
            key={`${flat.name} ${flat.lastModified}`}
            file={flat}
            widthMm={job.substrate.w}
            units={units}
            spotMm={spotMm}
            onMade={(name, svg) => m.measure(name, svg, null)}
            onLeft={() => setFlat(null)}
          />
        )}
        <MeasuringWords of={m} />
        {job.artwork && (
          <>
            {job.areas ? (
              <p>
                {job.areas.kind === "whole" ? "One colour all over" : "Blended bands"}: they follow the piece and are
                changed under{" "}
                <Link to="../picture" relative="path">
                  Picture
                </Link>
                . A drawing taken in here takes their place.
              </p>
            ) : (
              <SizeField
                key={job.artwork.w}
                value={showLength(job.artwork.w, units)}
                onSet={resize}
                height={showLength(job.artwork.h, units)}
                disabled={!job.artwork.svg}
              />
            )}
            {round === null && !job.areas ? (
              <Placing
                job={job}
                units={units}
                lies={lies}
                colours={colours}
                grain={ground.family === "wood"}
                lit={lit ? [lit] : []}
                className="max-h-[min(56vh,--spacing(139))] w-full"
                label={`${job.title}, zones in their finishes`}
              />
            ) : (
              <Face
                job={
                  boxes && round !== null ? { ...job, substrate: { ...job.substrate, w: circumference(round) } } : job
                }
                colours={colours}
                grain={ground.family === "wood"}
                bandMm={band}
                boxes={boxes}
                pictured={job.picture && !lit ? job.zones.map((z) => z.id) : []}
                lit={lit ? [lit] : []}
                className="max-h-[min(56vh,--spacing(139))] w-full"
                label={`${job.title}, zones in their finishes`}
              />
            )}
            {band !== null && (
              <p className="tag">
                Between the dashed lines the beam is in focus, set half way down the drop:{" "}
                {said(`${Math.round(band * 10) / 10} mm`, units)}, with {said(`${DOF_MM} mm`, units)} of focus
                (default).
              </p>
            )}
            {round !== null && (
              <TextField
                name="faces"
                label="Equal faces round it"
                value={job.choices.faces === undefined ? "" : String(job.choices.faces)}
                extra={{ intent: "choice" }}
                inputMode="numeric"
                hint={facesHint ?? undefined}
              />
            )}
            {drop}
            <TextField
              name="credit"
              label="Drawn by, and how it may be used"
              value={job.credit ?? ""}
              hint="goes on the work card"
            />
            {round !== null && <p className="tag">The picture lies centred on the {ground.name.toLowerCase()}.</p>}
          </>
        )}
      </section>
      <section aria-labelledby="a2" className="min-w-0">
        <h2 id="a2" className="mb-2">
          Zones
        </h2>
        {!job.areas && <Shapes job={job} units={units} leastCapMm={stroke?.capitalMm ?? null} />}
        {job.areas || job.picture ? (
          <p className="my-2 text-muted">
            A name on each piece needs a drawing: here{" "}
            {job.picture
              ? "a picture is what the beam draws, so letters belong into it."
              : "the colours are made by rule."}
          </p>
        ) : (
          <Names job={job} units={units} leastCapMm={stroke?.capitalMm ?? null} />
        )}
        {!job.zones.length ? (
          <Empty title="No zones yet">
            <p>
              A zone is what can still be seen of one colour after later paint has covered earlier. Each gets a finish
              from the Shelf, or is left as it is.
            </p>
          </Empty>
        ) : (
          <>
            <ul className="divide-y divide-line border-y border-line">
              {job.zones.map((z) => (
                <li
                  key={z.id}
                  data-zone={z.id}
                  onPointerEnter={() => light(z.id)}
                  onPointerLeave={() => light(null)}
                  onFocus={() => light(z.id)}
                  onBlur={() => light(null)}
                  className={
                    "grid grid-cols-[--spacing(12)_minmax(--spacing(30),1fr)_minmax(--spacing(46),1.5fr)] items-end gap-x-3 gap-y-1 py-3 " +
                    "max-lg:grid-cols-[--spacing(12)_1fr]"
                  }
                >
                  <TextField
                    name="wanted"
                    label={`Wanted colour of ${z.name}`}
                    hideLabel
                    colour
                    value={wants[z.id].wanted}
                    extra={{ intent: "zone", zone: z.id }}
                  />
                  <TextField name="name" label="Zone" value={z.name} extra={{ intent: "zone", zone: z.id }} />
                  <div className="max-lg:col-start-2">
                    <PickField
                      name="finish"
                      label={`Finish of ${z.name}`}
                      value={wants[z.id].picked}
                      extra={{ intent: "zone", zone: z.id }}
                      options={[
                        { value: "", label: followWords(wants[z.id]) },
                        { value: "bare", label: "bare material, left or uncovered" },
                        { value: "burn", label: "burnt, as dark as the beam makes it" },
                        ...near[z.id].map((n) => ({
                          value: n.product.id,
                          label:
                            `${n.product.name}${n.off < 50 ? `, ${n.off < 2 ? "matches" : `${Math.round(n.off)} away`}` : ""}` +
                            (takes.includes(n.product.id) ? "" : "; not for the way it goes now"),
                        })),
                      ]}
                    />
                    {wants[z.id].instead && (
                      <p className="text-small text-waiting">
                        {wants[z.id].instead} is not for this way: {wants[z.id].got?.name} in its place.
                      </p>
                    )}
                  </div>
                  <p className="col-start-2 col-end-4 text-small text-muted max-lg:col-end-3">
                    <span className="num">{areaWords(z.areaMm2, units)}</span>, edge{" "}
                    <span className="num">
                      {z.perimeterMm === null ? UNKNOWN : said(`${Math.round(z.perimeterMm)} mm`, units)}
                    </span>
                    , narrowest{" "}
                    <span className="num">
                      {z.narrowestMm === null ? UNKNOWN : said(`${z.narrowestMm.toFixed(2)} mm`, units)}
                    </span>
                    , {z.pieces === null ? UNKNOWN : z.pieces} {z.pieces === 1 ? "piece" : "pieces"},{" "}
                    {z.holes === null ? UNKNOWN : z.holes} {z.holes === 1 ? "hole" : "holes"}
                    {contrast[z.id] !== undefined && (
                      <>
                        <br />
                        {contrast[z.id]} from the bare {ground.name.toLowerCase()}
                        {contrast[z.id] < PLAIN_DIFFERENCE && (
                          <strong className="text-wrong">: hardly stands out</strong>
                        )}
                      </>
                    )}
                  </p>
                </li>
              ))}
            </ul>
            {stroke && (
              <p className="mt-3">
                By {stroke.by}: strokes from {said(`${stroke.strokeMm.toFixed(2)} mm`, units)}, plain capitals from
                about {said(`${stroke.capitalMm.toFixed(1)} mm`, units)} high.
              </p>
            )}
            <p className="my-3 text-muted">
              {open
                ? `${open} ${open === 1 ? "zone has" : "zones have"} no finish yet. “Away” is how far the paint is ` +
                  "from the drawing (CIEDE2000; below 4 few would notice)."
                : job.route
                  ? bought.length
                    ? `Not on the Shelf yet, and planned with default figures: ${[...new Set(bought)].join(", ")}.`
                    : "Every zone has a finish or is left as it is."
                  : "Paints follow from the way that you choose next, nearest to what is wanted; one that is picked " +
                    "holds where the way takes it."}
            </p>
          </>
        )}
        <Fold
          key={next?.id ?? "none"}
          summary="Put a further paint on the Shelf"
          open={open > 0 && products.length < job.zones.length}
          className="my-3 border-t border-line pt-3"
        >
          <AddPaint
            intent="add-product"
            finishes={FINISHES.filter((x) => x.role === "colour").map((x) => ({ value: x.id, label: x.name }))}
            start={{
              finish: job.route
                ? boughtFor(routeOf(job.route), job.substrate.id).id
                : ground.family === "wood"
                  ? "craft-acrylic"
                  : "spray-enamel",
              colour: next?.colour ?? NEW_PAINT,
              zone: next?.id ?? "",
            }}
            zones={job.zones.map((z) => ({ value: z.id, label: z.name }))}
          />
        </Fold>
        <ProductList
          title="Film, drying and cans of the paints used here"
          units={units}
          products={products.filter((p) => !isStandIn(p.id) && job.zones.some((z) => z.productId === p.id))}
        />
        {job.zones.length > 0 && (
          <Link to="../route" relative="path" className={`mt-4 ${open ? "btn" : "btn btn-main"}`}>
            Next: route
          </Link>
        )}
      </section>
      {place && visits.length > 1 && (
        <section aria-labelledby="a3" className="min-w-0 lg:col-span-2">
          <h2 id="a3" className="mb-1">
            Visit by visit
          </h2>
          <p className="mb-2 text-muted">
            As seen from the side that is worked. Hatched: masked. Dashed: what the laser gets, or what is opened: the
            weeding map.
          </p>
          <Visits job={job} visits={visits} grain={ground.family === "wood"} />
          <div className="mt-4 grid gap-x-10 gap-y-3 lg:grid-cols-2">
            <div>
              <h3>How closely it comes back</h3>
              <PickField
                name="placedBy"
                label="Put back by"
                value={job.choices.placedBy ?? ""}
                extra={{ intent: "choice" }}
                options={[
                  { value: "", label: said(`a corner square, ${RETURN_MM.corner.mm} mm (default)`, units) },
                  ...Object.entries(RETURN_MM)
                    .filter(([k]) => k !== "corner")
                    .map(([k, r]) => ({ value: k, label: said(`${r.name}, ${r.mm} mm`, units) })),
                  ...gear
                    .filter((g) => g.kind === "jig")
                    .map((g) => ({
                      value: g.id,
                      label: `${g.name}, ${g.errorMm === null ? "unknown" : showLength(g.errorMm, units)}`,
                    })),
                ]}
              />
              <p className="mt-1">
                {place.replaced ? "It leaves the bed and comes back." : "It stays where it is."} A colour painted later
                runs under the one before it by {said(`${place.trapMm.toFixed(2)} mm`, units)}; the picture runs over by{" "}
                {said(`${place.overrunMm.toFixed(1)} mm`, units)}, which hides {place.degrees.toFixed(2)}° of turning.
              </p>
            </div>
            {place.pairs.length > 0 && (
              <div>
                <h3>Zones beside one another</h3>
                <ul>
                  {place.pairs.slice(0, 15).map((p) => (
                    <li key={p.a + p.b} className="border-t border-line py-1">
                      {p.nameA} and {p.nameB}:{" "}
                      {p.gapMm === null
                        ? "gap unknown"
                        : p.gapMm < 0.005
                          ? "they touch, the later one runs under"
                          : said(`${p.gapMm.toFixed(2)} mm apart`, units)}
                      {p.apart === false ? (
                        <strong className="text-wrong">
                          , can’t be kept apart within {said(`${p.betweenMm.toFixed(2)} mm`, units)}
                        </strong>
                      ) : p.apart ? (
                        ", kept apart"
                      ) : (
                        ""
                      )}
                    </li>
                  ))}
                </ul>
              </div>
            )}
          </div>
        </section>
      )}
    </main>
  );
}

function SizeField({
  value,
  height,
  onSet,
  disabled,
}: {
  value: string;
  height: string;
  onSet: (t: string) => void;
  disabled: boolean;
}) {
  return (
    <label className="flex flex-wrap items-center gap-2 text-muted">
      Picture wide
      <input
        className="field-in w-28 text-ink"
        defaultValue={value}
        disabled={disabled}
        onKeyDown={(e) => e.key === "Enter" && onSet(e.currentTarget.value)}
        onBlur={(e) => e.target.value !== value && onSet(e.target.value)}
      />
      high {height}
    </label>
  );
}

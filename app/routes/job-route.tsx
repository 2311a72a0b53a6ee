import { routeView, type HidingWay } from "../views/route";
import type { Route } from "./+types/job-route";
import { Form, Link } from "react-router";
import { SchoolsPart } from "../ui/schools";
import { readPhotos } from "../store/queries";
import { TRIAL_PHOTO, TrialCards } from "../ui/trial-cards";
import { finishNamed } from "../core/catalogue/finishes";
import { STARTER } from "../core/catalogue/starter";
import { showInterval, showLength } from "../core/units/show";
import { ActButton, PickField, TextField, TickField } from "../ui/kit/field";
import { Head, Swatch } from "../ui/kit/bits";
import { ProductList } from "../ui/product-editor";
import { formOf } from "../acts/answer";
import { jobAct } from "../acts/job";
import { readJob } from "./job-data";
import { staysMm } from "../core/explain/why/inputs";
import { Why } from "../ui/kit/why";
import { Fold } from "../ui/kit/fold";
import { Ways } from "../ui/ways";
import { startWays } from "../workers/ways";
import { isStandIn } from "../core/process/wanted";
import { STARTER_FOR } from "../core/plan/supply";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { world, plan, now } = await readJob(params.id);
  // photos of trial cards alone: the others are the wrap-up’s
  const cards = world.job.choices.trialOf?.length
    ? (await readPhotos(params.id)).filter((p) => p.caption.startsWith(TRIAL_PHOTO))
    : [];
  return { ...routeView(world, plan, now), cards, run: startWays({ world, now }) };
}
export const clientAction = async ({ request, params }: Route.ClientActionArgs) =>
  jobAct(params.id, await formOf(request));

/** Coats, painting time and ready time of one way of hiding. */
const WayWords = ({ w }: { w: HidingWay }) => (
  <>
    {w.coats} coats
    {w.hands && (
      <>
        ,{" "}
        <Why quiet inline of={w.whyHands}>
          {w.hands} of painting
        </Why>
      </>
    )}
    {w.ready && (
      <>
        ,{" "}
        <Why quiet inline of={w.whyReady}>
          ready {w.ready}
        </Why>
      </>
    )}
  </>
);

/** What is taken where nothing is picked. */
const asPicked = (p: { id: string; name: string } | null | undefined, none: string): string =>
  p ? `${isStandIn(p.id) ? "to buy" : "as the Shelf has it"}: ${p.name}` : `as the Shelf has it: ${none}`;

/** The questions in the order they are asked, what this job answers, and what follows. */
const Path = ({ path }: { path: Awaited<ReturnType<typeof clientLoader>>["path"] }) => (
  <>
    <ol className="divide-y divide-line">
      {path.map((q) => (
        <li key={q.asks} className="grid gap-x-4 py-1.5 lg:grid-cols-[--spacing(72)_minmax(0,1fr)]">
          <span>
            {q.asks} <strong>{q.answer}</strong>
          </span>
          <span className="text-muted">
            {q.says.map((s) => (
              <span key={s.why} className="block">
                {s.why} {s.for.length > 0 && `For: ${s.for.join("; ")}. `}
                {s.against.length > 0 && `Against: ${s.against.join("; ")}.`}
              </span>
            ))}
            {!q.says.length && "Decides nothing here."}
          </span>
        </li>
      ))}
    </ol>
    <Link className="text alone" to="/workshop/schools">
      Which of these questions count in this shop
    </Link>
  </>
);

export default function RouteTab({ loaderData: d }: Route.ComponentProps) {
  const { job, products } = d;
  const choice = { intent: "choice" };
  const of = (role: "sealer" | "clear" | "colour", own: string) => [
    { value: "", label: own },
    ...products.filter((p) => finishNamed(p.finish).role === role).map((p) => ({ value: p.id, label: p.name })),
  ];
  return (
    <main id="main" data-view="route" className="mx-auto w-full max-w-page px-5 py-5">
      <title>{`${job.title}: route · Rich Layer`}</title>
      <section aria-labelledby="r1">
        <Head
          right={
            job.route && (
              <Form action="../layers" relative="path">
                <button className="btn btn-main">Next: layers</button>
              </Form>
            )
          }
        >
          <span id="r1">Ways to the colour</span>
        </Head>
        <Ways run={d.run} world={d.world} now={d.now} />
        <Fold summary="How the best advised was found" className="mt-2">
          <Path path={d.path} />
        </Fold>
      </section>
      <div className={`mt-6 grid gap-10 ${job.route ? "lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]" : ""}`}>
        <section aria-label="For this way">
          {d.toBuy.length > 0 && (
            <div data-to-buy={d.toBuy.length}>
              <h2 className="mb-1">To buy</h2>
              <p className="mb-2 text-muted">
                Planned with the default figures of what is not on the Shelf. The bench opens when all of it is there.
              </p>
              <ul className="flex flex-col gap-2">
                {d.toBuy.map((p) => (
                  <li key={p.id} className="flex flex-wrap items-center gap-3">
                    <Swatch colour={p.colour} />
                    <span className="text-waiting">{p.name}</span>
                    <ActButton act={{ intent: "add-product", name: p.name, finish: p.finish, colour: p.colour }}>
                      Put {p.name.charAt(0).toLowerCase() + p.name.slice(1)} on the Shelf
                    </ActButton>
                  </li>
                ))}
              </ul>
            </div>
          )}
          {d.missing.some((m) => m.what !== "route") && (
            <div className="mt-5">
              <h2 className="mb-1">Still lacking</h2>
              <ul className="flex flex-col gap-2">
                {d.missing
                  .filter((m) => m.what !== "route")
                  .map((m) => {
                    const starter = STARTER_FOR[m.what]?.(d.byHand);
                    const s = STARTER.find((x) => x.id === starter);
                    return (
                      <li key={m.what} className="flex flex-wrap items-center gap-3">
                        <span className="text-waiting">{m.say}</span>
                        {s && (
                          <ActButton act={{ intent: "add-product", name: s.name, finish: s.finish, colour: s.colour }}>
                            Add {s.name.toLowerCase()} (default figures)
                          </ActButton>
                        )}
                        {m.what === "oven" && (
                          <Link className="text alone" to="/workshop/gear">
                            Put one into the Workshop
                          </Link>
                        )}
                        {m.what === "machine" && (
                          <Link className="text alone" to="../brief" relative="path">
                            Choose a machine in the brief
                          </Link>
                        )}
                        {(m.what === "zones" || m.what === "colour") && (
                          <Link className="text alone" to="../artwork" relative="path">
                            Go to the artwork
                          </Link>
                        )}
                      </li>
                    );
                  })}
              </ul>
            </div>
          )}
          {job.route && (
            <Fold summary="Trial cards: a few ways side by side on scraps">
              <TrialCards world={d.world} routes={d.can} photos={d.cards} />
            </Fold>
          )}
          {d.hiding.length > 0 && (
            <div className="mt-6 overflow-x-auto">
              <Head>Coats to hide</Head>
              <table>
                <thead>
                  <tr>
                    <th>Paint</th>
                    <th>Zone</th>
                    <th>Straight on</th>
                    <th>Over white</th>
                  </tr>
                </thead>
                <tbody>
                  {d.hiding.map((h) => (
                    <tr key={`${h.zone}${h.productId}`}>
                      <td>
                        <span className="flex items-center gap-2">
                          <Swatch colour={h.colour} />
                          {h.name}
                        </span>
                      </td>
                      <td>{h.zone}</td>
                      <td>
                        {h.straight === null ? (
                          "unknown"
                        ) : (
                          <Why quiet of={h.whyStraight}>
                            {h.hides ? `${h.straight} ${h.straight === 1 ? "coat" : "coats"}` : "will not hide"}
                          </Why>
                        )}
                      </td>
                      <td>
                        {h.overWhite === null ? (
                          "–"
                        ) : (
                          <Why quiet of={h.whyWhite}>
                            {h.whites} white + {h.overWhite}
                          </Why>
                        )}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              {d.ways && (
                <p className="mt-1">
                  The whole job straight on: <WayWords w={d.ways.straight} />. Over white: <WayWords w={d.ways.white} />
                  .
                </p>
              )}
              <p className="tag mt-1">A planning figure until you have laid a swatch.</p>
            </div>
          )}
        </section>
        {job.route && (
          <section aria-labelledby="r2" className="flex flex-col gap-3">
            <h2 id="r2">Choices</h2>
            {d.uses.seal && (
              <PickField
                name="sealerId"
                label="Sealer"
                extra={choice}
                value={job.choices.sealerId ?? ""}
                options={of("sealer", asPicked(d.picked?.seal, "none"))}
              />
            )}
            {d.uses.undercoat && (
              <PickField
                name="undercoat"
                label={d.uses.brush ? "White under the colours" : "White under the colour"}
                extra={choice}
                value={job.choices.undercoat === null ? "" : String(job.choices.undercoat)}
                options={[
                  { value: "", label: "where it saves coats" },
                  { value: "true", label: "always" },
                  { value: "false", label: "never" },
                ]}
              />
            )}
            {d.uses.white && (
              <PickField
                name="whiteId"
                label={d.mirror ? "Backing" : "Which white"}
                extra={choice}
                value={job.choices.whiteId ?? ""}
                options={of("colour", asPicked(d.picked?.white, "none that goes on like the colour"))}
              />
            )}
            {d.uses.top && (
              <PickField
                name="topId"
                label="Dark top"
                extra={choice}
                value={job.choices.topId ?? ""}
                options={of("colour", asPicked(d.picked?.top, "none"))}
              />
            )}
            {d.uses.depth && (
              <TextField
                name="depthMm"
                label="Depth of the cut"
                extra={choice}
                value={job.choices.depthMm === null ? "" : showLength(job.choices.depthMm, d.units)}
                from={job.choices.depthMm === null ? "default" : "typed"}
                hint={
                  d.depth
                    ? `needed: ${d.depth.needMm.toFixed(2)} mm ` +
                      `(sanding ${Math.round(d.depth.sandUm)} µm, sealer ${Math.round(d.depth.sealerUm)} ` +
                      `µm, coats ${Math.round(d.depth.coatsUm)} µm, ${showLength(staysMm(d.depth), "metric")} that stays)`
                    : undefined
                }
                placeholder="1.5 mm, or what is needed"
              />
            )}
            {d.uses.brush && (
              <PickField
                name="toolMm"
                label="Brush"
                extra={choice}
                value={job.choices.toolMm === null ? "" : String(job.choices.toolMm)}
                options={[
                  { value: "", label: "small flat brush, fills 0.8 mm and up" },
                  { value: "0.4", label: "liner, fills 0.4 mm and up" },
                ]}
              />
            )}
            {d.uses.mask && (
              <PickField
                name="maskId"
                label="Masked with"
                extra={choice}
                value={job.choices.maskId ?? ""}
                options={[
                  { value: "", label: "as the Shelf has it, for this beam and heat" },
                  ...d.masks.map((p) => ({ value: p.id, label: p.name })),
                ]}
              />
            )}
            {d.uses.clear && (
              <PickField
                name="clearId"
                label="Clear coat"
                extra={choice}
                value={job.choices.clearId ?? ""}
                options={of("clear", asPicked(d.picked?.clear, "none"))}
              />
            )}
            <fieldset>
              <legend className="text-muted">Finishing moves at the end</legend>
              {d.moves.map((m) => (
                <TickField
                  key={m.id}
                  name={`move:${m.id}`}
                  label={`${m.name}. ${m.gives}`}
                  value={job.choices.finishing?.includes(m.id) ?? false}
                  extra={choice}
                />
              ))}
            </fieldset>
            {d.uses.clear && (
              <TickField
                name="noClear"
                label="No clear coat"
                extra={choice}
                value={job.choices.noClear}
                hint="paint that is not sealed scratches"
              />
            )}
            <PickField
              name="handover"
              label="Handed over when"
              extra={choice}
              value={job.choices.handover ?? ""}
              options={[
                { value: "", label: "by use: cured if wet or outdoors, else touch dry" },
                { value: "touch", label: "touch dry" },
                { value: "cured", label: "clear coat cured" },
              ]}
            />
            <PickField
              name="proof"
              label="Proof piece"
              extra={choice}
              value={job.choices.proof === null ? "" : String(job.choices.proof)}
              options={[
                { value: "", label: "first, the whole way, from three pieces on" },
                { value: "true", label: "first, the whole way" },
                { value: "false", label: "none: all go together" },
              ]}
            />
            <TextField
              name="tolerance"
              label="Colour may be off by"
              extra={choice}
              value={job.choices.tolerance === null ? "" : String(job.choices.tolerance)}
              from={job.choices.tolerance === null ? `default: ${d.tolerance}` : "typed"}
              hint="CIEDE2000: 2 strict, 4 ordinary"
            />
            <TextField
              name="intervalMm"
              label="Line interval"
              extra={choice}
              value={job.choices.intervalMm === null ? "" : String(job.choices.intervalMm)}
              from={
                job.choices.intervalMm === null
                  ? `default: ${showInterval(d.interval)}`
                  : showInterval(job.choices.intervalMm)
              }
              hint="mm, dpi or lines/cm; beyond 0.6 of the spot the lines leave ridges"
            />
            <PickField
              name="cleaner"
              label="Cleaned with"
              extra={choice}
              value={job.choices.cleaner}
              options={[
                { value: "alcohol", label: "alcohol" },
                { value: "acetone", label: "acetone (not on acrylic sheet)" },
                { value: "citrus", label: "citrus cleaner" },
                { value: "chlorinated", label: "chlorinated cleaner" },
              ]}
            />
            <fieldset className="border-t border-line pt-3">
              <legend className="font-semibold">Which way round</legend>
              <p>
                View from the front. The artwork goes in {d.burnt.says}.{" "}
                {d.mirror ? "Mirrored: it is worked from the back." : "Not mirrored."}
              </p>
              <PickField
                name="inverted"
                label="Tick “invert” in one place only: here"
                extra={choice}
                value={job.choices.inverted === null ? "" : String(job.choices.inverted)}
                options={[
                  {
                    value: "",
                    label: d.burnt.inverted ? "inverted, as it has to be" : "not inverted, as it has to be",
                  },
                  { value: "true", label: "inverted" },
                  { value: "false", label: "not inverted" },
                ]}
              />
              <PickField
                name="mirrored"
                label="Tick “mirror” in one place only: here"
                extra={choice}
                value={job.choices.mirrored === undefined ? "" : String(job.choices.mirrored)}
                options={[
                  {
                    value: "",
                    label: d.mirror ? "mirrored, as the route wants it" : "not mirrored, as the route wants it",
                  },
                  { value: "true", label: "mirrored" },
                  { value: "false", label: "not mirrored" },
                ]}
              />
              <TickField
                name="program:inverted"
                label="The laser program inverts by itself"
                extra={choice}
                value={(job.choices.inProgram ?? []).includes("inverted")}
              />
              <TickField
                name="program:mirrored"
                label="The laser program mirrors by itself"
                extra={choice}
                value={(job.choices.inProgram ?? []).includes("mirrored")}
              />
            </fieldset>
            <Fold summary="Where makers disagree, for this job">
              <SchoolsPart job={d.jobPicks} shop={d.shopPicks} />
            </Fold>
            <fieldset className="border-t border-line pt-3">
              <legend className="font-semibold">How it is worked</legend>
              {d.uses.powderByLaser && (
                <TickField
                  name="airStaysOn"
                  label="Air assist stays on while powder is melted"
                  extra={choice}
                  value={job.choices.airStaysOn === true}
                />
              )}
              {d.uses.sheet && (
                <TickField
                  name="onBareBed"
                  label="The sheet lies straight on the bed"
                  extra={choice}
                  value={job.choices.onBareBed === true}
                />
              )}
              <TickField
                name="attended"
                label="Somebody stays with the laser, all through"
                extra={choice}
                value={job.choices.attended}
              />
              <TickField
                name="sunOrHotAir"
                label="Dried in the sun or with hot air"
                extra={choice}
                value={job.choices.sunOrHotAir}
              />
              <TickField
                name="driedInEnclosure"
                label="Wet pieces dry inside the laser’s enclosure"
                extra={choice}
                value={job.choices.driedInEnclosure === true}
              />
              <TickField
                name="mask"
                label="A mask or film is on the piece while it is lasered"
                extra={choice}
                value={job.choices.mask}
              />
              {(job.choices.mask || d.uses.plainMask) && (
                <PickField
                  name="maskChlorinated"
                  label="Does that film hold chlorine (vinyl, PVC)?"
                  extra={choice}
                  value={job.choices.maskChlorinated === null ? "" : String(job.choices.maskChlorinated)}
                  options={[
                    { value: "", label: "not known: ask its maker first" },
                    { value: "false", label: "no" },
                    { value: "true", label: "yes" },
                  ]}
                />
              )}
            </fieldset>
            <ProductList
              title="What lies on the Shelf for this route"
              units={d.units}
              products={[
                ...new Set(Object.values(d.picked ?? {}).flatMap((x) => (x === null || isStandIn(x.id) ? [] : x))),
              ]}
            />
          </section>
        )}
      </div>
    </main>
  );
}

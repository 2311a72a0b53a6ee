import type { Route } from "./+types/job-brief";
import { Link } from "react-router";
import { USES } from "../core/records/ids";
import { BodyFields } from "../ui/body-fields";
import { SUBSTRATES } from "../core/catalogue/substrates";
import { showLength, showTemp } from "../core/units/show";
import { PRIOR_PIECES } from "../core/models/spares/spares";
import { toBegin } from "../core/process/pieces";
import { Why } from "../ui/kit/why";
import { ActButton, PickField, TextField, TickField } from "../ui/kit/field";
import { Head } from "../ui/kit/bits";
import { MachineForm } from "../ui/workshop/machine-form";
import { HoursPart } from "../ui/workshop/hours";
import { ClimatePart } from "../ui/workshop/climate";
import { hoursInWords } from "../views/hours";
import { formOf } from "../acts/answer";
import { jobAct } from "../acts/job";
import { readHeads, readShop } from "../store/queries";
import { readJob } from "./job-data";
import { opened } from "../views/opened";
import { AddMachine } from "../ui/forms";
import { BlankFields } from "../ui/blank-fields";
import { Fold } from "../ui/kit/fold";
import { AskButton, AskForm, AskText } from "../ui/kit/ask";
import { SizeForm } from "../core/records/forms";
import { WhenField } from "../ui/kit/when-field";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { world, plan } = await readJob(params.id);
  const begin = toBegin(world.job);
  const { set, id } = world.job;
  return {
    sizes: set
      ? (await readHeads())
          .filter((x) => x.set === set && x.id !== id)
          .map((x) => ({ id: x.id, title: x.title, n: x.quantity }))
      : [],
    job: world.job,
    // what is changed here is the shop as it is by now, which a job that has begun may not go by
    shop: (await readShop())?.shop ?? world.shop,
    machines: world.machines,
    pieces: plan.context.pieces,
    loss: world.job.choices.lossShare ?? plan.context.route?.loss ?? null,
    begin: begin && { ...begin, why: opened(plan, { of: "spares" }) },
  };
}
export const clientAction = async ({ request, params }: Route.ClientActionArgs) =>
  jobAct(params.id, await formOf(request));

const USE_WORDS = {
  handled: "handled often",
  wet: "gets wet",
  outdoors: "stands outdoors",
  display: "only looked at",
  food: "touches food or mouth",
};

export default function Brief({
  loaderData: { job, shop, machines, pieces, loss, begin, sizes },
}: Route.ComponentProps) {
  const len = (mm: number): string => showLength(mm, job.units);
  const round = job.substrate.shape === "ball" || job.substrate.shape === "cylinder";
  const untouched = job.substrate.w === 100 && job.substrate.h === 100 && job.substrate.t === 8;
  return (
    <main
      id="main"
      data-view="brief"
      className="mx-auto grid w-full max-w-page gap-x-12 gap-y-8 px-5 py-5 lg:grid-cols-2"
    >
      <title>{`${job.title}: brief · Rich Layer`}</title>
      <section aria-labelledby="b1" className="flex flex-col gap-3">
        <h2 id="b1">The order</h2>
        <TextField name="title" label="Called" value={job.title} />
        <TextField name="client" label="For" value={job.client} />
        <div className="grid grid-cols-2 gap-3">
          <TextField name="quantity" label="How many" value={String(job.quantity)} inputMode="numeric" />
          <WhenField
            name="due"
            label="Due"
            kind="moment"
            zone={shop.zone}
            value={job.due ?? ""}
            hint={job.due ? undefined : "no date given"}
          />
        </div>
        {begin && (
          <p data-begin={begin.pieces}>
            <Why of={begin.why}>
              Begin with {begin.pieces} to have {job.quantity} good.
            </Why>{" "}
            {pieces === begin.pieces
              ? "Blanks, paint and minutes are those of all that are begun."
              : `${pieces} are begun: blanks, paint and minutes are those of ${pieces}.`}
          </p>
        )}
        <div className="grid grid-cols-2 gap-3">
          <TextField
            name="begin"
            label="Begun, with spares"
            value={job.choices.begin === undefined ? "" : String(job.choices.begin)}
            inputMode="numeric"
            from={job.choices.begin === undefined ? `worked out: ${pieces}` : "typed"}
            extra={{ intent: "choice" }}
          />
          <TextField
            name="lossShare"
            label="Share lost, as seen here"
            value={job.choices.lossShare === undefined ? "" : `${Math.round(job.choices.lossShare * 1000) / 10} %`}
            from={
              job.choices.lossShare === undefined
                ? loss === null
                  ? "no route yet"
                  : `default: ${Math.round(loss * 100)} %`
                : "seen here"
            }
            extra={{ intent: "choice" }}
          />
          {job.choices.lossShare !== undefined && (
            <TextField
              name="lossOn"
              label="Seen on how many"
              value={job.choices.lossOn === undefined ? "" : String(job.choices.lossOn)}
              inputMode="numeric"
              from={job.choices.lossOn === undefined ? `default: ${PRIOR_PIECES}` : "typed"}
              extra={{ intent: "choice" }}
            />
          )}
        </div>
        <WhenField
          name="start"
          label="Not before"
          kind="moment"
          zone={shop.zone}
          value={job.start}
          hint={`times are local: ${shop.zone}`}
        />
        <TextField name="order.text" label="What it says or shows, colours as asked" value={job.order.text} area />
        <TextField name="note" label="Notes" value={job.note} area />
      </section>
      <div className="flex flex-col gap-7">
        <section aria-labelledby="b2" className="flex flex-col gap-3">
          <h2 id="b2">The piece</h2>
          <PickField
            name="substrate.id"
            label="Made of"
            value={job.substrate.id}
            options={SUBSTRATES.map((s) => ({ value: s.id, label: s.name }))}
          />
          <BodyFields job={job} />
          <div className="grid fields-30 gap-3">
            <TextField
              name="substrate.w"
              label="Wide"
              value={len(job.substrate.w)}
              from={untouched ? "default" : undefined}
            />
            <TextField
              name="substrate.h"
              label="High"
              value={len(job.substrate.h)}
              from={untouched ? "default" : undefined}
            />
            <TextField
              name="substrate.t"
              label="Thick"
              value={len(job.substrate.t)}
              from={untouched ? "default" : undefined}
            />
            <PickField
              name="substrate.shape"
              label="Shape"
              value={round ? (job.substrate.shape as string) : ""}
              options={[
                { value: "", label: "flat" },
                { value: "ball", label: "ball" },
                { value: "cylinder", label: "cylinder" },
              ]}
            />
            {round && (
              <TextField
                name="substrate.diameter"
                label="Across"
                value={job.substrate.diameter === undefined ? "" : len(job.substrate.diameter)}
                from={job.substrate.diameter === undefined ? "unknown" : undefined}
              />
            )}
          </div>
          <p className="tag">Type what you have: 120 mm, 12 cm, 4 3/4 in; sheet metal by its gauge, 16 ga.</p>
          {!round && <BlankFields job={job} />}
          {sizes.length > 0 && (
            <p data-sizes={sizes.length}>
              Of the same order:{" "}
              {sizes.map((x, i) => (
                <span key={x.id}>
                  {i > 0 && ", "}
                  <Link className="text" to={`/jobs/${x.id}/brief`}>
                    {x.title}
                  </Link>{" "}
                  ({x.n})
                </span>
              ))}
              . Each is planned for itself and laid with the others on the Calendar.
            </p>
          )}
          {!round && (
            <Fold summary="Some of them in another size">
              <AskForm form={SizeForm} intent="size-add" start={{ w: "", h: "", pieces: "1" }}>
                <AskText name="w" label="Wide" hint={job.units === "inch" ? "in" : "mm"} className="w-28" />
                <AskText name="h" label="High" hint={job.units === "inch" ? "in" : "mm"} className="w-28" />
                <AskText name="pieces" label="How many" inputMode="numeric" className="w-24" />
                <AskButton>Add this size</AskButton>
              </AskForm>
              <p className="tag">
                The drawing grows or shrinks with the blank as far as it fits; way, paints, choices and wishes are the
                same.
              </p>
            </Fold>
          )}
          <fieldset>
            <legend className="text-muted">What it is used for</legend>
            <div className="mt-1 grid fields-40 gap-x-3">
              {USES.map((u) => (
                <TickField
                  key={u}
                  name={u}
                  label={USE_WORDS[u]}
                  value={job.use.includes(u)}
                  extra={{ intent: "use" }}
                />
              ))}
            </div>
          </fieldset>
          <TickField
            name="oldPaint"
            label="It was painted before, with what nobody knows"
            value={job.choices.oldPaint}
            extra={{ intent: "choice" }}
          />
          {job.use.includes("food") && (
            <p className="text-waiting">
              For food, mouth or children’s use every finish on it must be rated for that by its maker.
            </p>
          )}
        </section>
        <section aria-labelledby="b3" className="flex flex-col gap-3">
          <h2 id="b3">The laser</h2>
          {machines.length > 0 && (
            <PickField
              name="machineId"
              label="Machine"
              value={job.machineId ?? ""}
              options={[{ value: "", label: "not chosen" }, ...machines.map((m) => ({ value: m.id, label: m.name }))]}
            />
          )}
          {machines
            .filter((m) => m.id === job.machineId)
            .map((m) => (
              <MachineForm key={m.id} m={m} units={shop.units} />
            ))}
          <Fold
            summary={machines.length ? "Another machine" : "There is no machine yet. Add one:"}
            open={!machines.length}
          >
            <AddMachine intent="add-machine" />
          </Fold>
        </section>
        <section aria-labelledby="b4" className="flex flex-col gap-2">
          <Head>
            <span id="b4">The shop</span>
          </Head>
          <Fold
            summary={
              <>
                Hours: {hoursInWords(shop)} {!shop.hoursSet && <span className="tag">default</span>}
              </>
            }
          >
            <HoursPart shop={shop} />
          </Fold>
          <Fold
            summary={
              <>
                Climate:{" "}
                {shop.climate.kind === "constant"
                  ? `${showTemp(shop.climate.c, shop.units)}, ${Math.round(shop.climate.rh * 100)} % humidity`
                  : "24 hourly points"}{" "}
                {!shop.climate.measured && <span className="tag">default</span>}
              </>
            }
          >
            <ClimatePart shop={shop} />
          </Fold>
          <p className="tag">Kept with the shop: every job of it is planned by them.</p>
          <div className="mt-4 flex flex-wrap gap-3">
            <Link to="../artwork" relative="path" className="btn btn-main">
              Next: artwork
            </Link>
            <ActButton act={{ intent: "delete-job", id: job.id }} action="/do">
              Delete this job
            </ActButton>
          </div>
        </section>
      </div>
      <section aria-labelledby="b5" className="flex flex-col gap-3 lg:col-span-2">
        <h2 id="b5">With the customer</h2>
        <div className="grid gap-3 lg:grid-cols-3">
          <WhenField
            name="order.proofSent"
            label="Proof sent"
            kind="moment"
            zone={shop.zone}
            value={job.order.proofSent ?? ""}
          />
          <WhenField
            name="order.proofAccepted"
            label="Proof accepted"
            kind="moment"
            zone={shop.zone}
            value={job.order.proofAccepted ?? ""}
          />
          <WhenField
            name="order.delivered"
            label="Delivered"
            kind="moment"
            zone={shop.zone}
            value={job.order.delivered ?? ""}
          />
        </div>
        <PickField
          name="units"
          label="Units of this job"
          value={job.units}
          hint="kept with it, whatever the Workshop’s are changed to"
          options={[
            { value: "metric", label: "mm and °C" },
            { value: "inch", label: "inch and °F" },
          ]}
        />
      </section>
    </main>
  );
}

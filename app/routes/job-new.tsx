import { houseAct } from "../acts/house";
import type { Route } from "./+types/job-new";
import { redirect, useActionData } from "react-router";
import { readHeads, readShop } from "../store/queries";
import { formOf } from "../acts/answer";
import { AskButton, AskForm, AskPick, AskText } from "../ui/kit/ask";
import { DropFile } from "../ui/kit/drop";
import { dayFirst } from "../ui/kit/locale";
import { BEGINNING, useBeginning } from "../ui/beginning";
import { MeasuringWords } from "../ui/measuring";
import { PICTURE_LIMIT } from "../ui/taking";
import { PIECES } from "../core/catalogue/pieces";
import { AgainForm, KindForm, NewJobForm } from "../core/records/forms";
import { earlier } from "../views/jobs";

const BEGINS = ["new-job", "new-of-kind", "new-from-drawing", "new-from-picture", "job-again"];

export async function clientLoader() {
  const [base, heads] = await Promise.all([readShop(), readHeads()]);
  if (!base) throw redirect("/");
  return earlier(heads);
}

/** Where a new job is gone on with: by what it lacks. */
const NEXT: Record<string, string> = {
  "new-from-drawing": "brief",
  "new-from-picture": "brief",
  "job-again": "layers",
};

export async function clientAction({ request }: Route.ClientActionArgs) {
  const form = await formOf(request);
  const intent = BEGINS.includes(form.intent) ? form.intent : "new-job";
  const said = await houseAct({ ...form, intent, field: "title" });
  return said.error ? said : redirect(`/jobs/${said.done}/${NEXT[intent] ?? "brief"}`);
}

export default function NewJob({ loaderData: { jobs } }: Route.ComponentProps) {
  const refused = useActionData<typeof clientAction>();
  const { m, begin } = useBeginning();
  return (
    <main
      id="main"
      data-view="job-new"
      className="mx-auto grid w-full max-w-page gap-x-12 gap-y-8 px-5 py-8 lg:grid-cols-2"
    >
      <title>New job · Rich Layer</title>
      <section>
        <h1>New job</h1>
        <AskForm
          form={NewJobForm}
          intent="new-job"
          start={{ title: "", client: "" }}
          className="mt-5 flex flex-col items-stretch gap-4"
        >
          <AskText name="title" label="What is it called?" maxLength={120} autoFocus />
          <AskText name="client" label="Who is it for?" maxLength={120} />
          <button className="btn btn-main self-start">Begin the job</button>
        </AskForm>
      </section>
      <div className="flex flex-col gap-8">
        <section aria-labelledby="from-drawing">
          <h2 id="from-drawing" className="mb-2">
            From a drawing or a picture
          </h2>
          <DropFile
            label="Drawing or picture"
            what="an SVG drawing or a picture"
            kinds={BEGINNING}
            limit={PICTURE_LIMIT}
            onFile={(file) => void begin(file)}
            onRefused={m.refuse}
          >
            {(choose) => (
              <>
                <p>
                  Drop an SVG, PNG, JPEG or WebP here: the job is named after it. A drawing’s colours are what is
                  wanted; a photo is drawn by the beam.
                </p>
                <button type="button" className="btn" onClick={choose}>
                  Choose a file
                </button>
              </>
            )}
          </DropFile>
          <div className="mt-2">
            <MeasuringWords of={m} />
            {refused?.error && (
              <p role="alert" className="text-wrong">
                {refused.error}
              </p>
            )}
          </div>
        </section>
        <section aria-labelledby="of-kind">
          <h2 id="of-kind" className="mb-2">
            From a kind of piece
          </h2>
          <AskForm
            form={KindForm}
            intent="new-of-kind"
            start={{ kind: "" }}
            className="flex flex-wrap items-start gap-3"
          >
            <AskPick
              name="kind"
              label="What it is"
              options={PIECES.map((k) => ({ value: k.id, label: k.name }))}
              className="basis-full"
            />
            <AskButton>Begin with it</AskButton>
          </AskForm>
          <p className="tag mt-1">Blank, outline and use are those that such pieces often have; all can be changed.</p>
        </section>
        {jobs.length > 0 && (
          <section aria-labelledby="again">
            <h2 id="again" className="mb-2">
              An earlier job again
            </h2>
            <AskForm
              form={AgainForm}
              intent="job-again"
              start={{ from: "", pieces: "", due: "" }}
              extra={{ dayFirst: String(dayFirst()) }}
              className="flex flex-wrap items-start gap-3"
            >
              <AskPick name="from" label="Which one" options={jobs} className="basis-full" />
              <AskText name="pieces" label="Pieces" inputMode="numeric" hint="empty: as many as before" />
              <AskText name="due" label="Due" hint="fri 16:00, in 10 days; empty: no date" />
              <AskButton>Make it again</AskButton>
            </AskForm>
            <p className="tag mt-1">
              Blank, drawing, way, choices and the setting that won come along; log, dates and outcome stay with the
              first one.
            </p>
          </section>
        )}
      </div>
    </main>
  );
}

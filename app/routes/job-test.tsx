import { formOf } from "../acts/answer";
import { jobAct } from "../acts/job";
import { testView } from "../views/test";
import type { Route } from "./+types/job-test";
import { Link } from "react-router";
import { TestForm } from "../core/records/forms";
import { PLATE_QUESTIONS, type PlateQuestion } from "../core/records/ids";
import { AskButton, AskForm, AskPick, AskText } from "../ui/kit/ask";
import { showLength } from "../core/units/show";
import { Fold } from "../ui/kit/fold";
import { TestPlateView } from "../ui/test-plate";
import { readJobs } from "../store/queries";
import { readJob } from "./job-data";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const [{ plan }, jobs] = await Promise.all([readJob(params.id), readJobs()]);
  return testView(
    plan,
    jobs.filter((j) => j.tests?.length),
  );
}
export const clientAction = async ({ request, params }: Route.ClientActionArgs) =>
  jobAct(params.id, await formOf(request));

const ASKS: Record<PlateQuestion, string> = {
  window: "From where is the dark film gone, and what lies beneath still whole?",
  darken: "Where is the mark deepest, before it pales again?",
  "cut-mask": "From where is the mask cut, and the sheet still unmarked?",
  depth: "How deep does it dig by energy?",
};

/** What a strip of cells may lie on. */
function marginWords({ margin, units }: Pick<Route.ComponentProps["loaderData"], "margin" | "units">): string {
  const [w, h] = (margin ?? []).map((mm) => showLength(mm, units));
  return margin
    ? `a strip on this blank’s own margin, ${w} × ${h}: one power, many speeds`
    : "a strip on a margin: one power, many speeds";
}

export default function TestPage({ loaderData: d }: Route.ComponentProps) {
  return (
    <main id="main" data-view="test" className="mx-auto flex w-full max-w-page flex-col gap-6 px-5 py-5">
      <title>{`${d.job.title}: test · Rich Layer`}</title>
      <section aria-labelledby="t1">
        <h2 id="t1">Test plates</h2>
        <p className="text-muted">
          A plate is made on the same stack, cleaned, read cell by cell; what it says goes into the plan by one press.
          What other jobs have found stands in the{" "}
          <Link className="text" to="/settings">
            settings book
          </Link>
          .
        </p>
        {d.pooled && (
          <p data-pooled={`${d.pooled.others} ${d.pooled.own}`} className="my-2 max-w-prose">
            {d.pooled.says} <span className="text-small text-muted">From {d.pooled.from.join(", ")}.</span>
          </p>
        )}
        {d.machine === null ? (
          <p className="text-waiting">
            No machine is chosen yet, so no cell has an energy.{" "}
            <Link className="text" to="../brief" relative="path">
              Brief
            </Link>
          </p>
        ) : (
          <Fold summary="Design a plate" open={!d.plates.length} className="">
            <AskForm
              key={`${d.question} ${d.begin?.powers ?? ""}`}
              form={TestForm}
              intent="test-add"
              className="grid fields-40 items-start gap-3"
              start={{
                question: d.question,
                powers: d.begin?.powers ?? "20 to 80 %",
                rows: "5",
                speeds: d.begin?.speeds ?? "100 to 400 mm/s",
                cols: "6",
                spacing: "geometric",
                interval: d.begin?.interval ?? "0.1 mm",
                passes: "1",
                cellMm: d.units === "inch" ? "5/16 in" : "8 mm",
                gapMm: d.units === "inch" ? "1/16 in" : "2 mm",
                shows: "square",
                scrapW: "",
                scrapH: "",
              }}
            >
              <AskPick
                name="question"
                label="What it is to say"
                options={PLATE_QUESTIONS.map((value) => ({ value, label: ASKS[value] }))}
                className="col-span-full"
              />
              <AskText name="powers" label="Power, from and to" />
              <AskText name="rows" label="Powers" inputMode="numeric" />
              <AskText name="speeds" label="Speed, from and to" />
              <AskText name="cols" label="Speeds" inputMode="numeric" />
              <AskPick
                name="spacing"
                label="Steps"
                options={[
                  { value: "geometric", label: "by the same ratio" },
                  { value: "linear", label: "by the same difference" },
                ]}
              />
              <AskText name="interval" label="Between lines" />
              <AskText name="passes" label="Passes, every cell" inputMode="numeric" />
              <AskText name="cellMm" label="Cell" />
              <AskText name="gapMm" label="Gap" />
              <AskPick
                name="shows"
                label="In each cell"
                options={[
                  { value: "square", label: "a square" },
                  ...(d.drawn ? [{ value: "drawing", label: "the job’s own drawing" }] : []),
                ]}
              />
              <AskText name="scrapW" label="Scrap wide" hint="empty: not looked at" />
              <AskText name="scrapH" label="Scrap high" hint={marginWords(d)} />
              <AskButton>Keep this plate</AskButton>
            </AskForm>
          </Fold>
        )}
      </section>
      {d.plates.map((p, i) => (
        <TestPlateView key={p.t.id} p={p} units={d.units} n={d.plates.length - i} />
      ))}
    </main>
  );
}

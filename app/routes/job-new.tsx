import type { Route } from "./+types/job-new";
import { Form, redirect, useActionData } from "react-router";
import { nowMinutes } from "../clock";
import { Choices, Job, Order, Substrate, WrapUp } from "../core/records/job";
import { zonedClock } from "../core/time/zoned";
import { commit } from "../store/acts";
import { readHeads, readShop } from "../store/queries";
import { answer, formOf } from "./answer";

export async function clientLoader() {
  if (!(await readShop())) throw redirect("/");
  return null;
}

export async function clientAction({ request }: Route.ClientActionArgs) {
  const f = await formOf(request);
  const title = f.title.trim() || "New job";
  const base = (await readShop())!;
  const ids = new Set((await readHeads()).map((j) => j.id));
  const slug =
    title
      .toLowerCase()
      .normalize("NFKD")
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "")
      .slice(0, 40) || "job";
  let id = slug;
  for (let n = 2; ids.has(id); n++) id = `${slug}-${n}`;
  const clock = zonedClock(base.shop.zone);
  const made = await answer("title", () =>
    commit(`new job “${title}”`, [
      {
        table: "jobs",
        id,
        next: {
          ...new Job(),
          id,
          title,
          client: f.client.trim(),
          start: clock.toLocal(Math.ceil(nowMinutes() / 5) * 5),
          substrate: { ...new Substrate() },
          use: [],
          zones: [],
          edits: [],
          waivers: [],
          acknowledged: [],
          choices: { ...new Choices() },
          order: { ...new Order() },
          wrapUp: { ...new WrapUp(), flaws: [], photos: [] },
          machineId: base.machines[0]?.id ?? null,
          units: base.shop.units,
          language: base.shop.language,
        },
      },
    ]),
  );
  return made.error ? made : redirect(`/jobs/${id}/brief`);
}

export default function NewJob() {
  const said = useActionData<typeof clientAction>();
  return (
    <main id="main" data-view="job-new" className="mx-auto w-full max-w-xl px-5 py-8">
      <title>New job · Rich Layer</title>
      <h1>New job</h1>
      <Form method="post" className="mt-5 flex flex-col gap-4">
        <label className="flex flex-col gap-1">
          What is it called?
          <input name="title" className="field-in" maxLength={120} required autoFocus autoComplete="off" />
        </label>
        <label className="flex flex-col gap-1">
          Who is it for? <input name="client" className="field-in" maxLength={120} autoComplete="off" />
        </label>
        {said && "error" in said && said.error && (
          <p role="alert" className="text-wrong">
            {said.error}
          </p>
        )}
        <button className="btn btn-main self-start">Begin the job</button>
      </Form>
    </main>
  );
}

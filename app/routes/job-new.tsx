import { houseAct } from "../acts/house";
import type { Route } from "./+types/job-new";
import { redirect } from "react-router";
import { readShop } from "../store/queries";
import { formOf } from "../acts/answer";
import { AskForm, AskText } from "../ui/kit/ask";
import { NewJobForm } from "../core/records/forms";

export async function clientLoader() {
  if (!(await readShop())) throw redirect("/");
  return null;
}

export async function clientAction({ request }: Route.ClientActionArgs) {
  const said = await houseAct({ ...(await formOf(request)), intent: "new-job", field: "title" });
  return said.error ? said : redirect(`/jobs/${said.done}/brief`);
}

export default function NewJob() {
  return (
    <main id="main" data-view="job-new" className="mx-auto w-full max-w-xl px-5 py-8">
      <title>New job · Rich Layer</title>
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
    </main>
  );
}

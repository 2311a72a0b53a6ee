import { houseAct } from "../acts/house";
import type { Route } from "./+types/job-new";
import { Form, redirect, useActionData } from "react-router";
import { readShop } from "../store/queries";
import { formOf } from "../acts/answer";

export async function clientLoader() {
  if (!(await readShop())) throw redirect("/");
  return null;
}

export async function clientAction({ request }: Route.ClientActionArgs) {
  const said = await houseAct({ ...(await formOf(request)), intent: "new-job", field: "title" });
  return said.error ? said : redirect(`/jobs/${said.done}/brief`);
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

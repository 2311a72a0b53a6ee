/** Acts that belong to no page; some lead somewhere when they are done. */
import type { Route } from "./+types/do";
import { redirect } from "react-router";
import { formOf } from "../acts/answer";
import { houseAct } from "../acts/house";

const LEADS: Record<string, string> = { "start-empty": "/", "open-sample": "/", "delete-job": "/jobs" };

export async function clientAction({ request }: Route.ClientActionArgs) {
  const form = await formOf(request);
  const said = await houseAct(form);
  const to = Object.hasOwn(LEADS, form.intent) ? LEADS[form.intent] : null;
  return said.error || to === null ? said : redirect(to);
}

export async function clientLoader() {
  return redirect("/");
}

import type { Route } from "./+types/job-home";
import { redirect } from "react-router";
import { standing } from "../core/bench/next";
import { readJob } from "./job-data";

/** A job opens on the tab its state asks for. */
export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { world, plan, now } = await readJob(params.id);
  const s = standing(plan, now).is;
  const j = world.job;
  const tab = !j.zones.length
    ? j.artwork
      ? "artwork"
      : "brief"
    : !j.route
      ? "route"
      : plan.missing.some((m) => m.what === "colour")
        ? "artwork"
        : s === "done" || s === "closed"
          ? "wrap-up"
          : "layers";
  throw redirect(`/jobs/${params.id}/${tab}`);
}
export default function JobHome() {
  return null;
}

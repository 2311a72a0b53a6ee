import type { Route } from "./+types/shell";
import { useEffect } from "react";
import { Outlet, useRevalidator } from "react-router";
import { historyEnds, readJobs, readShop, watch } from "../store/queries";
import { onlySearch } from "./only-search";
import { FirstScreen, Shell } from "../ui/shell";

export async function clientLoader() {
  const base = await readShop();
  if (!base) return { shop: null } as const;
  const [jobs, ends] = await Promise.all([readJobs(), historyEnds()]);
  // Not needed for the first screen of all, so fetched only when there is a shop.
  const { airNow } = await import("./air-now");
  return {
    shop: base.shop,
    jobs: jobs.map((j) => ({ id: j.id, title: j.title })),
    ends,
    air: airNow(base.shop),
  };
}

export const shouldRevalidate = onlySearch;

export default function ShellRoute({ loaderData }: Route.ComponentProps) {
  const { revalidate } = useRevalidator();
  // The one effect on data: another tab has stored something, so the loaders run again.
  useEffect(() => watch(() => void revalidate()), [revalidate]);
  if (!loaderData.shop) return <FirstScreen />;
  return (
    <Shell jobs={loaderData.jobs} undo={loaderData.ends.undo} redo={loaderData.ends.redo} air={loaderData.air}>
      <Outlet />
    </Shell>
  );
}

import type { Route } from "./+types/shell";
import { useEffect, useState } from "react";
import { Outlet, useRevalidator } from "react-router";
import { historyEnds } from "../store/acts";
import { noteRead, readShop, watch } from "../store/queries";
import { onlySearch } from "./only-search";
import { nowMinutes } from "../clock";
import { useAlarms, wantsAlarms } from "../ui/bench/alarms";
import { FirstScreen, Shell } from "../ui/shell";

export async function clientLoader() {
  await noteRead();
  const base = await readShop();
  if (!base) return { shop: null } as const;
  const ends = await historyEnds();
  // Only who asked to be told pays for looking at every job under way.
  const alarms = wantsAlarms() ? await import("./rack-alarms").then((m) => m.rackAlarms()) : [];
  // Not needed for the first screen of all, so fetched only when there is a shop.
  const { airNow } = await import("../views/air");
  return {
    shop: base.shop,
    ends,
    air: airNow(base.shop, Math.floor(nowMinutes())),
    alarms,
  };
}

export const shouldRevalidate = onlySearch;

export default function ShellRoute({ loaderData }: Route.ComponentProps) {
  const { revalidate } = useRevalidator();
  // The one effect on data: another tab has stored something, so the loaders run again.
  useEffect(() => watch(() => void revalidate()), [revalidate]);
  const [opened] = useState(() => nowMinutes());
  useAlarms(loaderData.shop ? loaderData.alarms : [], opened);
  if (!loaderData.shop) return <FirstScreen />;
  return (
    <Shell undo={loaderData.ends.undo} redo={loaderData.ends.redo} air={loaderData.air}>
      <Outlet />
    </Shell>
  );
}

import type { Route } from "./+types/shell";
import { useEffect } from "react";
import { Outlet, useRevalidator } from "react-router";
import { historyEnds } from "../store/acts";
import { readJobs, readShop, watch } from "../store/queries";
import { nowMinutes } from "../clock";
import { air } from "../core/drying/climate";
import { rateAt } from "../core/drying/clock";
import { zonedClock } from "../core/time/zoned";
import { showTemp } from "../core/units/show";
import { onlySearch } from "./job-data";
import { FirstScreen, Shell } from "../ui/shell";

export async function clientLoader() {
  const base = await readShop();
  if (!base) return { shop: null } as const;
  const [jobs, ends] = await Promise.all([readJobs(), historyEnds()]);
  const curve = air(base.shop.climate);
  const m = zonedClock(base.shop.zone).minuteOfDay(Math.floor(nowMinutes()));
  const rate = rateAt(curve, { waterBorne: true, minC: 10, fan: false, limit: "plain" }, m);
  const speed = rate === 0 ? "water paints do not dry now" : Math.abs(rate - 1) < 0.06 ? "water paints dry at reference speed" : rate < 1 ? `water paints ${(1 / rate).toFixed(1)}× slower` : `water paints ${rate.toFixed(1)}× faster`;
  return {
    shop: base.shop,
    jobs: jobs.map((j) => ({ id: j.id, title: j.title })),
    ends,
    air: `${base.shop.climate.measured ? "Shop" : "Shop (default)"} ${showTemp(curve.c(m), base.shop.units)}, ${Math.round(curve.rh(m) * 100)} % damp: ${speed}`,
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

import type { Route } from "./+types/shell";
import { useState } from "react";
import { Outlet, useFetcher, useFetchers } from "react-router";
import { historyEnds } from "../store/acts";
import { noteRead, readShop } from "../store/queries";
import { onlySearch } from "./only-search";
import { Deaf, useOtherTabs } from "./other-tabs";
import { nowMinutes } from "../clock";
import { DropAnywhere } from "../ui/drop-anywhere";
import { useAlarms, wantsAlarms } from "../ui/bench/alarms";
import { WaysOf } from "../ui/kit/ways";
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

/** An act under way is held to its end, and led where it leads, even when the form that sent it has gone from the page meanwhile. */
const Held = ({ id }: { id: string }) => (useFetcher({ key: id }), null);
const HeldActs = () => useFetchers().map((f) => <Held key={f.key} id={f.key} />);

export default function ShellRoute({ loaderData }: Route.ComponentProps) {
  const deaf = useOtherTabs();
  const [opened] = useState(() => nowMinutes());
  useAlarms(loaderData.shop ? loaderData.alarms : [], opened);
  return (
    <>
      <HeldActs />
      {loaderData.shop ? (
        <WaysOf value={loaderData.shop}>
          <Shell undo={loaderData.ends.undo} redo={loaderData.ends.redo} air={loaderData.air}>
            <Deaf why={deaf} />
            <DropAnywhere>
              <Outlet />
            </DropAnywhere>
          </Shell>
        </WaysOf>
      ) : (
        <FirstScreen />
      )}
    </>
  );
}

import type { Route } from "./+types/job";
import { useEffect, useRef } from "react";
import { Link, NavLink, Outlet, useLocation } from "react-router";
import { standing } from "../core/bench/next";
import { showWhen } from "../core/time/zoned";
import { blankWords } from "../core/geometry/blank";
import { showLength, showMinutes } from "../core/units/show";
import { Why } from "../ui/kit/why";
import { readJob } from "./job-data";
import { opened } from "../views/opened";
import { onlySearch } from "./only-search";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const { world, plan, now } = await readJob(params.id);
  const due = world.job.due ? plan.context.clock.fromLocal(world.job.due) : null;
  return {
    job: world.job,
    /** pieces begun, spares with them */
    pieces: plan.context.pieces,
    units: world.shop.units,
    substrate: plan.context.substrate.name,
    blank: blankWords(world.job.substrate, (mm) => showLength(mm, world.shop.units)),
    standing: standing(plan, now).is,
    ready: plan.ready,
    readyText: plan.ready === null ? null : showWhen(plan.context.clock, plan.ready),
    readyLocal: plan.ready === null ? null : plan.context.clock.toLocal(plan.ready),
    stuck: plan.stuck,
    missing: plan.missing.length > 0,
    slack: due === null || plan.ready === null ? null : due - plan.ready,
    decides: plan.decides[0]?.why ?? null,
    why: opened(plan, { of: "ready" }),
    slackWhy: opened(plan, { of: "margin" }),
  };
}

const TABS = [
  ["brief", "Brief"],
  ["artwork", "Artwork"],
  ["picture", "Picture"],
  ["route", "Route"],
  ["layers", "Layers"],
  ["calendar", "Calendar"],
  ["test", "Test"],
  ["files", "Files"],
  ["cost", "Cost"],
  ["bench", "Bench"],
  ["wrap-up", "Wrap-up"],
];

export const shouldRevalidate = onlySearch;

export default function JobLayout({ loaderData: d }: Route.ComponentProps) {
  const { job } = d;
  const tabs = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  // where not all tabs fit, the one that is open lies in view
  useEffect(() => {
    const bar = tabs.current;
    const here = bar?.querySelector("[aria-current=page]")?.getBoundingClientRect();
    if (!bar || !here) return;
    const box = bar.getBoundingClientRect();
    bar.scrollLeft += here.left + here.width / 2 - (box.left + box.width / 2);
  }, [pathname]);
  return (
    <>
      <div
        role="region"
        aria-label="Job head"
        className={
          "flex shrink-0 items-start justify-between gap-4 border-b border-line px-5 pt-2 max-lg:flex-col max-lg:gap-0 " +
          "max-lg:px-3 max-lg:pt-1 lg:h-23"
        }
      >
        <div className="min-w-0 max-w-full">
          <h1 className="flex flex-wrap items-baseline gap-x-2 text-large max-lg:text-sub">
            {job.title}
            <span
              data-given
              className="font-text text-small font-normal tracking-normal text-muted max-lg:truncate max-lg:text-fine"
            >
              {job.quantity} of {d.substrate.toLowerCase()} {showLength(job.substrate.w, d.units)} ×{" "}
              {[showLength(job.substrate.h, d.units), d.blank].filter(Boolean).join(", ")}
              {d.pieces > job.quantity && `, ${d.pieces} begun`}
              {job.client && `, for ${job.client}`}
            </span>
          </h1>
          <nav
            ref={tabs}
            aria-label="Job"
            className="mt-1 flex gap-5 overflow-x-auto max-lg:mt-0 max-lg:[scrollbar-width:none]"
          >
            {TABS.map(([to, name]) => (
              <NavLink
                key={to}
                to={to}
                className={({ isActive }) =>
                  "border-b-3 pb-2 pt-1 whitespace-nowrap max-lg:flex max-lg:h-touch max-lg:items-center max-lg:py-0 " +
                  `${isActive ? "border-act font-semibold" : "border-transparent"}`
                }
              >
                {name}
              </NavLink>
            ))}
          </nav>
        </div>
        <div className="flex items-center gap-4 pt-1 max-lg:w-full max-lg:justify-between max-lg:pb-1">
          <div className="text-right max-lg:text-left">
            {d.readyText ? (
              <p
                className={`font-head text-lead font-semibold ${d.slack !== null && d.slack < 0 ? "text-wrong" : "text-ready"}`}
              >
                <Why of={d.why}>
                  Ready{" "}
                  <time data-ready={d.readyLocal ?? undefined} dateTime={d.readyLocal ?? undefined}>
                    {d.readyText}
                  </time>
                </Why>
              </p>
            ) : (
              <p className="text-waiting">{d.missing ? "Still to be filled in" : (d.stuck ?? "No ready time yet")}</p>
            )}
            {d.slack !== null && (
              <p className={`text-small ${d.slack < 0 ? "text-wrong" : "text-muted"}`}>
                <Why quiet inline of={d.slackWhy}>
                  {d.slack < 0 ? `${showMinutes(-d.slack)} after it is due` : `${showMinutes(d.slack)} before due`}
                </Why>
              </p>
            )}
            {d.slack === null && d.decides && d.readyText && (
              <p className="max-w-md text-small text-muted max-lg:hidden">
                <Why quiet of={d.why} className="w-full">
                  <span className="truncate">{d.decides}</span>
                </Why>
              </p>
            )}
          </div>
          {!d.missing && d.standing !== "closed" && (
            <Link to="bench" className="btn btn-main shrink-0">
              Go to the bench
            </Link>
          )}
        </div>
      </div>
      <Outlet />
    </>
  );
}

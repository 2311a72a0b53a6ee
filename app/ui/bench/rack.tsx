/** All jobs under way: soonest to shut first and largest, each with what it waits for. */
import type { RackRow } from "../../views/shown";
import { Link } from "react-router";
import { showMinutes } from "../../core/units/show";
import { DryClock } from "../dry-clock";
import { Why } from "../kit/why";

/** minutes in the sun or warm air after which a wet film skins over and bubbles */
export const SUN_MIN = 15;
const WORD = { ready: "ready now", waiting: "", missed: "window shut", done: "all steps done" };

export function Rack({ rows, here, now }: { rows: RackRow[]; here: string; now: number }) {
  if (!rows.length) return <p className="text-bench-muted">Nothing is under way.</p>;
  return (
    <ul className="flex flex-col gap-3">
      {rows.map((r, i) => (
        <li
          key={r.id}
          data-rack={r.id}
          className={`rounded-xl bg-bench-lifted p-4 ${r.id === here ? "border-2 border-bench-ready" : ""}`}
        >
          <h3 className={i === 0 && r.closes !== null ? "text-sub" : ""}>
            {r.id === here ? (
              `${r.title} · ${r.next}`
            ) : (
              <Link
                to={r.is === "done" ? `/jobs/${r.id}/wrap-up` : `/jobs/${r.id}/bench`}
                className="inline-block min-h-touch py-2 underline"
              >
                {r.title} · {r.next}
              </Link>
            )}
          </h3>
          {r.sunSince !== null && now - r.sunSince < 240 && (
            <p className="text-bench-late">
              <Why
                quiet
                of={{
                  title: "In the sun or warm air",
                  rows: () => [
                    {
                      name: "Since its last coat",
                      value: showMinutes(Math.max(0, Math.floor(now - (r.sunSince as number)))),
                      from: "bench log",
                    },
                    { name: "Bring it in after", value: showMinutes(SUN_MIN), from: "default" },
                  ],
                  ask: null,
                }}
              >
                In the sun or warm air for {Math.max(0, Math.floor(now - r.sunSince))} min
                {now - r.sunSince >= SUN_MIN ? ": bring it in" : ""}.
              </Why>
            </p>
          )}
          {r.state !== null ? (
            <DryClock
              large={i === 0}
              state={r.state}
              words={r.words}
              from={r.from}
              opens={r.opens}
              closes={r.closes}
              now={now}
              why={r.why}
            />
          ) : (
            <p className={r.is === "ready" ? "text-bench-fresh" : "text-bench-muted"}>{WORD[r.is]}</p>
          )}
        </li>
      ))}
    </ul>
  );
}

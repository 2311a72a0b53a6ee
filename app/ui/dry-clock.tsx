/** A wait as a bar: what state it waits for, how far it is, when its window opens and shuts. */
import type { Opened } from "../views/opened";
import { showMinutes } from "../core/units/show";
import { Why } from "./kit/why";

export interface DryClockProps {
  state: string;
  words: string;
  from: number;
  opens: number | null;
  closes: number | null;
  now: number;
  large?: boolean;
  /** what its figures are made of */
  why: Opened;
}

export function DryClock({ state, words, from, opens, closes, now, large, why }: DryClockProps) {
  const open = opens !== null && now >= opens;
  const shut = closes !== null && now > closes;
  const share = opens === null ? 0 : Math.min(1, Math.max(0.02, (now - from) / Math.max(1, opens - from)));
  const text =
    opens === null
      ? `${words}: never in this climate`
      : shut
        ? `Window shut ${showMinutes(now - (closes as number))} ago`
        : open
          ? closes !== null
            ? `${cap(words)} now, shuts in ${showMinutes(closes - now)}`
            : `${cap(words)} now`
          : `${cap(words)} in ${showMinutes(opens - now)}${closes !== null ? `, shuts ${showMinutes(closes - opens)} after` : ""}`;
  return (
    <div data-wait-for={state} data-opens={opens ?? ""} data-closes={closes ?? ""}>
      <div
        className={`${large ? "h-3" : "h-2"} my-1 overflow-hidden rounded-full border border-strong ${open ? "" : "hatch"}`}
        aria-hidden="true"
      >
        <div
          className={`h-full ${shut ? "bg-wrong" : open ? "bg-ready" : "bg-waiting"}`}
          style={{ width: `${share * 100}%` }}
        />
      </div>
      <p
        className={`${large ? "text-lg" : ""} ${shut || opens === null ? "text-wrong" : open ? "text-ready" : "text-waiting"}`}
      >
        <Why quiet of={why}>
          {text}
        </Why>
      </p>
    </div>
  );
}

const cap = (s: string): string => s[0].toUpperCase() + s.slice(1);

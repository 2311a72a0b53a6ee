/**
 * Telling the maker when a wait is over or a window is about to shut, by the system's own notifications, with the page open in
 * any tab, hidden too. With everything closed nothing can run; then only the calendar's alarms can tell, and the page says so.
 */
import type { RackRow } from "../../views/shown";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { nowMinutes } from "../../clock";
import { SUN_MIN } from "./rack";

export interface AlarmEvent {
  /** the same for the same event, so that two tabs do not tell twice */
  key: string;
  /** minute since 1970 */
  at: number;
  title: string;
  body: string;
}

/** minutes before a window shuts at which it is told */
export const WARN_MIN = 10;
/** how often it is looked, s; hidden tabs are slowed to once a minute by the browser */
const EVERY_S = 15;
/** older than this it is no news, min */
const STALE_MIN = 120;

export const alarmsOf = (rack: RackRow[]): AlarmEvent[] =>
  rack.flatMap((r) => [
    ...(r.sunSince !== null
      ? [
          {
            key: `${r.id}|sun|${r.sunSince}`,
            at: r.sunSince + SUN_MIN,
            title: `${r.title}: bring it in`,
            body: `It has stood in the sun or warm air for ${SUN_MIN} minutes.`,
          },
        ]
      : []),
    ...(r.is !== "done" && r.opens !== null && r.state !== null
      ? [
          {
            key: `${r.id}|${r.next}|opens|${r.opens}`,
            at: r.opens,
            title: `${r.title}: ready`,
            body: `${r.next} can be done now.`,
          },
        ]
      : []),
    ...(r.is !== "missed" && r.closes !== null
      ? [
          {
            key: `${r.id}|${r.next}|closes|${r.closes}`,
            at: r.closes - WARN_MIN,
            title: `${r.title}: window closing`,
            body: `${r.next}: the window shuts in ${WARN_MIN} minutes.`,
          },
        ]
      : []),
  ]);

const FLAG = "richlayer.notify";
export const wantsAlarms = (): boolean =>
  typeof Notification !== "undefined" && Notification.permission === "granted" && localStorage.getItem(FLAG) === "on";

/** Which of the known events fall due: told once, not when they were over before the page was opened or are no news any more. */
export const due = (known: Iterable<AlarmEvent>, told: ReadonlySet<string>, since: number, now: number): AlarmEvent[] =>
  [...known].filter((e) => !told.has(e.key) && e.at <= now && e.at > since && now - e.at <= STALE_MIN);

/** Tells what falls due while the page is open. Nothing is read or stored. */
export function useAlarms(events: AlarmEvent[], since: number): void {
  const known = useRef(new Map<string, AlarmEvent>());
  const told = useRef(new Set<string>());
  useEffect(() => {
    // What has come since the last look is kept until it is told, even when the job has moved on to its next step.
    for (const [k, e] of known.current) if (e.at > nowMinutes()) known.current.delete(k);
    for (const e of events) known.current.set(e.key, e);
  }, [events]);
  useEffect(() => {
    const look = (): void => {
      if (!wantsAlarms()) return;
      for (const e of due(known.current.values(), told.current, since, nowMinutes())) {
        told.current.add(e.key);
        new Notification(e.title, { body: e.body, tag: e.key, requireInteraction: true });
      }
    };
    const timer = setInterval(look, EVERY_S * 1000);
    return () => clearInterval(timer);
  }, [since]);
}

/** The switch for it, with what it can and cannot do. */
export function TellMe({ events, now }: { events: AlarmEvent[]; now: number }) {
  const [opened] = useState(now);
  const [state, setState] = useState<"off" | "on" | "denied" | "none">(() =>
    typeof Notification === "undefined"
      ? "none"
      : wantsAlarms()
        ? "on"
        : Notification.permission === "denied"
          ? "denied"
          : "off",
  );
  useAlarms(state === "on" ? events : [], opened);
  const turn = async (): Promise<void> => {
    if (state === "on") {
      localStorage.setItem(FLAG, "off");
      return setState("off");
    }
    const answer = await Notification.requestPermission();
    localStorage.setItem(FLAG, answer === "granted" ? "on" : "off");
    setState(answer === "granted" ? "on" : answer === "denied" ? "denied" : "off");
  };
  if (state === "none") return null;
  if (state === "denied")
    return (
      <p className="max-w-80 text-bench-small text-bench-muted">
        This browser is told not to notify. Calendar alarms, on the job’s Calendar, work without it.
      </p>
    );
  return (
    <span className="flex items-center gap-3">
      {state === "on" && (
        <span className="text-bench-small text-bench-muted">
          while a tab is open; with all closed only{" "}
          <Link className="underline" to="../calendar" relative="path">
            calendar alarms
          </Link>{" "}
          ring
        </span>
      )}
      <button
        type="button"
        aria-pressed={state === "on"}
        className="btn !min-h-touch !border-bench-line"
        onClick={() => void turn()}
      >
        {state === "on" ? "Tells you" : "Tell me"}
        <span className="max-lg:hidden"> when ready or closing</span>
      </button>
    </span>
  );
}

/** A moment, a day or a time of day, typed as makers say it or picked from a leaf of the calendar; stores itself as other fields do. */
import { CalendarDays } from "lucide-react";
import { Popover } from "radix-ui";
import { lazy, Suspense, useId, useRef, useState } from "react";
import { readTime, readWhen, showLocal } from "../../core/time/typed";
import { showTime, zonedClock } from "../../core/time/zoned";
import { nowMinutes } from "../../clock";
import { TextField, type Common, type TextHandle } from "./field";
import { dayFirst } from "./locale";
import { useFace } from "./ways";

const DaySheet = lazy(() => import("./day-sheet"));

export type WhenKind = "moment" | "day" | "time";

const noTime = (text: string): string => `“${text.trim().slice(0, 20)}” is no time of day; write 8:30, 16:00 or 4pm.`;

/** What was typed, as it is stored. @throws RangeError in a sentence */
function readBy(kind: WhenKind, text: string, before: string, zone: string): string {
  if (!text.trim()) return "";
  if (kind === "time") {
    // the end of a day is a time to shut at
    const t = /^\s*24([:.]?00)?\s*$/.test(text) ? "24:00" : readTime(text);
    if (t === null) throw new RangeError(noTime(text));
    return t;
  }
  const now = zonedClock(zone).toLocal(Math.floor(nowMinutes()));
  const read = readWhen(text, { now, time: before.slice(11, 16) || undefined, dayFirst: dayFirst() });
  return kind === "day" ? read.slice(0, 10) : read;
}

/** @param zone the shop's, so that “tomorrow” is the shop's tomorrow; the browser's where none is given */
export function WhenField({
  kind,
  zone = new Intl.DateTimeFormat().resolvedOptions().timeZone,
  ...p
}: Common & { value: string; kind: WhenKind; zone?: string }) {
  const field = useRef<TextHandle>(null);
  const face = useFace();
  const [open, setOpen] = useState(false);
  const time = useId();
  /** what was typed as a time in the sheet and is none */
  const [odd, tell] = useState<string | null>(null);
  const today = (): string => zonedClock(zone).toLocal(Math.floor(nowMinutes())).slice(0, 10);
  const put = (local: string): void => field.current?.put(kind === "day" ? local.slice(0, 10) : local);
  const day = p.value.slice(0, 10);
  const clock = p.value.slice(11, 16) || "12:00";
  return (
    <TextField
      {...p}
      handle={field}
      show={(v) => (kind === "time" ? v && showTime(v, face) : showLocal(v, face))}
      read={(text) => readBy(kind, text, p.value, zone)}
      placeholder={kind === "time" ? "such as 8:30" : `such as mon ${showTime("16:00", face)}`}
      beside={
        kind !== "time" && (
          <Popover.Root open={open} onOpenChange={setOpen}>
            <Popover.Trigger className="btn btn-quiet beside" aria-label="Pick from a calendar">
              <CalendarDays size={18} aria-hidden="true" />
            </Popover.Trigger>
            <Popover.Portal>
              <Popover.Content className="sheet" align="end" sideOffset={4} collisionPadding={8} aria-label="Calendar">
                <Suspense fallback={<p className="p-4 text-muted">Opening the calendar…</p>}>
                  <DaySheet
                    day={day}
                    today={today()}
                    onPick={(d) => {
                      put(`${d}T${clock}`);
                      setOpen(false);
                    }}
                  />
                </Suspense>
                {kind === "moment" && day && (
                  <p className="mt-2 flex items-center gap-2">
                    <label htmlFor={time} className="text-muted">
                      At
                    </label>
                    <input
                      id={time}
                      key={clock}
                      defaultValue={showTime(clock, face)}
                      className="field-in w-24"
                      autoComplete="off"
                      aria-invalid={odd !== null || undefined}
                      aria-describedby={odd === null ? undefined : `${time}-e`}
                      onBlur={(e) => {
                        const t = readTime(e.target.value);
                        tell(t === null ? e.target.value : null);
                        if (t !== null && t !== clock) put(`${day}T${t}`);
                      }}
                    />
                    {odd !== null && (
                      <span id={`${time}-e`} role="alert" className="text-small text-wrong">
                        {noTime(odd)}
                      </span>
                    )}
                  </p>
                )}
              </Popover.Content>
            </Popover.Portal>
          </Popover.Root>
        )
      }
    />
  );
}

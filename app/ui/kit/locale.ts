/** How the maker writes dates and times: as set in Workshop, and else as their browser has it. */
import { useWays } from "./ways";

/** First day of the week, 0 for Sunday. */
export function useFirstOfWeek(): Weekday {
  const { weekStart } = useWays();
  return weekStart ? ({ sun: 0, mon: 1, sat: 6 } as const)[weekStart] : firstOfWeek();
}
/** Does the day stand before the month where a date is figures alone? */
export const dayFirst = (): boolean => {
  const parts = new Intl.DateTimeFormat(undefined, { day: "numeric", month: "numeric" }).formatToParts(0);
  return parts.findIndex((p) => p.type === "day") < parts.findIndex((p) => p.type === "month");
};

type Weekday = 0 | 1 | 2 | 3 | 4 | 5 | 6;
/** Monday where the browser does not say. */
function firstOfWeek(): Weekday {
  const here = new Intl.Locale(new Intl.DateTimeFormat().resolvedOptions().locale) as Intl.Locale & {
    weekInfo?: { firstDay: number };
    getWeekInfo?: () => { firstDay: number };
  };
  return (((here.getWeekInfo?.() ?? here.weekInfo)?.firstDay ?? 1) % 7) as Weekday;
}

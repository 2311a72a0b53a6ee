/** How the maker writes dates and times: as set in Workshop, and else as their browser has it. */
import { createContext, useContext } from "react";
import type { Shop } from "../../core/records/shop";
import { showLocal } from "../../core/time/typed";
import type { Face } from "../../core/time/zoned";

const Ways = createContext<Pick<Shop, "clockFace" | "weekStart">>({});
/** What is drawn within it writes dates as this shop does. */
export const WaysOf = Ways.Provider;
/** by 24 hours or by twice 12 */
export const useFace = (): Face => useContext(Ways).clockFace ?? "24";
/** First day of the week, 0 for Sunday. */
export function useFirstOfWeek(): Weekday {
  const { weekStart } = useContext(Ways);
  return weekStart ? ({ sun: 0, mon: 1, sat: 6 } as const)[weekStart] : firstOfWeek();
}
/** A local moment, as the shop writes it; where there is no room for it in a line, the time goes under the day. */
export function When({ at }: { at: string | null }) {
  const [day, time] = showLocal(at, useFace()).split(", ");
  return (
    <>
      <span className="whitespace-nowrap">{time ? `${day},` : day}</span>
      {time && " "}
      {time && <span className="whitespace-nowrap">{time}</span>}
    </>
  );
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

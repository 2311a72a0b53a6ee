/** How a leaf of the calendar looks, and its days as the picker wants them. */
import { ChevronLeft, ChevronRight } from "lucide-react";

/** A day of the wall clock as the picker wants it: in the browser's own zone, whatever the shop's. */
export const toDate = (day: string): Date =>
  new Date(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8, 10)));
const two = (n: number): string => String(n).padStart(2, "0");
export const fromDate = (d: Date): string => `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`;

const CLASSES = {
  root: "w-[18.5rem] max-w-full",
  months: "relative",
  month_caption: "flex h-9 items-center justify-center font-head font-bold",
  nav: "absolute inset-x-0 top-0 flex h-9 items-center justify-between",
  button_previous: "btn btn-quiet",
  button_next: "btn btn-quiet",
  month_grid: "day-grid",
  weekday: "text-center font-normal",
  day: "day-cell",
  day_button: "day-button",
  selected: "day-selected",
  today: "day-today",
  outside: "text-muted",
};

const SPOKEN = new Intl.DateTimeFormat("en-GB", { weekday: "long", day: "numeric", month: "long", year: "numeric" });
/** what every leaf is given */
export const LEAF = {
  showOutsideDays: true,
  labels: {
    // the number that is seen stands in it as a word of its own
    labelDayButton: (d: Date, is: { today?: boolean; selected?: boolean }) =>
      `${SPOKEN.format(d)}${is.today ? ", today" : ""}${is.selected ? ", chosen" : ""}`,
  },
  classNames: CLASSES,
  components: {
    Chevron: ({ orientation }: { orientation?: string }) =>
      orientation === "left" ? (
        <ChevronLeft size={18} aria-hidden="true" />
      ) : (
        <ChevronRight size={18} aria-hidden="true" />
      ),
  },
} as const;

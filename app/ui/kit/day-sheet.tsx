/** The leaf of a calendar that a date is picked from, loaded when it is first opened. */
import { DayPicker } from "react-day-picker";
import { fromDate, LEAF, toDate } from "./day-look";
import { useFirstOfWeek } from "./locale";

export default function DaySheet({
  day,
  today,
  onPick,
}: {
  /** `YYYY-MM-DD`; empty: none */
  day: string;
  today: string;
  onPick: (day: string) => void;
}) {
  return (
    <DayPicker
      {...LEAF}
      weekStartsOn={useFirstOfWeek()}
      labels={{ ...LEAF.labels, labelNav: () => "Months of one day" }}
      mode="single"
      autoFocus
      today={toDate(today)}
      defaultMonth={toDate(day || today)}
      selected={day ? toDate(day) : undefined}
      // the day that is chosen already, pressed again, is chosen still
      onSelect={(d) => onPick(d ? fromDate(d) : day)}
    />
  );
}

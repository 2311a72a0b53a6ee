/** A leaf on which any number of days is marked, loaded when it is first opened. */
import { DayPicker } from "react-day-picker";
import { fromDate, LEAF, toDate } from "./day-look";
import { useFirstOfWeek } from "./locale";

export default function DaysSheet({
  days,
  today,
  onPick,
}: {
  /** `YYYY-MM-DD` */
  days: readonly string[];
  today: string;
  onPick: (days: string[]) => void;
}) {
  return (
    <DayPicker
      {...LEAF}
      weekStartsOn={useFirstOfWeek()}
      labels={{ ...LEAF.labels, labelNav: () => "Months of many days" }}
      mode="multiple"
      today={toDate(today)}
      defaultMonth={toDate(today)}
      selected={days.map(toDate)}
      onSelect={(all) => onPick((all ?? []).map(fromDate))}
    />
  );
}

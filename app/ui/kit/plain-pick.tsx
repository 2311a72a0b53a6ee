/** A choice within a form that is sent as a whole. */
import { useId, useState } from "react";
import { type Option, Pick } from "./pick";

export function AskPickPlain({ name, label, options }: { name: string; label: string; options: readonly Option[] }) {
  const id = useId();
  const [value, put] = useState(options[0].value);
  return (
    <div className="flex flex-col gap-0.5">
      <label htmlFor={id} className="text-small text-muted">
        {label}
      </label>
      <input type="hidden" name={name} value={value} />
      <Pick id={id} value={value} options={options} onChange={put} />
    </div>
  );
}

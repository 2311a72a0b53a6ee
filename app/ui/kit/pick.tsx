/** One out of a list, and yes or no: a list that opens beneath its field, and a box to tick, both in the app's own look. */
import { Check, ChevronDown } from "lucide-react";
import { Checkbox, Select } from "radix-ui";
import { useId, useState } from "react";

export interface Option {
  value: string;
  label: string;
}
/** The list underneath takes no empty value: this stands for it in there. */
const NONE = "\u0000none";
const inner = (v: string): string => (v === "" ? NONE : v);

export interface Picked {
  id?: string;
  value: string;
  options: readonly Option[];
  onChange: (value: string) => void;
  onOpen?: () => void;
  invalid?: boolean;
  describedBy?: string;
  busy?: boolean;
  disabled?: boolean;
  className?: string;
  /** where no label stands beside it */
  label?: string;
}

/** options from which on a list is made when it is opened: many jobs, each in every list of a page, are a long turn of it */
const LONG = 30;

export function Pick(p: Picked) {
  const [open, opens] = useState(false);
  const made = open || p.options.length <= LONG ? p.options : p.options.filter((o) => o.value === p.value);
  return (
    <Select.Root
      value={inner(p.value)}
      disabled={p.disabled}
      onValueChange={(v) => p.onChange(v === NONE ? "" : v)}
      onOpenChange={(now) => {
        opens(now);
        if (now) p.onOpen?.();
      }}
    >
      <Select.Trigger
        id={p.id}
        className={`field-in pick ${p.className ?? ""}`}
        aria-label={p.label}
        aria-invalid={p.invalid || undefined}
        aria-describedby={p.describedBy}
        aria-busy={p.busy || undefined}
        onFocus={p.onOpen}
      >
        <span className="min-w-0 flex-1 truncate text-left">
          <Select.Value placeholder="not chosen">
            {p.options.find((o) => o.value === p.value)?.label ?? "not chosen"}
          </Select.Value>
        </span>
        <Select.Icon asChild>
          <ChevronDown size={16} aria-hidden="true" className="flex-none" />
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content position="popper" sideOffset={3} className="pick-list" collisionPadding={8}>
          <Select.Viewport>
            {made.map((o) => (
              <Select.Item key={o.value} value={inner(o.value)} className="pick-item">
                <Select.ItemText>{o.label}</Select.ItemText>
                <Select.ItemIndicator asChild>
                  <Check size={16} aria-hidden="true" className="ml-auto flex-none" />
                </Select.ItemIndicator>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}

/** {@link Pick} with its name above it. */
export function LabelledPick({ label, className, ...p }: Picked & { label: string }) {
  const own = useId();
  return (
    <div className={`flex flex-col gap-0.5 ${className ?? ""}`}>
      <label htmlFor={p.id ?? own} className="text-small text-muted">
        {label}
      </label>
      <Pick {...p} id={p.id ?? own} />
    </div>
  );
}

export function Tick({
  id,
  checked,
  onChange,
  describedBy,
  busy,
  disabled,
  label,
}: {
  id?: string;
  checked: boolean;
  onChange: (on: boolean) => void;
  describedBy?: string;
  busy?: boolean;
  disabled?: boolean;
  label?: string;
}) {
  return (
    <Checkbox.Root
      id={id}
      checked={checked}
      disabled={disabled}
      onCheckedChange={(v) => onChange(v === true)}
      className="tick"
      aria-label={label}
      aria-describedby={describedBy}
      aria-busy={busy || undefined}
    >
      <Checkbox.Indicator>
        <Check size={18} strokeWidth={3} aria-hidden="true" />
      </Checkbox.Indicator>
    </Checkbox.Root>
  );
}

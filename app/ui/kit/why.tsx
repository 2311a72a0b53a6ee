/** The panel that says why a number is what it is: its inputs, where each came from, and which of them moves it most. */
import { useState } from "react";
import { Popover } from "radix-ui";
import { CircleHelp } from "lucide-react";
import type { Input } from "../../core/why/inputs";
import type { WhyAsk } from "../../workers/protocol";
import { Moves } from "./moves";

export interface Opened {
  title: string;
  /** inputs with where each came from, asked for when the panel opens */
  rows(): Input[];
  /** what the worker needs to try what moves it; null: it was measured, logged or typed, and nothing can be varied */
  ask: WhyAsk | null;
}

interface WhyProps {
  of: Opened;
  /** in dense lists: no sign behind it, underlined under the pointer and in focus */
  quiet?: boolean;
  /** inside a sentence: it wraps with the words around it and keeps their line height */
  inline?: boolean;
  className?: string;
  children: React.ReactNode;
}

/** A figure that opens. The panel is made when it is first asked for: a page holds a hundred of them. */
export function Why({ of, quiet = false, inline = false, className = "", children }: WhyProps) {
  const [asked, setAsked] = useState(false);
  const look = `why text-left ${inline ? "" : "inline-flex min-h-[28px] items-center gap-1 max-lg:min-h-[44px]"} decoration-dotted underline-offset-4 ${quiet ? "hover:underline focus-visible:underline" : "underline"} ${className}`;
  const inside = (
    <>
      {children}
      <span className="sr-only">, why this number: {of.title}</span>
      {!quiet && <CircleHelp size={15} aria-hidden="true" className="shrink-0 text-muted" />}
    </>
  );
  const figure = of.ask?.figure.of ?? "logged";
  if (!asked) return <button type="button" data-why={figure} aria-haspopup="dialog" aria-expanded={false} className={look} onClick={() => setAsked(true)}>{inside}</button>;
  // Panels hang on the body: at the bench they keep its night and its size of type.
  const atBench: { "data-theme"?: string } = document.documentElement.dataset.bench === "on" ? { "data-theme": "night" } : {};
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger data-why={figure} className={look}>{inside}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content sideOffset={6} collisionPadding={8} aria-label={of.title} {...atBench} className={`z-50 max-h-[min(80dvh,var(--radix-popover-content-available-height))] max-w-[94vw] overflow-auto rounded-lg border border-strong bg-lifted p-4 text-ink shadow-xl ${atBench["data-theme"] ? "w-[460px] text-[18px]" : "w-[400px] text-[1rem]"}`}>
          <h3>{of.title}</h3>
          {of.ask ? <Moves ask={of.ask}><Rows rows={of.rows()} /></Moves> : <Rows rows={of.rows()} />}
          <Popover.Close className="btn mt-3">Close</Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const Rows = ({ rows }: { rows: Input[] }) => (
  <dl className="mt-2">
    {rows.map((r, i) => (
      <div key={`${r.name}${i}`} className="flex justify-between gap-3 border-b border-line py-1">
        <dt className="max-w-[48%] shrink-0 text-muted">{r.name}</dt>
        <dd className="text-right">{r.value}{r.from && <span className="tag">{" · "}{r.from}</span>}</dd>
      </div>
    ))}
  </dl>
);

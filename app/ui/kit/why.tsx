/**
 * A figure that opens to why it is what it is. The panel is a part of its own, fetched when one is first asked for: a
 * page holds a hundred of these.
 */
import type { Opened } from "../../views/opened";
import { lazy, Suspense, useState } from "react";
import { CircleHelp } from "lucide-react";

interface WhyProps {
  of: Opened;
  /** in dense lists: no sign behind it, underlined under the pointer and in focus */
  quiet?: boolean;
  /** inside a sentence: it wraps with the words around it and keeps their line height */
  inline?: boolean;
  className?: string;
  children: React.ReactNode;
}

const Panel = lazy(() => import("./why-panel"));

export function Why({ of, quiet = false, inline = false, className = "", children }: WhyProps) {
  const [asked, setAsked] = useState(false);
  const look =
    `why text-left ${inline ? "" : "inline-flex min-h-7.5 items-center gap-1 max-lg:min-h-touch"} ` +
    `decoration-dotted underline-offset-4 ${quiet ? "hover:underline focus-visible:underline" : "underline"} ` +
    `${className}`;
  const name = of.ask?.figure.of ?? "logged";
  const inside = (
    <>
      {children}
      <span className="sr-only">, why this number: {of.title}</span>
      {!quiet && <CircleHelp size={15} aria-hidden="true" className="shrink-0 text-muted" />}
    </>
  );
  const button = (
    <button
      type="button"
      data-why={name}
      aria-haspopup="dialog"
      aria-expanded={false}
      aria-busy={asked || undefined}
      className={look}
      onClick={() => setAsked(true)}
    >
      {inside}
    </button>
  );
  return asked ? (
    <Suspense fallback={button}>
      <Panel of={of} name={name} look={look}>
        {inside}
      </Panel>
    </Suspense>
  ) : (
    button
  );
}

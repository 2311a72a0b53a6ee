/** The panel that says why a number is what it is. */
import { useState } from "react";
import { Popover } from "radix-ui";
import { CircleHelp } from "lucide-react";

export interface WhyRow {
  name: string;
  value: string;
  from?: string;
}

interface WhyProps {
  title: string;
  /** inputs with where each came from; a function is asked when the panel opens */
  rows: WhyRow[] | (() => WhyRow[]);
  moves?: string;
  /** in dense lists: no sign behind it, underlined under the pointer and in focus */
  quiet?: boolean;
  className?: string;
  children: React.ReactNode;
}

/** A figure that opens to its inputs and where each came from. The panel is made when it is first asked for: a page holds a hundred of them. */
export function Why({ title, rows, moves, quiet = false, className = "", children }: WhyProps) {
  const [asked, setAsked] = useState(false);
  if (Array.isArray(rows) && !rows.length) return <span className={className}>{children}</span>;
  const look = `why inline-flex min-h-[28px] items-center max-lg:min-h-[44px] gap-1 text-left decoration-dotted underline-offset-4 ${quiet ? "hover:underline focus-visible:underline" : "underline"} ${className}`;
  const inside = (
    <>
      {children}
      <span className="sr-only">, why this number: {title}</span>
      {!quiet && <CircleHelp size={15} aria-hidden="true" className="shrink-0 text-muted" />}
    </>
  );
  if (!asked) return <button type="button" aria-haspopup="dialog" aria-expanded={false} className={look} onClick={() => setAsked(true)}>{inside}</button>;
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger className={look}>{inside}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content sideOffset={6} collisionPadding={8} aria-label={title} className="z-50 max-h-[70dvh] w-[340px] max-w-[92vw] overflow-auto rounded-lg border border-strong bg-lifted p-4 shadow-xl">
          <h3>{title}</h3>
          <dl className="mt-2">
            {(typeof rows === "function" ? rows() : rows).map((r) => (
              <div key={r.name} className="flex justify-between gap-3 border-b border-line py-1">
                <dt className="text-muted">{r.name}</dt>
                <dd className="text-right">
                  {r.value} {r.from && <span className="tag block">{r.from}</span>}
                </dd>
              </div>
            ))}
          </dl>
          {moves && <p className="mt-2 text-[0.93rem]">{moves}</p>}
          <Popover.Close className="btn mt-3">Close</Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

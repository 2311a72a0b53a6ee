/** Small shared pieces: swatch, mark of severity, empty state, the panel that says why a number is what it is. */
import { Popover } from "radix-ui";
import { CircleHelp } from "lucide-react";
import type { Severity } from "../../core/records/ids";

export const Swatch = ({ colour, label }: { colour: string; label?: string }) => <span className="swatch" style={{ background: colour }} role={label ? "img" : undefined} aria-label={label} aria-hidden={label ? undefined : true} />;

const WORD: Record<Severity, string> = { never: "Never", stop: "Stop", hazard: "Hazard", risk: "Risk", advice: "Advice" };

/** Severity by shape and word, not by colour alone. */
export function Mark({ severity }: { severity: Severity }) {
  const tone = severity === "advice" ? "text-waiting" : severity === "hazard" ? "text-act" : "text-wrong";
  return (
    <span className={`inline-flex items-center gap-1.5 font-semibold ${tone}`}>
      <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true" fill="currentColor">
        {severity === "never" && <path d="M4 0h6l4 4v6l-4 4H4L0 10V4z" />}
        {severity === "stop" && <rect x="1" y="1" width="12" height="12" />}
        {severity === "hazard" && <path d="M7 0l7 7-7 7-7-7z" />}
        {severity === "risk" && <path d="M7 1l7 12H0z" />}
        {severity === "advice" && <circle cx="7" cy="7" r="5.5" />}
      </svg>
      {WORD[severity]}
    </span>
  );
}

export function Empty({ title, children }: { title: string; children?: React.ReactNode }) {
  return (
    <section className="my-8 max-w-2xl">
      <h2>{title}</h2>
      <div className="mt-2 flex flex-col items-start gap-3 text-muted">{children}</div>
    </section>
  );
}

export interface WhyRow {
  name: string;
  value: string;
  from?: string;
}

/** A figure that opens to its inputs and where each came from. */
export function Why({ title, rows, moves, children }: { title: string; rows: WhyRow[]; moves?: string; children: React.ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger className="inline-flex min-h-[28px] items-center gap-1 text-left underline decoration-dotted underline-offset-4" aria-label={`Why this number: ${title}`}>
        {children}
        <CircleHelp size={15} aria-hidden="true" className="text-muted" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content sideOffset={6} collisionPadding={8} aria-label={title} className="z-50 max-h-[70dvh] w-[340px] max-w-[92vw] overflow-auto rounded-lg border border-strong bg-lifted p-4 shadow-xl">
          <h3>{title}</h3>
          <dl className="mt-2">
            {rows.map((r) => (
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

/** Section heading with room for one action at its right. */
export const Head = ({ children, right }: { children: React.ReactNode; right?: React.ReactNode }) => (
  <div className="mb-2 flex flex-wrap items-baseline justify-between gap-2">
    <h2>{children}</h2>
    {right}
  </div>
);

/** Small shared pieces: swatch, mark of severity, empty state, heading, how far something has got. */
import { Progress } from "radix-ui";
import type { Severity } from "../../core/records/ids";

export const Swatch = ({ colour, label }: { colour: string; label?: string }) => (
  <span
    className="swatch"
    style={{ background: colour }}
    role={label ? "img" : undefined}
    aria-label={label}
    aria-hidden={label ? undefined : true}
  />
);

const WORD: Record<Severity, string> = {
  never: "Never",
  stop: "Stop",
  hazard: "Hazard",
  risk: "Risk",
  advice: "Advice",
};

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

/** Section heading with room for one action at its right. */
export const Head = ({ children, right }: { children: React.ReactNode; right?: React.ReactNode }) => (
  <div className="mb-2 flex flex-wrap items-baseline justify-between gap-2">
    <h2>{children}</h2>
    {right}
  </div>
);

/** How far something long has got, 0 to 1. */
export const Share = ({ of, label }: { of: number; label: string }) => (
  <Progress.Root value={Math.round(of * 100)} aria-label={label} className="share">
    <Progress.Indicator className="share-done" style={{ width: `${of * 100}%` }} />
  </Progress.Root>
);

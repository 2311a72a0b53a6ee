/** The tray of pieces at the bench: tap one to mark it done; put one aside by its own small control. */
import clsx from "clsx";
import { useState } from "react";
import type { Answer } from "../core/records/ids";

export const answerWord = (a: Answer): string => ({ good: "Good", mend: "Mend", stop: "Stop" })[a];

const LOOK = {
  done: "border-bench-ready bg-bench-ready text-bench-on-ready",
  aside: "border-dashed border-bench-wrong text-bench-late line-through",
  open: "border-bench-line bg-bench-open text-bench-ink",
};

export function Tray({
  first,
  last,
  gone,
  done,
  aside,
  nameOf = () => null,
  onPiece,
  onAside,
  enabled,
}: {
  /** numbers of the pieces that the step is done to */
  first: number;
  last: number;
  /** the one of them that has gone before the rest; null: none */
  gone: number | null;
  done: number[];
  aside: number[];
  /** what a piece carries of its own; null: nothing */
  nameOf?(n: number): string | null;
  onPiece(n: number): void;
  onAside(n: number): void;
  enabled: boolean;
}) {
  const [setAside, setMode] = useState(false);
  const MOST = 60;
  const quantity = last - first + 1;
  const from = quantity > MOST ? Math.max(first, Math.min(last - MOST + 1, done.length - 10)) : first;
  const ids = Array.from({ length: Math.min(quantity, MOST) }, (_, i) => from + i);
  const next = ids.find((n) => !done.includes(n) && !aside.includes(n) && n !== gone);
  const wordOf = (n: number): string =>
    n === gone ? "gone first" : aside.includes(n) ? "put aside" : done.includes(n) ? "done" : "to do";
  return (
    <div>
      <div
        className="grid grid-cols-6 gap-1.5"
        role="group"
        aria-label={quantity === 1 ? `Piece ${first} alone` : `Tray of ${quantity} pieces`}
      >
        {ids.map((n) => {
          const is = aside.includes(n) ? "aside" : done.includes(n) || n === gone ? "done" : "open";
          return (
            <button
              key={n}
              type="button"
              title={nameOf(n) ?? undefined}
              aria-label={[`Piece ${n}`, nameOf(n), wordOf(n)].filter((t) => t !== null).join(", ")}
              disabled={!enabled || is !== "open"}
              onClick={() => (setAside ? onAside(n) : onPiece(n))}
              className={clsx(
                "mono relative grid min-h-touch place-items-center rounded border text-bench-small",
                LOOK[is],
              )}
            >
              {n}
            </button>
          );
        })}
      </div>
      <p className="mt-2 flex flex-wrap items-center justify-between gap-2 text-bench-small text-bench-muted">
        <span>
          {done.length} done{aside.length > 0 && `, ${aside.length} put aside`}
          {from > first && `; from piece ${from}`}
          {next !== undefined && nameOf(next) !== null && `; next: ${next}, ${nameOf(next)}`}
          {gone !== null && `; piece ${gone} has gone first`}
        </span>
        {enabled && (
          <button
            type="button"
            aria-pressed={setAside}
            className={`btn !min-h-touch !border-bench-line ${setAside ? "!bg-bench-ink !text-bench" : ""}`}
            onClick={() => setMode(!setAside)}
          >
            {setAside ? "Tap the piece to put aside" : "Put a piece aside"}
          </button>
        )}
      </p>
    </div>
  );
}

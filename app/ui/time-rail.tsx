/** One strip: time along its upper edge, steps along its lower; waits hatched and compressed, nights marked, now marked. */
import clsx from "clsx";
import type { RailBlock } from "../views/shown";
import { useEffect, useRef } from "react";
import { Why } from "./kit/why";

const workWidth = (min: number): number => Math.round(34 + Math.min(110, Math.sqrt(min) * 5));
const gapWidth = (min: number): number => (min <= 0 ? 0 : Math.round(12 + Math.log2(1 + min) * 6));

export function TimeRail({
  blocks,
  chosen,
  at,
  onChoose,
}: {
  blocks: RailBlock[];
  chosen: string | null;
  at: number | null;
  onChoose(id: string, at: number | null): void;
}) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const strip = box.current;
    const el = strip?.querySelector<HTMLElement>("[aria-current='step']");
    if (!strip || !el) return;
    const [mine, all] = [el.getBoundingClientRect(), strip.getBoundingClientRect()];
    // Scrolled only when the step is out of sight, so that nothing slides away under a pointer.
    if (mine.left < all.left || mine.right > all.right)
      strip.scrollTo({ left: strip.scrollLeft + mine.left - all.left - (all.width - mine.width) / 2 });
  }, [chosen]);
  /** What lies under a pointer: a step, or a moment of the wait behind it. */
  const choose = (b: RailBlock, gap: HTMLElement | null, x: number): void => {
    if (!gap || b.end === null) return onChoose(b.id, null);
    const r = gap.getBoundingClientRect();
    onChoose(b.id, Math.round(b.end + b.gap * (x > 0 ? Math.min(1, Math.max(0, (x - r.left) / r.width)) : 0.5)));
  };
  // Drawn along the strip with the button held, the whole page follows; by touch the strip scrolls instead.
  const scrub = (e: React.PointerEvent): void => {
    if (e.pointerType === "touch" || e.buttons !== 1) return;
    const el = document.elementFromPoint(e.clientX, e.clientY)?.closest<HTMLElement>("[data-rail]");
    const b = el && blocks.find((k) => k.id === el.dataset.rail);
    if (el && b && (el.dataset.part === "gap" || b.id !== chosen || at !== null))
      choose(b, el.dataset.part === "gap" ? el : null, e.clientX);
  };
  return (
    <div
      ref={box}
      onPointerMove={scrub}
      className={
        "screen-only relative shrink-0 overflow-x-auto border-t border-line px-5 py-2 max-lg:order-first " +
        "max-lg:border-b max-lg:border-t-0 max-lg:px-3 max-lg:py-1"
      }
      role="group"
      aria-label="Time rail; waits are compressed"
    >
      <ol className="flex w-max items-end pb-1">
        {blocks.map((b) => (
          <li key={b.id} className="relative flex flex-col pt-8 max-lg:pt-12.5">
            {b.when && (
              <span className="absolute left-0 top-0 z-10 whitespace-nowrap bg-paper pr-1 text-fine text-muted">
                <Why quiet of={b.whenWhy}>
                  {b.when}
                </Why>
              </span>
            )}
            <span className="flex">
              <button
                type="button"
                data-step={b.id}
                data-rail={b.id}
                aria-current={chosen === b.id ? "step" : undefined}
                aria-label={b.n === null ? `First piece alone, ${b.title}` : `Step ${b.n}, ${b.title}`}
                title={b.title}
                onClick={() => onChoose(b.id, null)}
                style={{ width: workWidth(b.minutes) }}
                className={clsx(
                  "relative h-8 overflow-hidden whitespace-nowrap border px-1.5 text-fine max-lg:h-11",
                  chosen === b.id
                    ? "border-act bg-act font-semibold text-on-act"
                    : b.state === "done"
                      ? "border-line bg-line text-ink"
                      : "border-strong bg-lifted",
                )}
              >
                {b.title.split(/[, ]/)[0]}
                {b.nowIn?.part === "work" && <Now share={b.nowIn.share} />}
              </button>
              {b.gap > 0 && (
                <button
                  type="button"
                  aria-label={`Wait after ${b.n === null ? `the first piece’s ${b.title}` : `step ${b.n}`}: ${b.gapText}`}
                  title={b.gapText}
                  data-rail={b.id}
                  data-part="gap"
                  onClick={(e) => choose(b, e.currentTarget, e.clientX)}
                  style={{ width: gapWidth(b.gap) }}
                  className="hatch relative h-8 border-y border-line max-lg:h-11"
                >
                  {b.closed > 0 && (
                    <span
                      className="absolute bottom-0 left-0 h-1.5 bg-muted"
                      style={{ width: `${(b.closed / b.gap) * 100}%` }}
                    />
                  )}
                  {b.nowIn?.part === "gap" && <Now share={b.nowIn.share} />}
                  {chosen === b.id && at !== null && b.end !== null && (
                    <span
                      className="absolute inset-y-0 w-0.75 bg-act"
                      style={{ left: `${Math.min(98, ((at - b.end) / b.gap) * 100)}%` }}
                    />
                  )}
                </button>
              )}
            </span>
            <span className="h-4 text-fine text-muted" aria-hidden="true">
              {b.n ?? "·"}
            </span>
          </li>
        ))}
      </ol>
      <p className="sticky left-0 text-fine text-muted max-lg:hidden">
        Hatched: waits, drawn shorter than they are; grey foot: the shop is shut; red: now.
      </p>
    </div>
  );
}

const Now = ({ share }: { share: number }) => (
  <span className="absolute -inset-y-1 w-0.75 bg-wrong" style={{ left: `${share * 100}%` }} aria-hidden="true" />
);

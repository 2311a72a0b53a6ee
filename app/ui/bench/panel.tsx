/** What is typed or tapped at the bench beside the work itself: notes, an early start, an air reading, “that was earlier”. */
import { useState } from "react";
import { readWhen, showLocal } from "../../core/time/typed";
import type { Face } from "../../core/time/zoned";
import { dayFirst } from "../kit/locale";

export type PanelName = "note" | "early" | "reading" | "earlier" | "against" | "touch" | "rest";

const CHIPS = [
  "drip",
  "dust in it",
  "thin at the edge",
  "bubble",
  "colour crept",
  "spat",
  "too cold to touch",
  "looks right",
];
const wide = "field-in !min-h-glove !bg-bench !text-bench-ink";
const pale = "btn !min-h-glove !border-bench-ink";

export function BenchPanel({
  name,
  step,
  local,
  face,
  last,
  stopped,
  open,
  test,
  left,
  onClose,
  onPhoto,
  onSend,
}: {
  name: PanelName;
  step: string;
  local: string;
  face: Face;
  last: { what: string; piece: number | null; at: string } | null;
  /** the step that was answered with a stop */
  stopped: string;
  /** pieces that nobody has tapped here */
  open: number;
  /** how the state that is waited for is felt */
  test: string | null;
  /** how long the model still gives it */
  left: string | null;
  onClose(): void;
  onPhoto(): void;
  onSend(more: Record<string, string>): void;
}) {
  const [text, setText] = useState("");
  const [unread, setUnread] = useState<string | null>(null);
  const submit = (e: React.FormEvent<HTMLFormElement>): void => {
    e.preventDefault();
    const typed = Object.fromEntries(new FormData(e.currentTarget)) as Record<string, string>;
    try {
      if (name === "earlier") typed.at = readWhen(typed.at, { now: local, dayFirst: dayFirst() });
    } catch (wrong) {
      if (!(wrong instanceof RangeError)) throw wrong;
      return setUnread(wrong.message);
    }
    onSend({ ...typed, intent: name, step: name === "against" ? stopped : step });
  };
  return (
    <form
      onSubmit={submit}
      onKeyDown={(e) => e.key === "Escape" && onClose()}
      className="flex flex-wrap items-end gap-3 rounded-xl bg-bench-lifted p-4"
    >
      {name === "note" && (
        <>
          <div role="group" aria-label="In one tap" className="flex basis-full flex-wrap gap-2">
            {CHIPS.map((c) => (
              <button
                key={c}
                type="button"
                className="btn !min-h-13 !border-bench-line"
                onClick={() => onSend({ intent: "note", step, text: c })}
              >
                {c}
              </button>
            ))}
          </div>
          <label className="flex-1 max-lg:basis-full">
            Note
            <input
              name="text"
              value={text}
              onChange={(e) => setText(e.target.value)}
              className={wide}
              autoFocus
              autoComplete="off"
              required
              maxLength={2000}
            />
          </label>
          <button className={pale}>Keep the note</button>
        </>
      )}
      {name === "early" && (
        <>
          <label className="flex-1 max-lg:basis-full">
            Why is it begun before its time? The risk is kept with the job.
            <input name="reason" className={wide} autoFocus autoComplete="off" required maxLength={2000} />
          </label>
          <button className={pale}>Begin early, as a risk</button>
        </>
      )}
      {name === "against" && (
        <>
          <label className="flex-1 max-lg:basis-full">
            Why does it go on after a stop? The reason is kept with the job.
            <input name="reason" className={wide} autoFocus autoComplete="off" required maxLength={2000} />
          </label>
          <button className={pale}>Go on against advice</button>
        </>
      )}
      {name === "touch" && (
        <>
          <p className="basis-full text-lead">
            It passes when {test}.{left && ` By the model it takes ${left} more.`}
          </p>
          <button
            type="button"
            className={pale}
            autoFocus
            onClick={() => onSend({ intent: "touch", step, sure: "yes" })}
          >
            Checked just so: it passes
          </button>
          <p className="basis-full text-bench-muted">
            Long before the model’s time it is kept as a risk, and stands in the wrap-up.
          </p>
        </>
      )}
      {name === "rest" && (
        <>
          <p className="basis-full text-lead">
            {open === 1 ? "1 piece is not tapped here." : `${open} pieces are not tapped here.`} What about them?
          </p>
          <button
            type="button"
            className={pale}
            autoFocus
            onClick={() => onSend({ intent: "done", step, rest: "done" })}
          >
            They are done too
          </button>
          <button type="button" className={pale} onClick={() => onSend({ intent: "done", step, rest: "aside" })}>
            Put them aside, close the step
          </button>
        </>
      )}
      {name === "reading" && (
        <>
          <label>
            Temperature
            <input name="c" className={wide} autoFocus autoComplete="off" inputMode="decimal" required />
          </label>
          <label>
            Humidity, %<input name="rh" className={wide} autoComplete="off" inputMode="decimal" required />
          </label>
          <button className={pale}>Take this reading</button>
          <button type="button" className={pale} onClick={() => onSend({ intent: "reading", step, sensor: "true" })}>
            Ask the shop sensor (simulated)
          </button>
          <p className="basis-full text-bench-muted">
            It counts for three hours or until the next one; every wait is reckoned anew.
          </p>
        </>
      )}
      {name === "earlier" && last && (
        <>
          <label className="flex-1 max-lg:basis-full">
            When was “{last.what}
            {last.piece ? ` ${last.piece}` : ""}” really?
            <input
              name="at"
              defaultValue={showLocal(last.at, face)}
              className={wide}
              autoFocus
              autoComplete="off"
              required
              aria-invalid={unread ? true : undefined}
              aria-describedby={unread ? "earlier-e" : undefined}
            />
          </label>
          {unread && (
            <p id="earlier-e" role="alert" className="basis-full text-bench-late">
              {unread}
            </p>
          )}
          <button className={pale}>Put it right</button>
        </>
      )}
      <button type="button" className="btn !min-h-glove !border-bench-line" onClick={onClose}>
        Leave it
      </button>
      {name === "note" && (
        <button type="button" className="btn !min-h-glove !border-bench-line" onClick={onPhoto}>
          Photo
        </button>
      )}
      {name === "note" && last && (
        <button
          type="button"
          className="btn !min-h-glove !border-bench-line"
          onClick={() => onSend({ intent: "open-earlier" })}
        >
          The last tap was earlier…
        </button>
      )}
    </form>
  );
}

/**
 * Fields that store themselves: what was typed goes to the page's action when the field is left or Enter is pressed, and
 * stays on screen with a sentence when it could not be stored.
 */
import type { Outcome } from "../../core/records/outcome";
import { useEffect, useId, useRef, useState } from "react";
import { useFetcher, useLocation } from "react-router";

interface Common {
  name: string;
  label: string;
  /** shown beside the label: “default”, “data sheet” … */
  from?: string;
  hint?: string;
  /** further form values sent along */
  extra?: Record<string, string>;
  action?: string;
  hideLabel?: boolean;
  className?: string;
}

interface Save {
  save: (value: string) => void;
  /** what came of the newest saving; undefined: nothing yet */
  outcome: Outcome | undefined;
  error: string | null;
  busy: boolean;
  /** sends what another tab came before once more, in its place; null when there is nothing to send again */
  again: { value: string; send: () => void } | null;
}

function useSave(p: Common): Save {
  const fetcher = useFetcher<Outcome>();
  const last = useRef("");
  const error = fetcher.state === "idle" && fetcher.data?.error ? fetcher.data.error : null;
  const save = (value: string): void => {
    last.current = value;
    void fetcher.submit({ intent: "set", field: p.name, value, ...p.extra }, { method: "post", action: p.action });
  };
  return {
    save,
    outcome: fetcher.state === "idle" ? fetcher.data : undefined,
    error,
    busy: fetcher.state !== "idle",
    again: error && fetcher.data?.conflict ? { value: last.current, send: () => save(last.current) } : null,
  };
}

function Label({ id, p, error, again }: { id: string; p: Common; error: string | null; again: Save["again"] }) {
  return (
    <>
      <label
        htmlFor={id}
        className={p.hideLabel ? "sr-only" : "flex flex-wrap items-baseline gap-x-2 text-[0.93rem] text-muted"}
      >
        {p.label}
        {p.from && <span className="tag">{p.from}</span>}
      </label>
      {error && (
        <p id={`${id}-e`} role="alert" className="order-last text-[0.93rem] text-wrong">
          {error}
        </p>
      )}
      {again && (
        <button type="button" className="link-act order-last" onClick={again.send}>
          Put mine in its place: “{again.value.slice(0, 40)}”
        </button>
      )}
      {p.hint && (
        <p id={`${id}-h`} className="order-last tag">
          {p.hint}
        </p>
      )}
    </>
  );
}

const described = (id: string, p: Common, error: string | null): string | undefined =>
  [error ? `${id}-e` : "", p.hint ? `${id}-h` : ""].filter(Boolean).join(" ") || undefined;

/** What was typed into a field and not stored yet: kept for this tab, so that reading the page anew loses nothing. */
function useDraft(p: Common): { typed: string | null; keep: (value: string | null) => void } {
  const { pathname } = useLocation();
  const key = `typed ${pathname} ${p.action ?? ""} ${JSON.stringify(p.extra ?? {})} ${p.name}`;
  const [typed] = useState(() => sessionStorage.getItem(key));
  return {
    typed,
    keep: (value) => (value === null ? sessionStorage.removeItem(key) : sessionStorage.setItem(key, value)),
  };
}

export function TextField(
  p: Common & {
    value: string;
    type?: string;
    placeholder?: string;
    area?: boolean;
    inputMode?: "decimal" | "numeric" | "text";
  },
) {
  const id = useId();
  const { save, outcome, error, busy, again } = useSave(p);
  const draft = useDraft(p);
  // typed before the page was read anew, and still to be stored
  const [before, setBefore] = useState(draft.typed !== null && draft.typed !== p.value);
  const last = useRef(p.value);
  const el = useRef<HTMLInputElement & HTMLTextAreaElement>(null);
  const [theirs, setTheirs] = useState<string | null>(null);
  // What is stored goes into the field that stands there, so that it keeps its focus; what is being typed is left alone.
  useEffect(() => {
    const mine = el.current;
    const typing = mine !== null && document.activeElement === mine && mine.value !== last.current;
    if (mine && !typing && !before) mine.value = p.value;
    // Somebody else stored something while this was being typed: it is not overwritten unseen.
    setTheirs(typing && p.value !== last.current && mine.value !== p.value ? p.value : null);
    last.current = p.value;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only what is stored puts anything into the field
  }, [p.value]);
  useEffect(() => {
    if (outcome?.done) draft.keep(null);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each saving
  }, [outcome]);
  const put = (v: string, sure = false): void => {
    if (v === last.current || (theirs !== null && !sure)) return;
    last.current = v;
    setTheirs(null);
    setBefore(false);
    save(v);
  };
  const keep = (): void => {
    if (el.current) el.current.value = p.value;
    draft.keep(null);
    setBefore(false);
    setTheirs(null);
  };
  const common = {
    id,
    ref: el,
    defaultValue: before ? (draft.typed ?? p.value) : p.value,
    onChange: (e: React.ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) =>
      // a date half typed has no value yet
      !p.type && draft.keep(e.target.value === p.value ? null : e.target.value),
    placeholder: p.placeholder,
    className: "field-in",
    "aria-invalid": error ? true : undefined,
    "aria-describedby": described(id, p, error),
    "aria-busy": busy || undefined,
    onBlur: (e: React.FocusEvent<HTMLInputElement | HTMLTextAreaElement>) => put(e.target.value),
  };
  return (
    <div className={`flex flex-col gap-0.5 ${p.className ?? ""}`}>
      <Label id={id} p={p} error={error} again={again} />
      {p.area ? (
        <textarea rows={3} {...common} />
      ) : (
        <input
          type={p.type ?? "text"}
          inputMode={p.inputMode}
          autoComplete="off"
          {...common}
          onKeyDown={(e) => e.key === "Enter" && put(e.currentTarget.value)}
        />
      )}
      {before && (
        <p role="status" className="text-[0.93rem] text-waiting">
          Typed before the page was read anew, and not stored yet.{" "}
          <button type="button" className="link-act" onClick={() => put(el.current?.value ?? p.value)}>
            Store it
          </button>{" "}
          <button type="button" className="link-act" onClick={keep}>
            Drop it
          </button>
        </p>
      )}
      {theirs !== null && (
        <p role="alert" className="text-[0.93rem] text-waiting">
          Another tab has set this to “{theirs.slice(0, 40)}” meanwhile.{" "}
          <button type="button" className="link-act" onClick={() => put(el.current?.value ?? p.value, true)}>
            Put mine in its place
          </button>{" "}
          <button type="button" className="link-act" onClick={keep}>
            Keep theirs
          </button>
        </p>
      )}
    </div>
  );
}

export function PickField(p: Common & { value: string; options: { value: string; label: string }[] }) {
  const id = useId();
  const { save, error, busy, again } = useSave(p);
  const el = useRef<HTMLSelectElement>(null);
  useEffect(() => {
    if (el.current) el.current.value = p.value;
  }, [p.value, error]);
  return (
    <div className={`flex flex-col gap-0.5 ${p.className ?? ""}`}>
      <Label id={id} p={p} error={error} again={again} />
      <select
        ref={el}
        id={id}
        defaultValue={p.value}
        className="field-in"
        aria-invalid={error ? true : undefined}
        aria-describedby={described(id, p, error)}
        aria-busy={busy || undefined}
        onChange={(e) => save(e.target.value)}
      >
        {p.options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    </div>
  );
}

export function TickField(p: Common & { value: boolean }) {
  const id = useId();
  const { save, error, busy, again } = useSave(p);
  const el = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (el.current) el.current.checked = p.value;
  }, [p.value, error]);
  return (
    <div className={`grid min-h-[34px] grid-cols-[auto_minmax(0,1fr)] items-center gap-x-2 ${p.className ?? ""}`}>
      <input
        ref={el}
        id={id}
        type="checkbox"
        defaultChecked={p.value}
        className="size-6 accent-act"
        aria-describedby={described(id, p, error)}
        aria-busy={busy || undefined}
        onChange={(e) => save(String(e.target.checked))}
      />
      <label htmlFor={id} className={p.hideLabel ? "sr-only" : ""}>
        {p.label}
      </label>
      {p.from && <span className="tag col-start-2">{p.from}</span>}
      {p.hint && (
        <span id={`${id}-h`} className="tag col-start-2">
          {p.hint}
        </span>
      )}
      {error && (
        <span id={`${id}-e`} role="alert" className="col-start-2 text-wrong">
          {error}
        </span>
      )}
      {again && (
        <button type="button" className="link-act col-start-2 justify-self-start" onClick={again.send}>
          Do mine again
        </button>
      )}
    </div>
  );
}

/** A button that sends one act to the page's action. */
export function ActButton({
  act,
  children,
  className = "btn",
  action,
  label,
  disabled,
  pressed,
}: {
  act: Record<string, string>;
  children: React.ReactNode;
  className?: string;
  action?: string;
  label?: string;
  disabled?: boolean;
  pressed?: boolean;
}) {
  const fetcher = useFetcher<Outcome>();
  return (
    <>
      <button
        type="button"
        className={className}
        aria-label={label}
        aria-pressed={pressed}
        disabled={disabled}
        aria-busy={fetcher.state !== "idle" || undefined}
        onClick={() => void fetcher.submit(act, { method: "post", action })}
      >
        {children}
      </button>
      {fetcher.state === "idle" && fetcher.data?.error && (
        <span role="alert" className="text-wrong">
          {fetcher.data.error}
        </span>
      )}
    </>
  );
}

/** A form that stays where it is: sent to the page's action, cleared when stored, with the refusal beneath when not. */
export function PostForm({
  intent,
  action,
  extra,
  className,
  children,
}: {
  intent: string;
  action?: string;
  extra?: Record<string, string>;
  className?: string;
  children: React.ReactNode;
}) {
  const fetcher = useFetcher<Outcome>();
  const form = useRef<HTMLFormElement>(null);
  const stored = fetcher.state === "idle" && fetcher.data?.done;
  useEffect(() => {
    if (stored) form.current?.reset();
  }, [stored]);
  return (
    <fetcher.Form
      action={action}
      ref={form}
      method="post"
      className={className}
      aria-busy={fetcher.state !== "idle" || undefined}
    >
      <input type="hidden" name="intent" value={intent} />
      {Object.entries(extra ?? {}).map(([k, v]) => (
        <input key={k} type="hidden" name={k} value={v} />
      ))}
      {children}
      {fetcher.state === "idle" && fetcher.data?.error && (
        <p role="alert" className="basis-full text-wrong">
          {fetcher.data.error}
        </p>
      )}
    </fetcher.Form>
  );
}

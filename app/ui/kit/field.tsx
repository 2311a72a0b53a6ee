/**
 * Fields that store themselves: what was typed goes to the page's action when the field is left or Enter is pressed, and
 * stays on screen with a sentence when it could not be stored.
 */
import type { Outcome } from "../../core/records/outcome";
import { useEffect, useId, useImperativeHandle, useRef, useState } from "react";
import { useFetcher, useLocation } from "react-router";
import { Pick, Tick, type Option } from "./pick";

export interface Common {
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
  /** what was sent and is not answered yet: shown at once; null: nothing is under way */
  hoped: string | null;
  /** what came of the newest saving; undefined: nothing yet */
  outcome: Outcome | undefined;
  error: string | null;
  busy: boolean;
  /** sends what another tab came before once more, in its place; null when there is nothing to send again */
  again: { value: string; send: () => void } | null;
}

/** What a record's check says of one of its fields, with the name that the field has on the screen. */
const named = (error: string, label: string): string =>
  error.includes("; ") ? error : error.replace(/^[a-z][\w.[\]]* (?=must |is missing)/, `“${label}” `);

function useSave(p: Common): Save {
  const fetcher = useFetcher<Outcome>();
  const last = useRef("");
  const [hoped, setHoped] = useState<string | null>(null);
  // answered: what is stored by now stands there, or what was refused goes back
  useEffect(() => {
    if (fetcher.state === "idle") setHoped(null);
  }, [fetcher.state, fetcher.data]);
  const error = fetcher.state === "idle" && fetcher.data?.error ? named(fetcher.data.error, p.label) : null;
  const save = (value: string): void => {
    last.current = value;
    setHoped(value);
    void fetcher.submit({ intent: "set", field: p.name, value, ...p.extra }, { method: "post", action: p.action });
  };
  return {
    save,
    hoped,
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
        className={p.hideLabel ? "sr-only" : "flex flex-wrap items-baseline gap-x-2 text-small text-muted"}
      >
        {p.label}
        {p.from && <span className="tag">{p.from}</span>}
      </label>
      {error && (
        <p id={`${id}-e`} role="alert" className="order-last text-small text-wrong">
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

/** For what stands beside a field and sets it. */
export interface TextHandle {
  put(value: string): void;
}

export function TextField(
  p: Common & {
    value: string;
    placeholder?: string;
    area?: boolean;
    /** a colour, picked */
    colour?: boolean;
    inputMode?: "decimal" | "numeric" | "text";
    /** a stored value as the field shows it; as it is when not given */
    show?: (value: string) => string;
    /** what was typed, as it is stored @throws RangeError in a sentence that stands beside the field */
    read?: (typed: string) => string;
    /** what stands at the end of the field */
    beside?: React.ReactNode;
    handle?: React.Ref<TextHandle>;
  },
) {
  const id = useId();
  const { save, outcome, error: refused, busy, again } = useSave(p);
  const shown = (v: string): string => p.show?.(v) ?? v;
  const [unread, setUnread] = useState<string | null>(null);
  const error = unread ?? refused;
  const draft = useDraft(p);
  // typed before the page was read anew, and still to be stored
  const [before, setBefore] = useState(draft.typed !== null && draft.typed !== shown(p.value));
  const last = useRef(p.value);
  const el = useRef<HTMLInputElement & HTMLTextAreaElement>(null);
  const [theirs, setTheirs] = useState<string | null>(null);
  // What is stored goes into the field that stands there, so that it keeps its focus; what is being typed is left alone.
  useEffect(() => {
    const mine = el.current;
    const typing = mine !== null && document.activeElement === mine && mine.value !== shown(last.current);
    if (mine && !typing && !before) mine.value = shown(p.value);
    // Somebody else stored something while this was being typed: it is not overwritten unseen.
    setTheirs(typing && p.value !== last.current && mine.value !== shown(p.value) ? p.value : null);
    last.current = p.value;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only what is stored puts anything into the field
  }, [p.value]);
  useEffect(() => {
    if (outcome?.done) draft.keep(null);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each saving
  }, [outcome]);
  const store = (v: string): void => {
    last.current = v;
    setTheirs(null);
    setBefore(false);
    save(v);
  };
  const put = (text: string, sure = false): void => {
    if (theirs !== null && !sure) return;
    let v = text;
    try {
      // what stands there unchanged is not read again
      v = text === shown(last.current) ? last.current : (p.read?.(text) ?? text);
      setUnread(null);
    } catch (e) {
      if (!(e instanceof RangeError)) throw e;
      return setUnread(e.message);
    }
    if (el.current && p.read) el.current.value = shown(v);
    if (v !== last.current) store(v);
  };
  useImperativeHandle(p.handle, () => ({
    put: (v) => {
      setUnread(null);
      if (el.current) el.current.value = shown(v);
      if (v !== last.current) store(v);
    },
  }));
  const keep = (): void => {
    if (el.current) el.current.value = shown(p.value);
    draft.keep(null);
    setBefore(false);
    setTheirs(null);
    setUnread(null);
  };
  const common = {
    id,
    ref: el,
    defaultValue: before ? (draft.typed ?? shown(p.value)) : shown(p.value),
    onChange: (e: React.ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) =>
      draft.keep(e.target.value === shown(p.value) ? null : e.target.value),
    placeholder: p.placeholder,
    className: `field-in ${p.beside ? "pr-10" : ""}`,
    "aria-invalid": error ? true : undefined,
    "aria-describedby": described(id, p, error),
    "aria-busy": busy || undefined,
    onBlur: (e: React.FocusEvent<HTMLInputElement | HTMLTextAreaElement>) => put(e.target.value),
  };
  const field = p.area ? (
    <textarea rows={3} {...common} />
  ) : (
    <input
      type={p.colour ? "color" : "text"}
      inputMode={p.inputMode}
      autoComplete="off"
      {...common}
      onKeyDown={(e) => e.key === "Enter" && put(e.currentTarget.value)}
    />
  );
  return (
    <div className={`flex flex-col gap-0.5 ${p.className ?? ""}`}>
      <Label id={id} p={p} error={error} again={again} />
      {p.beside ? (
        <div className="relative">
          {field}
          {p.beside}
        </div>
      ) : (
        field
      )}
      {before && (
        <p role="status" className="text-small text-waiting">
          Typed before the page was read anew, and not stored yet.{" "}
          <button type="button" className="link-act" onClick={() => put(el.current?.value ?? shown(p.value))}>
            Store it
          </button>{" "}
          <button type="button" className="link-act" onClick={keep}>
            Drop it
          </button>
        </p>
      )}
      {theirs !== null && (
        <p role="alert" className="text-small text-waiting">
          Another tab has set this to “{shown(theirs).slice(0, 40)}” meanwhile.{" "}
          <button type="button" className="link-act" onClick={() => put(el.current?.value ?? shown(p.value), true)}>
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

export function PickField(p: Common & { value: string; options: readonly Option[] }) {
  const id = useId();
  const { save, hoped, error, busy, again } = useSave(p);
  return (
    <div className={`flex flex-col gap-0.5 ${p.className ?? ""}`}>
      <Label id={id} p={p} error={error} again={again} />
      <Pick
        id={id}
        value={hoped ?? p.value}
        options={p.options}
        invalid={!!error}
        describedBy={described(id, p, error)}
        busy={busy}
        onChange={save}
      />
    </div>
  );
}

export function TickField(p: Common & { value: boolean }) {
  const id = useId();
  const { save, hoped, error, busy, again } = useSave(p);
  return (
    <div className={`grid min-h-line grid-cols-[auto_minmax(0,1fr)] items-center gap-x-2 ${p.className ?? ""}`}>
      <Tick
        id={id}
        checked={hoped === null ? p.value : hoped === "true"}
        describedBy={described(id, p, error)}
        busy={busy}
        onChange={(on) => save(String(on))}
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

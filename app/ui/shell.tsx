/** The places strip, undo, palette and keys: what stands round every page but the bench. */
import { lazy, Suspense, useEffect, useState } from "react";
import { NavLink, useFetcher, useNavigate, useNavigation } from "react-router";
import { useHotkeys } from "react-hotkeys-hook";
import { Toaster, toast } from "sonner";
import { Keyboard, Redo2, Search, Undo2 } from "lucide-react";
import type { Input } from "../core/explain/why/inputs";
import type { Outcome } from "../core/records/outcome";
import { Why } from "./kit/why";
import { UpdateOffer } from "./update";

const PLACES: { to: string; name: string }[] = [
  { to: "/", name: "Today" },
  { to: "/jobs", name: "Jobs" },
  { to: "/calendar", name: "Calendar" },
  { to: "/shelf", name: "Shelf" },
  { to: "/workshop", name: "Workshop" },
  { to: "/bench-log", name: "Bench log" },
  { to: "/practice", name: "Practice" },
  { to: "/guide", name: "Field guide" },
];

/** on a phone it is reached from the Field guide: there is no room for an eighth place in the bar */
const WIDE_ONLY = "/practice";

/** A name of which there is room for the last word only; the rest is still read out. */
const LastWord = ({ of }: { of: string }) => {
  const at = of.lastIndexOf(" ") + 1;
  return (
    <span>
      {at > 0 && <span className="sr-only">{of.slice(0, at)}</span>}
      <span className="capitalize">{of.slice(at)}</span>
    </span>
  );
};

const Overlays = lazy(() => import("./overlays"));

export function Brand() {
  return (
    <NavLink to="/" className="flex items-center gap-2 whitespace-nowrap font-head text-lead font-bold">
      <svg width="21" height="20" viewBox="0 0 22 20" aria-hidden="true">
        <path className="fill-here" d="M0 0h22v5H0z" />
        <path className="fill-mark-2" d="M0 7h14v5H0z" />
        <path className="fill-mark-3" d="M0 14h8v5H0z" />
      </svg>
      Rich Layer
    </NavLink>
  );
}

export interface ShellProps {
  undo: string | null;
  redo: string | null;
  air: { text: string; rows: Input[] };
  children: React.ReactNode;
}

export function Shell({ undo, redo, air, children }: ShellProps) {
  const fetcher = useFetcher<Outcome>();
  const navigate = useNavigate();
  const jobs = useFetcher<{ jobs: { id: string; title: string }[] }>();
  const [palette, setOpen] = useState(false);
  const setPalette = (open: boolean): void => {
    setOpen(open);
    if (open) void jobs.load("/palette");
  };
  const [keys, setKeys] = useState(false);
  const act = (intent: string): void => void fetcher.submit({ intent }, { method: "post", action: "/do" });
  useEffect(() => {
    if (fetcher.state === "idle" && fetcher.data?.done) toast(fetcher.data.done);
    if (fetcher.state === "idle" && fetcher.data?.error) toast.error(fetcher.data.error, { duration: 12000 });
  }, [fetcher.state, fetcher.data]);
  useHotkeys("mod+k", () => setPalette(true), { preventDefault: true, enableOnFormTags: true });
  useHotkeys("mod+z", () => act("undo"), { preventDefault: true });
  useHotkeys("mod+shift+z, mod+y", () => act("redo"), { preventDefault: true });
  useHotkeys("shift+slash", () => setKeys(true), { useKey: false });
  useHotkeys("?", () => setKeys(true), { useKey: true });
  const go = (to: string): void => {
    setPalette(false);
    void navigate(to);
  };
  return (
    <div className="flex min-h-dvh flex-col">
      <a href="#main" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-lifted focus:p-3">
        Skip to the page
      </a>
      <header className="flex h-12 shrink-0 items-center gap-6 bg-strip px-5 text-on-strip max-lg:gap-3 max-lg:px-3 lg:h-11">
        <Brand />
        <nav aria-label="Places" className="flex h-full gap-3.5 whitespace-nowrap max-lg:hidden 2xl:gap-6">
          {PLACES.map((p) => (
            <NavLink
              key={p.to}
              to={p.to}
              end={p.to === "/"}
              className={({ isActive }) =>
                `grid h-full items-center border-b-3 px-0.5 ${isActive ? "border-here font-semibold" : "border-transparent"}`
              }
            >
              {p.name}
            </NavLink>
          ))}
        </nav>
        <p className="ml-auto text-small text-strip-note max-lg:hidden">
          <Why quiet of={{ title: "The air now", rows: () => air.rows, ask: null }}>
            {air.text}
          </Why>
        </p>
        <div className="flex items-center gap-1 max-lg:ml-auto">
          <StripButton label={undo ? `Undo: ${undo}` : "Nothing to undo"} disabled={!undo} onClick={() => act("undo")}>
            <Undo2 size={18} aria-hidden="true" />
          </StripButton>
          <StripButton
            label={redo ? `Do again: ${redo}` : "Nothing to do again"}
            disabled={!redo}
            onClick={() => act("redo")}
          >
            <Redo2 size={18} aria-hidden="true" />
          </StripButton>
          <StripButton label="Go to…" onClick={() => setPalette(true)}>
            <Search size={18} aria-hidden="true" />
          </StripButton>
          <span className="max-lg:hidden">
            <StripButton label="Keys" onClick={() => setKeys(true)}>
              <Keyboard size={18} aria-hidden="true" />
            </StripButton>
          </span>
        </div>
      </header>
      <UpdateOffer />
      <div className="flex min-h-0 flex-1 flex-col max-lg:pb-16">{children}</div>
      <nav
        aria-label="Places"
        className="fixed inset-x-0 bottom-0 z-30 grid h-14 grid-cols-7 bg-strip text-fine text-on-strip lg:hidden"
      >
        {PLACES.filter((p) => p.to !== WIDE_ONLY).map((p) => (
          <NavLink
            key={p.to}
            to={p.to}
            end={p.to === "/"}
            className={({ isActive }) =>
              `grid place-items-center border-t-3 ${isActive ? "border-here font-semibold" : "border-transparent"}`
            }
          >
            <LastWord of={p.name} />
          </NavLink>
        ))}
      </nav>
      {(palette || keys) && (
        <Suspense>
          <Overlays
            palette={palette}
            keys={keys}
            onPalette={setPalette}
            onKeys={setKeys}
            go={go}
            places={PLACES}
            jobs={jobs.data?.jobs ?? []}
          />
        </Suspense>
      )}
      <Toaster
        position="bottom-right"
        toastOptions={{ className: "!bg-lifted !text-ink !border-strong", duration: 3500 }}
        offset={{ bottom: 70 }}
        mobileOffset={{ bottom: 70 }}
      />
    </div>
  );
}

function StripButton({
  label,
  children,
  ...p
}: {
  label: string;
  children: React.ReactNode;
  disabled?: boolean;
  onClick: () => void;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className="grid size-11 place-items-center rounded hover:bg-white/15 disabled:opacity-45 lg:size-8"
      {...p}
    >
      {children}
    </button>
  );
}

/** The first screen of all. */
export function FirstScreen() {
  const busy = useNavigation().state !== "idle";
  const said = useFetcher<Outcome>();
  const working = busy || said.state !== "idle";
  return (
    <main id="main" data-view="first" className="mx-auto flex max-w-3xl flex-col gap-6 px-5 py-14">
      <title>Rich Layer</title>
      <UpdateOffer />
      <p className="flex items-center gap-3 font-head text-3xl font-bold">
        <svg width="42" height="40" viewBox="0 0 22 20" aria-hidden="true">
          <path className="fill-mark-1-paper" d="M0 0h22v5H0z" />
          <path className="fill-mark-2-paper" d="M0 7h14v5H0z" />
          <path className="fill-mark-3-paper" d="M0 14h8v5H0z" />
        </svg>
        Rich Layer
      </p>
      <h1 className="max-w-xl text-2xl">Colour and laser, in the right order, at the right time, thick enough.</h1>
      <p className="max-w-xl text-muted">
        It measures your artwork, works out coats, amounts and waits in your shop’s own climate, shows the piece layer
        by layer, warns before a piece is lost, and stands beside you at the bench. Everything stays in this browser and
        in the files you export.
      </p>
      <div className="flex flex-wrap gap-3">
        <said.Form method="post" action="/do">
          <button className="btn btn-main" name="intent" value="open-sample" aria-disabled={working || undefined}>
            Open the sample shop
          </button>
        </said.Form>
        <said.Form method="post" action="/do">
          <button className="btn" name="intent" value="start-empty">
            Start an empty shop
          </button>
        </said.Form>
      </div>
      {said.data?.error && (
        <p role="alert" className="max-w-xl text-wrong">
          {said.data.error}
        </p>
      )}
      {working && (
        <p role="status" className="text-waiting">
          Measuring the sample’s drawings and setting up the shop…
        </p>
      )}
      <p className="max-w-xl text-muted">
        The sample is the made-up Quillmoor Seed Library: bed markers in maple, splash tiles, some under way, some
        finished. It can be cleared at any time.
      </p>
    </main>
  );
}

import { nameOn } from "../core/geometry/names";
import clsx from "clsx";
import type { RackRow } from "../views/shown";
import type { Route } from "./+types/job-bench";
import { useEffect, useRef, useState } from "react";
import { Link, useFetcher } from "react-router";
import { useHotkeys } from "react-hotkeys-hook";
import { nowMinutes } from "../clock";
import { noteRead, readRunning, readRunningHeads } from "../store/queries";
import { Deaf, useOtherTabs, useReadAgain } from "./other-tabs";
import { BenchPanel, type PanelName } from "../ui/bench/panel";
import { alarmsOf, TellMe } from "../ui/bench/alarms";
import { Gates } from "../ui/bench/gates";
import { Rack } from "../ui/bench/rack";
import { DryClock } from "../ui/dry-clock";
import { Face } from "../ui/face";
import { shrinkPhoto } from "../ui/files";
import type { Outcome } from "../core/records/outcome";
import { Why } from "../ui/kit/why";
import { answerWord, Tray } from "../ui/tray";
import { useBenchLock } from "../ui/update";
import { formOf } from "../acts/answer";
import { benchAct } from "../acts/bench";
import { benchView, rackOf } from "../views/bench";
import { jobAct } from "../acts/job";
import { readJob } from "./job-data";

let kept: { key: string; rows: RackRow[] } | null = null;
/**
 * Where the other jobs stand. A tap here changes nothing there, so they are planned anew only when the minute, the
 * shop or one of them has changed.
 */
async function others(but: string, shop: object, now: number): Promise<RackRow[]> {
  const key = JSON.stringify([now, but, shop, await readRunningHeads(but)]);
  if (kept?.key !== key) kept = { key, rows: rackOf(await readRunning(but), now) };
  return kept.rows;
}

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  await noteRead();
  const { world, plan, now } = await readJob(params.id);
  return benchView(world, plan, now, await others(world.job.id, world.shop, now));
}

const SHARED = ["fix", "way", "photo"];
export async function clientAction({ request, params }: Route.ClientActionArgs) {
  const f = await formOf(request);
  return SHARED.includes(f.intent) ? jobAct(params.id, f) : benchAct(params.id, f);
}

/** `4:05`, and from an hour on `2:20:00`. */
const elapsed = (s: number): string =>
  [...(s >= 3600 ? [Math.floor(s / 3600)] : []), Math.floor(s / 60) % 60, s % 60]
    .map((n, i) => (i ? String(n).padStart(2, "0") : String(n)))
    .join(":");
const MAIN = "bench-main";
/** A space that belongs to what has the keyboard: a button reached by Tab, or anything in an open panel. All others count a piece. */
function spokenFor(): boolean {
  const at = document.activeElement;
  if (!(at instanceof HTMLElement) || at.id === MAIN) return false;
  return (
    at.closest("[role='dialog']") !== null ||
    (at.matches("button, a, summary, select, input") && at.matches(":focus-visible"))
  );
}

export default function Bench({ loaderData: d }: Route.ComponentProps) {
  const fetcher = useFetcher<Outcome>();
  const readAgain = useReadAgain();
  useBenchLock();
  const [panel, setPanel] = useState<PanelName | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const camera = useRef<HTMLInputElement>(null);
  const [, tick] = useState(0);
  const deaf = useOtherTabs();
  // The clock face turns every second; the page is read again every minute, when a wait may have ended.
  useEffect(() => {
    document.documentElement.dataset.bench = "on";
    const second = setInterval(() => tick((n) => n + 1), 1000);
    const minute = setInterval(readAgain, 30000);
    // The screen is kept awake; a lock is lost when the page is hidden, so it is asked for again when it comes back.
    let lock: { release(): Promise<void> } | null = null;
    const wake = (): void => {
      if (document.visibilityState === "visible")
        navigator.wakeLock
          ?.request("screen")
          .then((l) => (lock = l))
          .catch(() => {});
    };
    wake();
    document.addEventListener("visibilitychange", wake);
    return () => {
      document.removeEventListener("visibilitychange", wake);
      delete document.documentElement.dataset.bench;
      clearInterval(second);
      clearInterval(minute);
      void lock?.release();
    };
  }, [readAgain]);
  // Taps faster than the store wait their turn; none is dropped. Only the second of two like ones that make no sense twice.
  const waiting = useRef<Record<string, string>[]>([]);
  const send = (more: Record<string, string>): void => {
    const once = ["start", "done", "touch", "check"].includes(more.intent);
    if (once && waiting.current.some((w) => w.intent === more.intent)) return;
    waiting.current.push({ step: d.step?.id ?? "", ...more });
    if (waiting.current.length === 1) void drain();
  };
  const drain = async (): Promise<void> => {
    while (waiting.current.length) {
      await fetcher.submit(waiting.current[0], { method: "post" });
      waiting.current.shift();
    }
  };
  const count = d.run.pieces.length;
  const total = d.pieces - d.aside.filter((n) => !d.run.pieces.includes(n) && n !== d.numbers?.gone).length;
  const full = count >= total;
  /** pieces that nobody has tapped at this step */
  const open = d.step?.perPiece && d.pieces > 1 ? Math.max(0, total - count) : 0;
  const work = d.standing === "ready" && d.step;
  const barred = d.gates.length > 0;
  const main =
    !work || barred
      ? null
      : d.run.started === null
        ? { intent: "start", word: "Start this step" }
        : full || !d.step!.perPiece
          ? { intent: "done", word: "Step done" }
          : { intent: "piece", word: "Piece done" };
  useHotkeys(
    "space",
    () => main && !panel && send({ intent: main.intent }),
    { preventDefault: true, enabled: !!main && !panel, ignoreEventWhen: spokenFor },
    [main?.intent, d, panel],
  );
  useHotkeys("z", () => d.last && send({ intent: "back" }), {}, [d]);
  useHotkeys("n", () => setPanel("note"), { preventDefault: true }, []);
  useHotkeys("c", () => camera.current?.click(), { preventDefault: true }, []);
  const photo = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    try {
      setSaid("Taking the photo in…");
      send({
        intent: "photo",
        step: d.step?.id ?? "",
        data: await shrinkPhoto(file),
        caption: d.step?.title ?? d.job.title,
      });
      setSaid(null);
    } catch (e) {
      setSaid(`“${file.name}” was not taken in: ${(e as Error).message}. Nothing was changed.`);
    }
  };
  const since = d.run.started === null ? 0 : Math.max(0, Math.floor((nowMinutes() - d.run.started) * 60));
  const error = fetcher.data?.error;
  const beside = (
    <>
      {d.photo && (
        <p className={d.photo === "taken" ? "text-bench-fresh" : "text-bench-waiting"}>
          {d.photo === "taken"
            ? "This stage has its photo."
            : "No photo of this stage yet: one now saves guessing later."}
        </p>
      )}
      {d.run.notes.length > 0 && (
        <ul className="text-bench-muted">
          {d.run.notes.map((x) => (
            <li key={x.at}>Note: {x.text}</li>
          ))}
        </ul>
      )}
    </>
  );
  return (
    <main
      id="main"
      data-view="bench"
      data-theme="night"
      className="bench flex min-h-dvh flex-col gap-3 bg-bench p-4 text-bench-body text-bench-ink lg:h-dvh lg:px-7"
    >
      <title>{`Bench: ${d.job.title} · Rich Layer`}</title>
      <Deaf why={deaf} />
      <header className="flex flex-wrap items-center justify-between gap-x-6 gap-y-1 max-lg:[&>:nth-child(3)]:order-last">
        <h1 className="text-sub">
          At the bench{" "}
          <span className="font-text font-normal tracking-normal text-bench-muted">
            · {d.job.title}
            {d.step && !d.first ? ` · step ${d.step.index + 1} of ${d.step.of}` : ""}
          </span>
        </h1>
        <p className="mono flex items-center gap-5">
          <span data-given>{d.clock}</span>
          <button
            type="button"
            data-given
            className="min-h-touch underline decoration-dotted underline-offset-4"
            aria-label={`Air ${d.air}, ${d.rh}, ${d.airRead ? "as read" : "from the climate curve"}: type in a reading`}
            onClick={() => setPanel("reading")}
          >
            {d.air} {d.rh}
          </button>
        </p>
        <TellMe events={alarmsOf(d.rack)} now={d.now} />
        <Link to="../layers" relative="path" className="btn !border-bench-line">
          Leave<span className="max-lg:sr-only"> the bench</span>
        </Link>
      </header>
      <div className="grid min-h-0 flex-1 gap-4 lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
        <section
          aria-labelledby="bench-step"
          className="flex min-h-0 flex-col gap-3 rounded-xl bg-bench-lifted p-5 lg:overflow-y-auto lg:px-7"
          tabIndex={0}
        >
          {d.standing === "closed" && (
            <h2 id="bench-step" className="text-3xl">
              This job is wrapped up.
            </h2>
          )}
          {d.standing === "lacking" && (
            <>
              <h2 id="bench-step" className="text-3xl">
                Not ready for the bench
              </h2>
              <p>{d.lacks}</p>
            </>
          )}
          {d.standing === "done" && (
            <>
              <h2 id="bench-step" className="text-3xl">
                All steps are done
              </h2>
              <p>Write down what came of it while it is in your hands.</p>
              <Link to="../wrap-up" relative="path" className="btn !min-h-17 self-start !border-bench-ready text-xl">
                Wrap it up
              </Link>
            </>
          )}
          {d.step && (
            <>
              <p className="text-bench-muted">
                {d.first && (
                  <strong data-first={d.first.piece} className="text-bench-note">
                    Piece {d.first.piece} goes first, step {d.first.n} of {d.first.of}; the rest wait ·{" "}
                  </strong>
                )}
                {d.wait ? "Then" : d.step.laser ? "At the laser" : "Hands on"} ·{" "}
                <Why of={d.step.why}>
                  about {d.step.minutes} for {d.pieces}
                </Why>{" "}
                · <span data-words>{d.step.tool}</span>
              </p>
              <h2 id="bench-step" className="text-[clamp(1.9rem,4.4vw,3.3rem)]">
                {d.step.title}
              </h2>
              {barred && (
                <Gates
                  gates={d.gates}
                  onSend={(more) => (more.intent === "open-against" ? setPanel("against") : send(more))}
                />
              )}
              {d.step.overdue ? (
                <p className="text-bench-wrong">
                  It will be{" "}
                  <Why quiet inline of={d.step.lateWhy}>
                    {d.step.overdue} late
                  </Why>
                  . The calendar says what would keep the date.
                </p>
              ) : (
                d.step.startWhy &&
                d.run.started === null &&
                d.standing !== "missed" && (
                  <p className="text-bench-muted">
                    <Why quiet of={d.step.startWhy}>
                      Start by {d.step.startBy} at the latest: {d.step.slack} of slack.
                    </Why>
                  </p>
                )
              )}
              {d.standing === "missed" && d.wait ? (
                <div className="max-w-3xl text-lead">
                  <p className="mb-2 text-bench-wrong">
                    The window for this coat{" "}
                    <Why quiet inline of={d.wait.whyShuts}>
                      shut {d.shutFor} ago
                    </Why>
                    . A coat now would wrinkle the film beneath.
                  </p>
                  <ul className="flex flex-col gap-3">
                    {d.ways.map((w) => (
                      <li
                        key={w.id}
                        data-way={w.id}
                        className="flex flex-wrap items-center justify-between gap-3 rounded-lg border border-bench-line p-3"
                      >
                        <p className="min-w-54 flex-1">
                          <strong>{w.label}</strong>: {w.say}{" "}
                          {w.ready && (
                            <span className="text-bench-muted">
                              <Why quiet inline of={w.why}>
                                Ready {w.ready}
                              </Why>
                              .
                            </span>
                          )}
                        </p>
                        {w.id === "wait" ? (
                          <p className="text-bench-muted">
                            <Why quiet of={d.wait!.whyOpens}>
                              Opens {d.wait!.opensText}
                            </Why>
                          </p>
                        ) : (
                          <button
                            type="button"
                            className="btn !min-h-glove !border-bench-ink"
                            onClick={() => send({ intent: "way", way: w.id })}
                          >
                            {w.label}
                          </button>
                        )}
                      </li>
                    ))}
                  </ul>
                </div>
              ) : d.wait ? (
                <div className="max-w-2xl text-sub">
                  <p className="mb-2">
                    Wait until it is {d.wait.words}.{" "}
                    <span className="text-bench-muted">{d.wait.why[0].toUpperCase() + d.wait.why.slice(1)}.</span>
                  </p>
                  <DryClock
                    large
                    state={d.wait.state}
                    words={d.wait.words}
                    from={d.wait.from}
                    opens={d.wait.opens}
                    closes={d.wait.closes}
                    now={d.now}
                    why={d.wait.whyOpens}
                  />
                  {d.wait.opensText && (
                    <p className="mt-1">
                      <Why of={d.wait.whyOpens}>
                        Opens {d.wait.opensText}
                        {d.wait.window ? `, ${d.wait.window}` : ""}
                      </Why>
                      .
                    </p>
                  )}
                  <p className="mt-3 text-lead text-bench-muted">
                    It ends when the time is reached, or when it passes by touch: {d.touchTest}.
                  </p>
                </div>
              ) : (
                <div className="grid gap-x-6 gap-y-3 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)] lg:grid-rows-[auto_1fr]">
                  <div className="flex flex-wrap items-end justify-between gap-x-4 lg:col-start-2">
                    <p>
                      <span className="block text-bench-muted">
                        {d.run.started === null ? "not begun" : "since it began"}
                      </span>
                      <span data-given className="mono text-count leading-none">
                        {elapsed(since)}
                      </span>
                    </p>
                    <p className="text-right">
                      <span className="block text-bench-muted">pieces done</span>
                      <span className="mono whitespace-nowrap text-count leading-none">
                        <span data-bench-count={count}>{count}</span>/{total}
                      </span>
                    </p>
                  </div>
                  <div className="lg:col-start-1 lg:row-span-2 lg:row-start-1">
                    {d.window?.closes != null && d.whyWindow && (
                      <DryClock
                        large
                        state="recoat"
                        words="window open"
                        from={d.window.from}
                        opens={d.window.opens}
                        closes={d.window.closes}
                        now={d.now}
                        why={d.whyWindow}
                      />
                    )}
                    <ul className="list-disc space-y-1.5 pl-6 text-sub">
                      {d.step.load && (
                        <li>
                          <Why of={d.step.loadWhy}>{d.step.load}</Why>
                        </li>
                      )}
                      {d.step.setting && (
                        <li>
                          <Why of={d.step.setting.why}>{d.step.setting.text}</Why>
                        </li>
                      )}
                      {d.step.cues.map((x) => (
                        <li key={x} data-words>
                          {x}
                        </li>
                      ))}
                    </ul>
                    {d.step.irreversible && d.run.started === null && (
                      <p className="mt-3 rounded border border-bench-waiting p-2 text-bench-note">
                        There is no way back from this step. First: right piece, right face up, right file, everything
                        before it done and dry.
                      </p>
                    )}
                    <p data-words className="mt-3">
                      <strong>Look for:</strong> {d.step.lookFor.look}; {d.step.lookFor.how}. Against:{" "}
                      {d.step.lookWhy ? (
                        <Why quiet inline of={d.step.lookWhy}>
                          {d.step.lookFor.against}
                        </Why>
                      ) : (
                        d.step.lookFor.against
                      )}
                      .
                    </p>
                    {d.step.plate && (
                      <p className="mt-2">
                        <Link
                          className="btn !min-h-glove !border-bench-waiting"
                          to={`../layers?step=${d.step.id}`}
                          relative="path"
                        >
                          Type in the setting that won
                        </Link>
                      </p>
                    )}
                    <div className="mt-2 flex flex-wrap gap-2" role="group" aria-label="What the look showed">
                      {(["good", "mend", "stop"] as const).map((a) => (
                        <button
                          key={a}
                          type="button"
                          aria-pressed={d.run.answer === a}
                          className={clsx(
                            "btn !min-h-glove min-w-26 !border-bench-line",
                            d.run.answer === a && "!bg-bench-ink !text-bench",
                          )}
                          onClick={() => send({ intent: "check", answer: a })}
                        >
                          {answerWord(a)}
                        </button>
                      ))}
                    </div>
                    <div className="mt-4">{beside}</div>
                  </div>
                  <div className="lg:col-start-2">
                    <Tray
                      first={d.numbers?.from ?? 1}
                      last={d.numbers?.to ?? d.pieces}
                      gone={d.numbers?.gone ?? null}
                      done={d.run.pieces}
                      aside={d.aside}
                      nameOf={(n) => nameOn(d.job.zones, n)}
                      onPiece={(n) => send({ intent: "piece", piece: String(n) })}
                      onAside={(n) => send({ intent: "aside", piece: String(n) })}
                      enabled={!!work && d.step.perPiece}
                    />
                    {d.piece && (
                      <figure data-lies={d.piece.mirrored ? "back" : "face"} className="mt-3">
                        <Face
                          job={d.job}
                          colours={d.piece.colours}
                          grain={d.grain}
                          masked={d.piece.masked}
                          lit={d.piece.lit}
                          pictured={d.piece.pictured}
                          mirrored={d.piece.mirrored}
                          label={`The piece before this step, ${d.step.title}; ${d.piece.up}`}
                          className="max-h-40 w-full"
                        />
                        <figcaption className="mt-1 text-bench-muted">
                          {[d.piece.up, d.piece.lift, d.piece.stays].filter(Boolean).join(". ")}
                        </figcaption>
                      </figure>
                    )}
                  </div>
                </div>
              )}
              {d.wait && beside}
            </>
          )}
        </section>
        <section aria-labelledby="rack" className="flex min-h-0 flex-col gap-3 lg:overflow-y-auto" tabIndex={0}>
          <h2 id="rack" className="font-text text-lead font-normal text-bench-muted">
            On the rack
          </h2>
          <Rack rows={d.rack} here={d.job.id} now={d.now} />
          {d.then.length > 0 && (
            <div>
              <h2 className="font-text text-lead font-normal text-bench-muted">Then</h2>
              <ul>
                {d.then.map((t) => (
                  <li key={t.title + t.when} className="text-bench-muted">
                    {t.title}
                    {t.when && (
                      <>
                        ,{" "}
                        <Why quiet inline of={t.why}>
                          {t.when}
                        </Why>
                      </>
                    )}
                  </li>
                ))}
              </ul>
            </div>
          )}
          {d.lastStep?.done && d.standing !== "done" && (
            <div className="rounded-xl bg-bench-lifted p-4">
              <h3>Before: {d.lastStep.title}</h3>
              <p className="text-bench-muted">
                {d.lastStep.answer
                  ? `The look said: ${answerWord(d.lastStep.answer).toLowerCase()}.`
                  : "No look was noted."}
              </p>
            </div>
          )}
        </section>
      </div>
      {(error ?? said) && (
        <p role={error ? "alert" : "status"} className="text-bench-wrong">
          {error ?? said}
        </p>
      )}
      {panel && (
        <BenchPanel
          name={panel}
          step={d.step?.id ?? ""}
          local={d.local}
          face={d.face}
          last={d.last}
          stopped={d.gates.find((g) => g.by === "look")?.step ?? ""}
          open={open}
          test={d.touchTest}
          left={d.touchLeft}
          onClose={() => setPanel(null)}
          onPhoto={() => (setPanel(null), camera.current?.click())}
          onSend={(more) => (more.intent === "open-earlier" ? setPanel("earlier") : (send(more), setPanel(null)))}
        />
      )}
      <input
        ref={camera}
        type="file"
        accept="image/*"
        capture="environment"
        className="sr-only"
        tabIndex={-1}
        aria-label="Photo from the bench"
        onChange={(e) => (void photo(e.target.files?.[0]), (e.target.value = ""))}
      />
      <footer
        className={
          "sticky bottom-0 grid grid-cols-[1.3fr_1fr_1fr_1fr_1fr] gap-3 bg-bench pb-1 pt-1 max-lg:grid-cols-3 " +
          "max-lg:gap-2"
        }
      >
        {main ? (
          <button
            type="button"
            id={MAIN}
            className={
              "btn !min-h-act !border-bench-ready !bg-bench-ready text-sub !text-bench-on-ready max-lg:order-last " +
              "max-lg:col-span-3 max-lg:!min-h-26"
            }
            onClick={() => send({ intent: main.intent })}
          >
            {main.word} <kbd className="rounded border border-bench-on-ready px-1.5 text-fine max-lg:hidden">space</kbd>
          </button>
        ) : d.standing === "waiting" ? (
          <button
            type="button"
            className={
              "btn !min-h-act !border-bench-ready text-sub !text-bench-fresh max-lg:order-last max-lg:col-span-3 " +
              "max-lg:!min-h-26"
            }
            onClick={() => setPanel("touch")}
          >
            It passes by touch
          </button>
        ) : barred ? (
          <p
            className={
              "grid min-h-act place-items-center rounded-lg border border-dashed border-bench-line px-2 text-center " +
              "text-bench-muted max-lg:order-last max-lg:col-span-3"
            }
          >
            First what stands above
          </p>
        ) : (
          <span className="max-lg:hidden" />
        )}
        <button
          type="button"
          className="btn !min-h-act !border-bench-line max-lg:!min-h-glove"
          disabled={!d.last}
          onClick={() => send({ intent: "back" })}
        >
          Take back <kbd className="rounded border px-1.5 text-fine max-lg:hidden">Z</kbd>
        </button>
        <button
          type="button"
          className="btn !min-h-act !border-bench-line max-lg:!min-h-glove"
          onClick={() => setPanel("note")}
        >
          Note <kbd className="rounded border px-1.5 text-fine max-lg:hidden">N</kbd>
        </button>
        <button
          type="button"
          className="btn !min-h-act !border-bench-line max-lg:hidden"
          onClick={() => camera.current?.click()}
        >
          Photo <kbd className="rounded border px-1.5 text-fine max-lg:hidden">C</kbd>
        </button>
        {d.standing === "waiting" || d.standing === "missed" ? (
          <button
            type="button"
            className="btn !min-h-act !border-bench-waiting max-lg:!min-h-glove"
            onClick={() => setPanel("early")}
          >
            Begin early…
          </button>
        ) : (
          <button
            type="button"
            className="btn !min-h-act !border-bench-line max-lg:!min-h-glove"
            disabled={!work || d.run.started === null}
            onClick={() => (open ? setPanel("rest") : send({ intent: "done" }))}
          >
            Step done
          </button>
        )}
      </footer>
    </main>
  );
}

/** What is told of the picture as it is made: size, interval, time, how its tones lie, and what is to be heeded. */
import { useDeferredValue, useSyncExternalStore } from "react";
import { Bar, BarChart, ResponsiveContainer, XAxis } from "recharts";
import { said } from "../../core/units/said";
import { showMinutes } from "../../core/units/show";
import { BINS } from "../../core/tone/stats";
import type { pictureView } from "../../views/picture";
import type { LostHere } from "../../workers/picture-api";
import type { PictureRun } from "../../workers/picture";
import { ActButton } from "../kit/field";
import { boxOf } from "./marked";

/** share of pixels cut off, and of dark dots in the watched part, beyond which it is told */
const CLIPPED = 0.02;
const [LEAST_DARK, MOST_DARK] = [0.15, 0.85];

export type View = ReturnType<typeof pictureView>;
export type Work = View["works"][number];
export const useMade = (run: PictureRun) => useSyncExternalStore(run.subscribe, run.get, run.get);

/** Size, interval, time, and how its tones lie. */
export function Facts({ d, work, run }: { d: View; work: Work; run: PictureRun }) {
  // the chart comes a moment after the picture, so that neither holds the page up
  const { made, share } = useDeferredValue(useMade(run));
  if (!made || share !== null) return null;
  return (
    <div className="grid gap-4 sm:grid-cols-2" data-made={`${made.w} ${made.h}`}>
      <div>
        <p>
          <span className="num">{made.w}</span> × <span className="num">{made.h}</span> pixels, one every{" "}
          {said(`${work.recipe.intervalMm} mm`, d.units)}; <span className="num">{Math.round(made.burnt * 100)} %</span>{" "}
          of it is burnt.
        </p>
        <p>
          {d.seconds === null || d.halvedSeconds === null
            ? "How long the beam takes is not known: no machine is chosen."
            : `${showMinutes(d.seconds / 60)} of laser a piece; with lines twice as far apart ${showMinutes(d.halvedSeconds / 60)}.`}
        </p>
      </div>
      <div>
        <div className="h-20" aria-hidden="true">
          <ResponsiveContainer>
            <BarChart
              data={made.stats.histogram.map((n, i) => ({ i, n: Math.sqrt(n) }))}
              barCategoryGap={0}
              accessibilityLayer={false}
            >
              <XAxis dataKey="i" hide />
              <Bar dataKey="n" fill="var(--color-ink)" isAnimationActive={false} />
            </BarChart>
          </ResponsiveContainer>
        </div>
        <p className="tag">
          From black to white: {(made.stats.black * 100).toFixed(1)} % quite black,{" "}
          {(made.stats.white * 100).toFixed(1)} % quite white; half of it is darker than {median(made.stats.histogram)}{" "}
          of 100.
        </p>
      </div>
    </div>
  );
}
/** screen value in per cent that half of the pixels lie under */
function median(histogram: readonly number[]): number {
  let sum = 0;
  const at = histogram.findIndex((n) => (sum += n) >= 0.5);
  return Math.round((100 * (at + 0.5)) / BINS);
}

const NO_RUN = { subscribe: () => () => undefined, get: () => null };
export function Heeds({ d, run }: { d: View; run: PictureRun | null }) {
  const state = useSyncExternalStore(
    run?.subscribe ?? NO_RUN.subscribe,
    run ? run.get : NO_RUN.get,
    run ? run.get : NO_RUN.get,
  );
  const stats = state?.share === null ? state.made?.stats : undefined;
  const list = [...d.heeds];
  if (stats) {
    const clip = (share: number, what: string): void => {
      if (share > CLIPPED)
        list.push({
          say: `${(share * 100).toFixed(1)} % of it is quite ${what}: detail there is gone. Up to ${CLIPPED * 100} % is usual.`,
          mend: null,
        });
    };
    clip(stats.black, "black");
    clip(stats.white, "white");
    if (state?.made?.lost) list.push(...lostWords(state.made.lost, d.units));
    const dark = stats.watchedDark;
    if (dark !== null && (dark < LEAST_DARK || dark > MOST_DARK)) {
      const box = boxOf(d.picture!.watched!.ring);
      list.push({
        say:
          `The marked part is ${Math.round(dark * 100)} % dark; a face reads between ${LEAST_DARK * 100} and ${MOST_DARK * 100} %. ` +
          `A step that ${dark > MOST_DARK ? "lightens" : "darkens"} it${box ? ` (${box.join(", ")} %)` : ""} mends that.`,
        mend: { label: "Add such a step", act: { intent: "tone-add", kind: "brighten" } },
      });
    }
  }
  if (!list.length) return null;
  return (
    <ul className="mb-4 flex flex-col gap-3 border-l-3 border-waiting pl-4" aria-label="To heed">
      {list.map((x) => (
        <li key={x.say} data-heed>
          {x.say}{" "}
          {x.mend && (
            <ActButton className="link-act" act={x.mend.act}>
              {x.mend.label}
            </ActButton>
          )}
        </li>
      ))}
    </ul>
  );
}

/** What two tones lose, and the thresholds that bring it back. */
function lostWords(lost: LostHere, units: View["units"]): View["heeds"] {
  if (lost.n === 0) return [];
  const parts = `${lost.n} ${lost.n === 1 ? "part" : "parts"} of ${Math.round(lost.mm2 * 10) / 10} mm² in all`;
  const ways = [
    { to: lost.dark, what: "dark" },
    { to: lost.light, what: "light" },
  ].flatMap(({ to, what }) => (to === null ? [] : [{ to: Math.min(0.999, Math.max(0.001, to)), what }]));
  const one = ways.length === 1;
  return ways.map(({ to, what }, i) => ({
    say: said(
      i === 0
        ? `In two tones from ${Math.round(lost.at * 1000) / 10} % on, ${parts} vanish; they are outlined.` +
            (one ? "" : ` Some are dark on light, some light on dark: no one threshold keeps them all.`)
        : `The ${what} ones want the other end.`,
      units,
    ),
    mend: {
      label: `White from ${Math.round(to * 1000) / 10} % brings the ${what} ones back`,
      act: { intent: "tone-set", step: String(lost.step), field: "at", value: String(to) },
    },
  }));
}

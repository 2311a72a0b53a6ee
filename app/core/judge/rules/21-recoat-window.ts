/** Rule 21: recoat outside its window wrinkles; coats within the flash time count as one. */
import { inWindow } from "../../plan/placed";
import type { Rule } from "../snag";
import { showMinutes } from "../../units/show";
import { idBefore } from "../ask";
import { setFix } from "../fixes";

export const rule21: Rule = {
  id: 21,
  severity: "risk",
  title: "Recoat inside its window",
  find: (f) =>
    f.placed.flatMap((p, i) => {
      const r = p.needs.find((n) => n.state === "recoat" || n.state === "maskable");
      if (!r || r.opens === null || p.start === null) return [];
      const flash = r.productId ? f.context.paintOf(r.productId).times.flash.value : null;
      const since = p.start - r.from;
      const early = p.start < r.opens && !(flash !== null && since <= flash) && p.actual?.early !== "touch";
      const last = p.end;
      const late = !inWindow(r, p.start, last - p.start);
      if (!early && !late) return [];
      const before = idBefore(f, i);
      const forced = i > 0 && f.placed[i - 1].step.waitMin !== null;
      const after = (m: number): string => showMinutes(m - r.from);
      const again = r.reopens === null ? "" : ` and reopens after ${after(r.reopens)}`;
      const shuts = `its window shuts after ${after(r.closes ?? r.from)}${again}. In between it wrinkles.`;
      const soon = `goes on after ${showMinutes(since)}; the film takes another coat after ${after(r.opens)}.`;
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: {
            opens: Math.round(r.opens - r.from),
            closes: r.closes === null ? null : Math.round(r.closes - r.from),
            reopens: r.reopens === null ? null : Math.round(r.reopens - r.from),
            waited: Math.round(since),
          },
          why: early
            ? `“${p.step.title}” ${soon}`
            : `“${p.step.title}” ends ${after(last)} after the coat beneath; ${shuts}`,
          fixes:
            p.actual || !before
              ? []
              : forced
                ? [setFix("window", "Go by the film's own window", before, { waitMin: null })]
                : r.reopens !== null
                  ? [
                      setFix("reopen", `Wait until it reopens, ${showMinutes(r.reopens - r.from)}`, before, {
                        waitMin: Math.max(0, r.reopens - (f.placed[i - 1].end ?? r.reopens)),
                      }),
                    ]
                  : [],
        },
      ];
    }),
};

/** Rule 31: the top film is too thick or uneven for a window (M4). */
import { own } from "../../process/kinds";
import { PLAIN_RATIO, window } from "../../models/film/reveal";
import { cutsOf } from "../../process/kinds/laser-work";
import { topDown, zoneOf } from "../../piece/state";
import type { Finding, Rule } from "../snag";
import { does, isCoat, round } from "../ask";
import { editFix } from "../fixes";

export const rule31: Rule = {
  id: 31,
  severity: "risk",
  title: "A window for the laser",
  find: (f) => {
    const c = f.context;
    if (!c.machine) return [];
    return f.placed.flatMap((p, at): Finding[] => {
      const set = own(p.step, "laser");
      const zone = c.filled.find((z) => p.step.zones.includes(z.id));
      if (does(p).beam !== "film" || !zone || !set) return [];
      const state = zoneOf(p.before, zone.id);
      // Uncovered is the zone's own colour: everything above it goes, it stays whole.
      const k = Math.max(
        1,
        topDown(state).findIndex((x) => x.productId === zone.productId && x.role !== "top"),
      );
      const w = window(cutsOf(state, c, set.interval, set.passes), k);
      if (!w || w.ratio >= PLAIN_RATIO) return [];
      const tops = f.placed.slice(0, at).filter((x) => isCoat(x) && own(x.step, "role") === "top");
      const colours = f.placed.slice(0, at).filter((x) => isCoat(x) && own(x.step, "role") === "colour");
      const scaled = (topK: number, colourK: number): number =>
        window(
          cutsOf(
            {
              ...state,
              films: state.films.map((x) => ({
                ...x,
                dryUm: x.dryUm * (x.role === "top" ? topK : x.role === "colour" ? colourK : 1),
              })),
            },
            c,
            set.interval,
            set.passes,
          ),
          k,
        )?.ratio ?? 0;
      const topK = [0.8, 0.65, 0.5, 0.4, 0.3].find((k) => scaled(k, 1) >= PLAIN_RATIO + 0.02);
      const colourK = [1.25, 1.5, 2, 2.5, 3, 4].find((k) => scaled(1, k) >= PLAIN_RATIO + 0.02);
      const both = [
        [0.5, 2],
        [0.4, 3],
        [0.3, 4],
      ].find(([a, b]) => scaled(a, b) >= PLAIN_RATIO + 0.02);
      const set2 = (list: typeof tops, k: number) =>
        list.map((x) => ({
          op: "set" as const,
          step: x.step.id,
          field: "dryUm",
          value: round((own(x.step, "dryUm") ?? 0) * k, 1),
        }));
      return [
        {
          step: p.step.id,
          zone: zone.id,
          numbers: {
            from: round(w.lo, 2),
            to: round(w.hi, 2),
            ratio: round(w.ratio, 2),
            topUm: round(
              tops.reduce((a, x) => a + (own(x.step, "dryUm") ?? 0), 0),
              1,
            ),
          },
          why:
            w.best === null
              ? `No energy lifts the whole top and leaves the colour: the top is gone at ${round(w.lo, 2)} J/mm², ` +
                `the colour starts to go at ${round(w.hi, 2)}.`
              : `The window is only ${round(w.lo, 2)} to ${round(w.hi, 2)} J/mm² (${round(w.ratio, 2)} times); ${PLAIN_RATIO} ` +
                "is wanted to hit it every time.",
          fixes: [
            ...(topK
              ? [
                  editFix(
                    "thin-top",
                    `Thin the top to ${round(tops.reduce((a, x) => a + (own(x.step, "dryUm") ?? 0), 0) * topK)} µm`,
                    () => set2(tops, topK),
                  ),
                ]
              : []),
            ...(colourK
              ? [
                  editFix(
                    "thick-colour",
                    `Build the colour up to ${round(colours.reduce((a, x) => a + (own(x.step, "dryUm") ?? 0), 0) * colourK)} µm`,
                    () => set2(colours, colourK),
                  ),
                ]
              : []),
            ...(!topK && !colourK && both
              ? [
                  editFix("both", "Thinner top over thicker colour", () => [
                    ...set2(tops, both[0]),
                    ...set2(colours, both[1]),
                  ]),
                ]
              : []),
          ],
        },
      ];
    });
  },
};

/** The last look, and the record. */
import { paintless } from "../../catalogue/routes";
import type { Context } from "../context";
import { listWords } from "../../units/show";
import { zoneOf, type Film, type Piece } from "../../piece/state";
import { COLD_C } from "../../models/powder/heat";
import { coldNeed } from "../needs";
import { kind, type Need } from "../step";
import { dampNeed } from "./damp";

/** minutes past touch dry after which it is taken in hand to be looked at */
const LOOKED_AT_MIN = 60;
/** minutes until poured epoxy bears use (M8) */
const EPOXY_USED_MIN = 72 * 60;
function epoxyNeed(p: Piece, c: Context): Need[] {
  const poured = p.zones.flatMap((z) =>
    z.films.filter((f) => f.left > 0 && c.paintOf(f.productId).finish.family === "epoxy"),
  );
  const at = Math.max(...poured.map((f) => f.laidAt ?? -Infinity));
  return Number.isFinite(at)
    ? [
        {
          state: "set-time" as const,
          stacks: [],
          why: "poured epoxy bears use after three days",
          fixed: { at, refMin: EPOXY_USED_MIN, waterBorne: false },
        },
      ]
    : [];
}

export const finalCheck = kind([], {
  id: "final-check",
  name: "Inspect, photograph, pack",
  addable: true,
  on: "face",
  packs: true,
  divisible: true,
  photo: true,
  purpose: () => "The record is made while the piece is still here.",
  tool: () => "Same light each time, camera",
  lookFor: () => ({
    look: "Beside the artwork and the proof; rim fully worked",
    how: "arm's length, same light",
    against: "approval",
  }),
  cues: (_s, c) => [
    paintless(c.route) ? "Every area is marked" : "Every zone has its colour",
    "Photo straight on, then the label",
    ...(c.job.use.includes("wet")
      ? ["Wet test on one piece next day"]
      : paintless(c.route) && !c.substrate.absorbent
        ? []
        : ["Nothing pressed on the face until it has cured"]),
    ...(paintless(c.route) && !c.substrate.absorbent
      ? []
      : ["Tape and nail test at an edge of one piece: nothing lifts"]),
  ],
  minutes: () => ({ setup: 3, perPiece: 0.5 }),
  needs: (s, p, c) => {
    const hard = c.job.use.filter((u) => u === "wet" || u === "outdoors" || u === "food");
    const way = c.job.choices.handover ?? (hard.length ? "cured" : null);
    const films = (of: (list: Film[]) => Film[]): Need["stacks"] =>
      s.zones
        .map((id) => ({ zone: id, films: of(zoneOf(p, id).films.filter((f) => f.left > 0 && f.phase === undefined)) }))
        .filter((x) => x.films.length);
    const looked = films((list) => list.slice(-1));
    const through = films((list) => list.filter((f) => c.paintOf(f.productId).times.sandable.value !== null));
    // a clear coat keeps water out, and keeps solvent in: what lies beneath it has to have cured too (M8)
    const all = films((list) => list);
    return [
      ...dampNeed(p),
      ...coldNeed(p, COLD_C, "it goes cold before it is handled", c),
      ...(looked.length
        ? [
            {
              state: "touch" as const,
              stacks: looked,
              why: "it is taken in hand an hour past touch dry",
              more: LOOKED_AT_MIN,
            },
          ]
        : []),
      ...(way === "cured" && all.length
        ? [
            {
              state: "cured" as const,
              stacks: all,
              why: `it will be ${hard.length ? listWords(hard) : "handed over cured"}: only a cured film bears that`,
            },
          ]
        : []),
      ...(way === null && through.length
        ? [
            {
              state: "sandable" as const,
              stacks: through,
              why: "it is packed dry right through",
            },
          ]
        : []),
      ...epoxyNeed(p, c),
    ];
  },
  apply: (_s, p) => p,
});

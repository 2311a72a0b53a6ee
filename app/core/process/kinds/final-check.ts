/** The last look, and the record. */
import { zoneOf } from "../../piece/state";
import { COLD_C } from "../../models/powder/heat";
import { coldNeed } from "../needs";
import { kind, type Need } from "../step";
import { dampNeed } from "./damp";

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
    "Every zone has its colour",
    "Photo straight on, then the label",
    ...(c.job.use.includes("wet")
      ? ["Wet test on one piece next day"]
      : ["Nothing pressed on the face until it has cured"]),
    "Tape and nail test at an edge of one piece: nothing lifts",
  ],
  minutes: () => ({ setup: 3, perPiece: 0.5 }),
  needs: (s, p, c) => {
    const wet = c.job.use.some((u) => u === "wet" || u === "outdoors" || u === "food");
    const state = (c.job.choices.handover ?? (wet ? "cured" : "touch")) === "cured" ? "cured" : "touch";
    const stacks = s.zones
      .map((id) => ({ zone: id, films: zoneOf(p, id).films.filter((f) => f.left > 0 && f.phase === undefined) }))
      .map((x) => ({
        ...x,
        films:
          state === "touch"
            ? x.films.slice(-1)
            : x.films.filter((f) => f.role === "clear").length
              ? x.films.filter((f) => f.role === "clear")
              : x.films,
      }))
      .filter((x) => x.films.length);
    const last: Need[] = stacks.length
      ? [
          {
            state,
            stacks,
            why: state === "cured" ? "it will be wet or outdoors: only a cured film bears that" : "it can be handled",
          },
        ]
      : [];
    return [...dampNeed(p), ...coldNeed(p, COLD_C, "it goes cold before it is handled", c), ...last];
  },
  apply: (_s, p) => p,
});

/** Keeping one colour off what another has, or will have: a shield laid loose, or tape. */
import { mapZones, zoneOf } from "../../piece/state";
import { COLD_C } from "../../models/powder/heat";
import { maskOf } from "../masks";
import { coldNeed, needOf, topNeed } from "../needs";
import type { Context } from "../context";
import { kind } from "../step";

/** Laid loose, or stuck down? A shield that nobody has named is loose. */
const loose = (id: string | null, c: Context): boolean => !c.hasPaint(id) || maskOf(id, c).loose;

export const cover = kind(["productId"], {
  id: "cover",
  name: "Cover what is not painted now",
  addable: true,
  on: "zones",
  lays: "mask",
  turns: true,
  divisible: true,
  purpose: () => "The next colour must not reach what is done or what comes later.",
  tool: (s, c) => (c.hasPaint(s.productId) ? maskOf(s.productId, c).name : "Paper shield, small weights"),
  lookFor: () => ({
    look: "Only what is painted now lies open",
    how: "look straight down, then from the spraying side",
    against: "weeding map",
  }),
  cues: (s, c) => [
    `Open now: ${
      c.job.zones
        .filter((z) => !s.zones.includes(z.id))
        .map((z) => z.name)
        .join(", ") || "nothing"
    }`,
    ...(loose(s.productId, c)
      ? [
          "Loose stencils: weights on every corner, count them off again",
          "Lift the shield before the paint bridges to it",
        ]
      : ["Rub its edges down hard; it stays on while it is hot"]),
  ],
  minutes: () => ({ setup: 2, perPiece: 0.8 }),
  needs: (s, p, c) => [
    ...coldNeed(p, COLD_C, "tape sticks badly to a warm fill", c),
    ...(c.school("between") === "dry"
      ? needOf(s.zones, p, "sandable", "one colour is dry right through before the next")
      : topNeed(s.zones, p, "touch", "a shield on wet paint lifts it")),
  ],
  refuses: (s, p) =>
    s.zones.length && s.zones.every((z) => zoneOf(p, z).mask) ? "all of it is covered already" : null,
  apply: (s, p, c) => ({
    ...mapZones(p, s.zones, (z) =>
      z.mask
        ? z
        : {
            ...z,
            mask: {
              step: s.id,
              productId: s.productId,
              um: 90,
              cut: true,
              loose: loose(s.productId, c),
              hotC: null,
              over: [],
            },
          },
    ),
    touched: "shield",
  }),
});

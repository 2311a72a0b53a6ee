/** Sticking tape or film down over the face. */
import { mapZones, zoneOf } from "../../piece/state";
import { maskOf } from "../masks";
import { faceMm2 } from "../../geometry/blank";
import { needOf } from "../needs";
import { kind } from "../step";
import { dampNeed } from "./damp";

export const maskLay = kind(["productId"], {
  id: "mask-lay",
  name: "Stick the mask down",
  addable: true,
  on: "face",
  lays: "mask",
  turns: true,
  divisible: true,
  purpose: () => "Keeps colour off everything that is not cut.",
  tool: (s, c) => `${maskOf(s.productId, c).name}, squeegee`,
  lookFor: () => ({
    look: "No silver spots, wrinkles, lifted rim; holes and edges found and covered",
    how: "tilt, press again, hold to the light",
    against: "its own first corner, which was rubbed down hard",
  }),
  cues: (s, c) => [
    "One sheet if it goes, laid in one pass from an edge",
    "Squeegee hard from the middle outward; prick bubbles",
    "Wrap the edges so that it stays flat; tape over holes",
    `Mark the top on the mask${c.job.substrate.shape === "ball" ? "; slit it where it would wrinkle" : ""}`,
    ...(maskOf(s.productId, c).chlorinated === null
      ? ["Ask its maker whether it holds chlorine before any beam or heat"]
      : []),
  ],
  minutes: (_s, c) => ({ setup: 3, perPiece: 0.6 + faceMm2(c.job.substrate) / 40000 }),
  needs: (s, p) => [...dampNeed(p), ...needOf(s.zones, p, "maskable", "the film beneath bears tape")],
  refuses: (s, p) => (s.zones.every((z) => zoneOf(p, z).mask) ? "it is masked all over already" : null),
  apply: (s, p, c) => {
    const m = maskOf(s.productId, c);
    return {
      ...mapZones(p, s.zones, (z) =>
        z.mask
          ? z
          : {
              ...z,
              mask: { step: s.id, productId: s.productId, um: m.um, cut: false, loose: m.loose, hotC: null, over: [] },
            },
      ),
      touched: "mask",
    };
  },
});

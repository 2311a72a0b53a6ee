/** Rule 67: a cut that goes through the piece, near enough to mark its back, or through the veneer that it is cut into. */
import { own } from "../../process/kinds";
import { zoneOf } from "../../piece/state";
import { showLength } from "../../units/show";
import type { Finding, Rule } from "../snag";
import { does, round } from "../ask";
import { setFix } from "../fixes";

/** mm that must stay between a cut and the back, for what is written there and so that it holds */
const BACK_MM = 0.3;

export const rule67: Rule = {
  id: 67,
  severity: "stop",
  title: "Nothing is cut through unseen",
  find: (f) =>
    f.placed.flatMap((p): Finding[] => {
      if (does(p).beam !== "body" && does(p).beam !== "skin") return [];
      const { t } = f.context.job.substrate;
      const veneer = f.context.substrate.veneerMm;
      const deepest = p.step.zones.reduce<{ zone: string; mm: number }>(
        (a, zone) => {
          const mm = zoneOf(p.after, zone).depthUm / 1000;
          return mm > a.mm ? { zone, mm } : a;
        },
        { zone: p.step.zones[0] ?? "", mm: 0 },
      );
      const was = Math.max(0, ...p.step.zones.map((z) => zoneOf(p.before, z).depthUm / 1000));
      const may = Math.min(t - BACK_MM, veneer ?? Infinity);
      if (deepest.mm <= may + 0.005 || deepest.mm <= was) return [];
      const through = deepest.mm >= t - BACK_MM;
      const to = Math.max(0.01, Math.floor((may - was - 0.02) * 100) / 100);
      const set = setFix("shallower", `Cut ${to} mm`, p.step.id, {
        depthMm: to,
        ...(own(p.step, "laser")?.from === "typed" ? { power: null, speed: null, interval: null, passes: null } : {}),
      });
      const plated = own(p.step, "laser")?.from === "test plate";
      return [
        {
          step: p.step.id,
          zone: deepest.zone,
          numbers: { depthMm: round(deepest.mm, 2), mayMm: round(may, 2), thickMm: t, veneerMm: veneer },
          why: through
            ? `“${p.step.title}” reaches ${showLength(deepest.mm)} of ${showLength(t)}: through, or marked on the back.`
            : `“${p.step.title}” reaches ${showLength(deepest.mm)}; the face veneer is ${showLength(veneer!)}, and beneath it ` +
              "lies glue and another wood.",
          // a setting found on a plate would dig as deep again
          fixes: [plated ? { ...set, apply: (w) => set.apply({ ...w, job: { ...w.job, plate: null } }) } : set],
        },
      ];
    }),
};

/** Rule 14: every zone has its colour and its step. */
import { own } from "../../process/kinds";
import { zoneOf } from "../../piece/state";
import type { Rule } from "../snag";
import { nearest } from "../../process/pick";
import { does, finalPiece, isCoat, round } from "../ask";
import { addStep, jobFix, restoreOrAdd } from "../fixes";

export const rule14: Rule = {
  id: 14,
  severity: "advice",
  title: "Every zone has its colour",
  find: (f) => {
    const end = finalPiece(f);
    const c = f.context;
    if (!end) return [];
    return c.job.zones.flatMap((z) => {
      if (z.bare) return [];
      const bareFix = jobFix("bare", "Leave it as it is", (j) => ({
        zones: j.zones.map((x) => (x.id === z.id ? { ...x, bare: true, productId: null } : x)),
      }));
      // a route without paint has a step for it or none: rule 16 looks at what it leaves
      if (c.uncovered.includes(z)) return [];
      if (!c.hasPaint(z.productId)) {
        const near = nearest(c.world.products, z.colour)[0];
        return [
          {
            step: null,
            zone: z.id,
            numbers: { areaMm2: round(z.areaMm2) },
            why: `The zone “${z.name}” (${round(z.areaMm2)} mm²) has no finish and is not left as it is.`,
            fixes: [
              ...(near
                ? [
                    jobFix("nearest", `Give it ${near.product.name}`, (j) => ({
                      zones: j.zones.map((x) => (x.id === z.id ? { ...x, productId: near.product.id } : x)),
                    })),
                  ]
                : []),
              bareFix,
            ],
          },
        ];
      }
      if (zoneOf(end, z.id).mark || zoneOf(end, z.id).films.some((x) => x.productId === z.productId && x.left > 0))
        return [];
      const laid = f.placed.find((p) => isCoat(p) && own(p.step, "role") === "colour" && p.step.zones.includes(z.id));
      const other = laid ? c.paintOf(own(laid.step, "productId") as string).product : null;
      const name = c.paintOf(z.productId).product.name;
      return [
        {
          step: null,
          zone: z.id,
          numbers: { areaMm2: round(z.areaMm2) },
          why: `No step leaves ${name} in “${z.name}” (${round(z.areaMm2)} mm²); it would be found after the last coat.`,
          fixes: [
            other && other.id !== z.productId
              ? jobFix("same", `Give it ${other.name}, as the rest`, (j) => ({
                  zones: j.zones.map((x) => (x.id === z.id ? { ...x, productId: other.id } : x)),
                }))
              : restoreOrAdd(
                  "coat",
                  `Put its coats of ${name} back`,
                  (e) => e.step.startsWith("coat.colour"),
                  () => {
                    const step = `coat.${z.id}.added`;
                    const sand = f.placed.findIndex(
                      (p) => does(p).sands === "face" || does(p).tries === "setting" || own(p.step, "role") === "clear",
                    );
                    return [
                      addStep(
                        "coat",
                        step,
                        f.placed[(sand < 0 ? f.placed.length : sand) - 1]?.step.id ?? null,
                        z.productId,
                      ),
                      { op: "set", step, field: "zones", value: z.id },
                    ];
                  },
                ),
            bareFix,
          ],
        },
      ];
    });
  },
};

/** Sanding back to bare wood, or lightly after a mask. */
import { capital, material } from "../words";
import { sandPlan } from "../../models/depth/depth";
import { mapZones, zoneOf, type Film } from "../../piece/state";
import { LIFT_C } from "../../models/powder/heat";
import { faceMm2 } from "../../geometry/blank";
import { coldNeed } from "../needs";
import { kind, type Need } from "../step";

export const sandBack = kind(["sandUm"], {
  id: "sand-back",
  name: "Sand the face back",
  addable: true,
  on: "face",
  sands: "face",
  divisible: true,
  irreversible: true,
  photo: true,
  fields: ["sandUm", "minutes", "waitMin"],
  figures: ["depth"],
  matters: ["sand-after"],
  purpose: (s) => `Leaves colour only in the cut${s.sandUm ? `; takes ${Math.round(s.sandUm)} µm off the face` : ""}.`,
  tool: (_s, c) =>
    c.substrate.family === "wood" || c.substrate.family === "mdf"
      ? "80, 120, then 180-220 grit on a flat block"
      : "Fine wet-and-dry paper on a flat block, a little water",
  lookFor: (_s, c) => ({
    look: `${capital(material(c.substrate.family))} its own colour, fill whole, no glue line`,
    how: "daylight",
    against: "raw offcut",
  }),
  cues: (s, c) => [
    ...(s.sandUm
      ? [
          sandPlan(s.sandUm)
            .map((g) => `${g.grit}: ${g.strokes} strokes`)
            .join(", "),
        ]
      : []),
    c.substrate.veneerMm
      ? `Veneer face ${c.substrate.veneerMm} mm: stop at ${Math.round(c.substrate.veneerMm * 600)} µm`
      : `No pressure; stop at bare ${material(c.substrate.family)}`,
    `Tick every colour first: ${c.filled.map((z) => z.name).join(", ")}`,
  ],
  minutes: (_s, c) => ({ setup: 3, perPiece: 0.8 + faceMm2(c.job.substrate) / 12000 }),
  needs: (s, p, c) => {
    const stacks = s.zones
      .map((id) => ({ zone: id, films: zoneOf(p, id).films.filter((f) => f.phase === undefined) }))
      .filter((x) => x.films.length);
    const need: Need[] = stacks.length ? [{ state: "sandable", stacks, why: "damp paint swallows sanding dust" }] : [];
    return [...need, ...coldNeed(p, LIFT_C, "a warm fill drags", c)];
  },
  apply: (s, p) => {
    const face = p.sandedUm + (s.sandUm ?? 0);
    // Everything above the new face goes: films proud of it, and what lay on the ground.
    const cut = mapZones(p, s.zones, (z) => {
      let level = z.depthUm;
      const films: Film[] = [];
      for (const f of z.films) {
        const top = level - f.dryUm * f.left;
        if (level > face) films.push(top >= face ? f : { ...f, left: (f.left * (level - face)) / (level - top) });
        level = top;
      }
      return { ...z, depthUm: Math.max(z.depthUm, face), films };
    });
    return { ...cut, sandedUm: face, clean: false };
  },
});

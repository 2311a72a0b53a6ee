/** Steps after the laser: soot, sanding, touching up, last look. */
import { mapZones, zoneOf, type Film } from "../../piece/state";
import { sandPlan } from "../../depth/depth";
import type { Need, StepKind } from "../step";
import { COLD_C, LIFT_C } from "../../powder/heat";
import { coldNeed } from "../needs";
import { dampNeed } from "./prepare";

const hand = { addable: true, divisible: true, laser: false, refuses: () => null };

export const sandResidue: StepKind = {
  ...hand,
  id: "sand-residue",
  name: "Sand off the residue",
  irreversible: false,
  purpose: () => "The sticky film that burning leaves on the face would keep the sealer from holding.",
  tool: () => "220 grit on a flat block",
  lookFor: () => ({ look: "Face its own colour, edge still sharp", how: "daylight", against: "raw offcut" }),
  cues: () => ["With the grain, no pressure", "Stop as soon as the brown is gone"],
  minutes: () => ({ setup: 2, perPiece: 0.5 }),
  needs: () => [],
  apply: (s, p) => ({ ...p, soot: false, clean: false, sandedUm: p.sandedUm + (s.sandUm ?? 0) }),
};

export const wash: StepKind = {
  ...hand,
  id: "wash",
  name: "Clean off the soot",
  irreversible: false,
  purpose: () => "Soot under a clear coat stays for good.",
  tool: () => "Soft pad, a drop of soap, towel",
  lookFor: () => ({ look: "Towel comes away clean", how: "wipe until no more grey comes off", against: "towel" }),
  cues: (_s, c) => (c.school("clean-off") === "wipe" ? ["Wipe along the lines, no pressure, until the cloth stays clean", "Never under a tap"] : ["Wipe along the lines, no pressure", "Rinse, pat dry; touch edges only from here"]),
  minutes: () => ({ setup: 3, perPiece: 1 }),
  needs: () => [],
  apply: (s, p, c, at) => ({ ...p, soot: false, clean: true, touched: "pad", damp: c.school("clean-off") === "wipe" ? p.damp : { step: s.id, kind: "rinse", at } }),
};

export const sandBack: StepKind = {
  ...hand,
  id: "sand-back",
  name: "Sand back to bare wood",
  irreversible: true,
  purpose: (s) => `Leaves colour only in the cut${s.sandUm ? `; takes ${Math.round(s.sandUm)} µm off the face` : ""}.`,
  tool: () => "80, 120, then 180-220 grit on a flat block",
  lookFor: () => ({ look: "Wood its own colour, fill whole, no glue line", how: "daylight", against: "raw offcut" }),
  cues: (s, c) => [
    ...(s.sandUm ? [sandPlan(s.sandUm).map((g) => `${g.grit}: ${g.strokes} strokes`).join(", ")] : []),
    c.substrate.veneerMm ? `Veneer face ${c.substrate.veneerMm} mm: stop at ${Math.round(c.substrate.veneerMm * 600)} µm` : "No pressure; stop at bare wood",
    `Tick every colour first: ${c.filled.map((z) => z.name).join(", ")}`,
  ],
  minutes: (_s, c) => ({ setup: 3, perPiece: 0.8 + (c.job.substrate.w * c.job.substrate.h) / 12000 }),
  needs: (s, p) => {
    const stacks = s.zones.map((id) => ({ zone: id, films: zoneOf(p, id).films.filter((f) => f.phase === undefined) })).filter((x) => x.films.length);
    const need: Need[] = stacks.length ? [{ state: "sandable", stacks, why: "damp paint swallows sanding dust" }] : [];
    return [...need, ...coldNeed(p, LIFT_C, "a warm fill drags")];
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
};

export const finalCheck: StepKind = {
  ...hand,
  id: "final-check",
  name: "Inspect, photograph, pack",
  irreversible: false,
  purpose: () => "The record is made while the piece is still here.",
  tool: () => "Same light each time, camera",
  lookFor: () => ({ look: "Beside the artwork and the proof; rim fully worked", how: "arm's length, same light", against: "approval" }),
  cues: (_s, c) => ["Every zone has its colour", "Photo straight on, then the label", ...(c.job.use.includes("wet") ? ["Wet test on one piece next day"] : ["Nothing pressed on the face until it has cured"]), "Tape and nail test at an edge of one piece: nothing lifts"],
  minutes: () => ({ setup: 3, perPiece: 0.5 }),
  needs: (s, p, c) => {
    const wet = c.job.use.some((u) => u === "wet" || u === "outdoors" || u === "food");
    const state = (c.job.choices.handover ?? (wet ? "cured" : "touch")) === "cured" ? "cured" : "touch";
    const stacks = s.zones
      .map((id) => ({ zone: id, films: zoneOf(p, id).films.filter((f) => f.left > 0 && f.phase === undefined) }))
      .map((x) => ({ ...x, films: state === "touch" ? x.films.slice(-1) : x.films.filter((f) => f.role === "clear").length ? x.films.filter((f) => f.role === "clear") : x.films }))
      .filter((x) => x.films.length);
    const last: Need[] = stacks.length ? [{ state, stacks, why: state === "cured" ? "it will be wet or outdoors: only a cured film bears that" : "it can be handled" }] : [];
    return [...dampNeed(p), ...coldNeed(p, COLD_C, "it goes cold before it is handled"), ...last];
  },
  apply: (_s, p) => p,
};

/** A wait put in by hand. */
export const rest: StepKind = {
  ...hand,
  id: "rest",
  name: "Let it rest",
  irreversible: false,
  purpose: () => "A pause of your own.",
  tool: () => "Nothing",
  lookFor: () => ({ look: "Covered from dust", how: "a look", against: "-" }),
  cues: () => ["Cover it; keep pets and children away"],
  minutes: () => ({ setup: 0, perPiece: 0 }),
  needs: () => [],
  apply: (_s, p) => p,
};

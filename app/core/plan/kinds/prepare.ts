/** Steps before the first film: looking over, labelling, scuffing, degreasing, dusting. Minutes are trade defaults, learned from the log. */
import type { Piece } from "../../piece/state";
import type { StepKind } from "../step";

/** mm of scrap round a piece with blended bands, and what a saw takes */
const SCRAP_MM = 30;
const KERF_MM = 3;
const still = { divisible: true, laser: false, irreversible: false, needs: () => [], refuses: () => null };

export const inspectBlank: StepKind = {
  ...still,
  id: "inspect-blank",
  name: "Look over the blanks",
  addable: true,
  purpose: () => "Sort out flawed pieces before anything is spent on them.",
  tool: () => "Good light, caliper",
  lookFor: () => ({ look: "Flaws, warp, burrs", how: "turn in the light, sight along the edge", against: "reject pile" }),
  cues: (_s, c) => [`Count ${c.job.quantity}; put doubtful ones aside`, "Measure thickness where the artwork will lie", ...(c.job.route === "A4" ? [`Board ${c.job.substrate.w + 2 * SCRAP_MM + KERF_MM} × ${c.job.substrate.h + 2 * SCRAP_MM + KERF_MM} mm: ${SCRAP_MM} mm of scrap all round to test on, ${KERF_MM} mm for the saw; mark the trim line on the back`] : [])],
  minutes: () => ({ setup: 2, perPiece: 0.25 }),
  apply: (_s, p) => p,
};

export const label: StepKind = {
  ...still,
  id: "label",
  name: "Label the backs",
  addable: true,
  purpose: () => "Every piece is known by its number once its back is covered.",
  tool: () => "Labels or a pencil",
  lookFor: () => ({ look: "Job, piece number and top mark on every back", how: "count them", against: "quantity" }),
  cues: (_s, c) => [`Number 1 to ${c.job.quantity}`, "Mark which edge is the top"],
  minutes: () => ({ setup: 2, perPiece: 0.3 }),
  apply: (_s, p) => ({ ...p, labelled: true }),
};

const dirty = (p: Piece): Piece => ({ ...p, clean: false });

export const scuff: StepKind = {
  ...still,
  id: "scuff",
  name: "Scuff the face",
  addable: true,
  purpose: () => "Bright metal gives paint nothing to hold.",
  tool: () => "Medium abrasive pad",
  lookFor: () => ({ look: "Evenly matt, no bright streak", how: "raking light", against: "a scuffed offcut" }),
  cues: () => ["One direction, then across", "Edges too; keep the burrs away from bare skin"],
  minutes: () => ({ setup: 3, perPiece: 1 }),
  apply: (_s, p) => ({ ...dirty(p), scuffed: true }),
};

const CLEANERS = { acetone: "Acetone", alcohol: "Alcohol", citrus: "Citrus cleaner", chlorinated: "Chlorinated cleaner" };

export const degrease: StepKind = {
  ...still,
  id: "degrease",
  name: "Degrease the face",
  addable: true,
  purpose: () => "Oil under a film lets go later, most of all where the laser stops.",
  tool: (_s, c) => `${CLEANERS[c.job.choices.cleaner]}, lint-free cloth, gloves`,
  lookFor: () => ({ look: "No oil, no smell of solvent left", how: "raking light, clean cloth", against: "a bare cleaned offcut" }),
  cues: () => ["Wipe one way, turn the cloth, wipe again", "From here on touch edges only", "Rags into the lidded metal can"],
  minutes: () => ({ setup: 3, perPiece: 0.5 }),
  apply: (s, p, _c, at) => ({ ...p, clean: true, soot: false, damp: { step: s.id, kind: "solvent", at } }),
};

export const dust: StepKind = {
  ...still,
  id: "dust",
  name: "Blow and wipe off dust",
  addable: true,
  purpose: () => "Dust under a film shows as pits and lets the edge lift.",
  tool: () => "Soft brush or gentle air, mask and glasses",
  lookFor: () => ({ look: "No dust in the corners", how: "tilt to the light", against: "a clean cut" }),
  cues: () => ["Out of the cut, not into it", "Do not wet the wood"],
  minutes: () => ({ setup: 2, perPiece: 0.2 }),
  apply: (_s, p) => ({ ...p, clean: true }),
};

/** minutes at the reference climate before solvent is gone, and before a rinsed piece is dry */
export const SOLVENT_MIN = 10;
export const RINSE_MIN = 120;

/** What a damp surface asks for before paint or beam. */
export function dampNeed(p: Piece): import("../step").Need[] {
  if (!p.damp || p.damp.at === null) return [];
  const rinse = p.damp.kind === "rinse";
  return [{ state: "dry", stacks: [], why: rinse ? "the rinsed face is dry" : "the solvent is gone: 10 min and no smell", fixed: { at: p.damp.at, refMin: rinse ? RINSE_MIN : SOLVENT_MIN, waterBorne: rinse } }];
}

/** Ways back into the work when a recoat window was missed: scuffing the film for a hold of its own, or stripping it and beginning again. */
import { mapZones, type Film } from "../../piece/state";
import type { Need, StepKind } from "../step";

const hand = { addable: true, divisible: true, laser: false, refuses: () => null };
const laid = (films: Film[]): Film[] => films.filter((f) => f.left > 0);

export const scuffFilm: StepKind = {
  ...hand,
  id: "scuff-film",
  name: "Scuff the film",
  irreversible: false,
  purpose: () => "A film past its recoat window holds nothing by itself; fine scratches do.",
  tool: () => "Fine abrasive pad or 400 grit, wet or dry as its sheet says",
  lookFor: () => ({ look: "Evenly matt, no shine left, nothing cut through", how: "raking light", against: "an untouched corner" }),
  cues: () => ["Light pressure, flat; keep off the edges", "Stop before the colour beneath shows", "Wipe off every grain of dust after it"],
  minutes: () => ({ setup: 3, perPiece: 1 }),
  needs: (s, p) => {
    const stacks = s.zones.map((id) => ({ zone: id, films: laid(p.zones.find((z) => z.zone === id)?.films ?? []) })).filter((x) => x.films.length);
    const need: Need[] = stacks.length ? [{ state: "sandable", stacks, why: "a soft film tears instead of scuffing" }] : [];
    return need;
  },
  apply: (s, p) => ({ ...mapZones(p, s.zones, (z) => ({ ...z, films: z.films.map((f, i) => (i === z.films.length - 1 ? { ...f, keyed: true } : f)) })), clean: false }),
};

export const strip: StepKind = {
  ...hand,
  id: "strip",
  name: "Strip the paint, begin again",
  irreversible: true,
  purpose: () => "Takes every film off so that the coats can be laid anew. A fresh cure strips easily, an old one takes far longer.",
  tool: () => "Thinner that the paint’s sheet names, gloves, respirator, lidded can for the rags",
  lookFor: () => ({ look: "Bare all over, edges and back too", how: "raking light, clean cloth", against: "a bare blank" }),
  cues: () => ["Try the thinner on an offcut: it may craze or swell the piece", "Thinner and rags are hazardous waste, never the drain", "No flame or spark near the vapour"],
  minutes: () => ({ setup: 5, perPiece: 4 }),
  needs: () => [],
  apply: (s, p, _c, at) => ({ ...mapZones(p, s.zones, (z) => ({ ...z, films: [] })), clean: false, damp: { step: s.id, kind: "solvent", at } }),
};

/** G12 spot the flaw: name, cause, rescue, on drawn pieces with and without flaws. */
import { FLAW_KINDS, type FlawId } from "../catalogue/flaws";
import { randomOf } from "../units/random";
import { pickOf, type Answer, type Exercise } from "./exercise";
import { flawDrawing } from "./flaw-drawing";

const NONE = "none";
function seenOf(seed: number, level: number) {
  const r = randomOf(seed * 47 + level);
  const flaw: FlawId | null = r.next() < 0.12 ? null : pickOf(FLAW_KINDS, r).id;
  const severity = 4 - level;
  const others = FLAW_KINDS.filter((f) => f.id !== flaw);
  const offered = [
    ...(flaw ? [flaw] : []),
    ...Array.from({ length: 4 }, () => others.splice(r.below(others.length), 1)[0].id),
  ];
  const names = offered
    .map((id) => ({ id, key: r.next() }))
    .sort((a, b) => a.key - b.key)
    .map((x) => x.id);
  const kind = flaw ? FLAW_KINDS.find((f) => f.id === flaw)! : null;
  const rescues = (kind ? [kind] : [])
    .concat(FLAW_KINDS.filter((f) => names.includes(f.id) && f.id !== flaw))
    .slice(0, 3);
  const mixed = rescues
    .map((f) => ({ f, key: r.next() }))
    .sort((a, b) => a.key - b.key)
    .map((x) => x.f);
  return { flaw, kind, severity, names, rescues: mixed, picture: flawDrawing(flaw, severity, seed) };
}
export const spotTheFlaw: Exercise = {
  id: "flaw",
  name: "Spot the flaw",
  about: "What is it, and what is done for the piece first?",
  guide: "step-final-check",
  kinds: ["final-check"],
  levels: 3,
  task(seed, level) {
    const t = seenOf(seed, level);
    return {
      says: "Look along the face in slanting light. What do you see?",
      facts: [],
      controls: [
        {
          id: "flaw",
          label: "It is",
          kind: "choice",
          options: [
            ...t.names.map((id) => ({ value: id, label: FLAW_KINDS.find((f) => f.id === id)!.name })),
            { value: NONE, label: "nothing: a sound piece" },
          ],
          start: NONE,
        },
        {
          id: "rescue",
          label: "First",
          kind: "choice",
          options: [
            ...t.rescues.map((f) => ({ value: f.id, label: f.rescue[0] })),
            { value: NONE, label: "nothing has to be done" },
          ],
          start: NONE,
        },
      ],
      picture: t.picture,
    };
  },
  judge(seed, level, a) {
    const t = seenOf(seed, level);
    const truth = t.flaw ?? NONE;
    const named = a.flaw === truth;
    const saved = a.rescue === truth;
    const good = named && saved;
    const next: Answer = named ? { flaw: truth, rescue: truth } : { flaw: truth, rescue: String(a.rescue) };
    return {
      score: (named ? 0.6 : 0) + (saved ? 0.4 : 0),
      good,
      says: t.kind
        ? `${t.kind.name}: ${t.kind.looks}. Most often ${t.kind.causes[0].says}.`
        : "A sound piece: grain shows, the edge is crisp, nothing in the gloss.",
      wrongAt: good ? null : named ? "in what is done for it" : "in its name",
      figures: t.kind ? t.kind.rescue.map((x, i): [string, string] => [`${i + 1}.`, x]) : [],
      picture: null,
      next,
    };
  },
};

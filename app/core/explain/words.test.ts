/**
 * Every sentence of every card, over all routes, materials and beams: what may not stand together does not. The sentences are put into
 * a file as well, for somebody to read them through.
 */
import { mkdirSync, writeFileSync } from "node:fs";
import { snagsOf } from "../judge/judge";
import { generate } from "../plan/generate";
import { makePlan, type Plan } from "../plan/plan";
import { context } from "../process/context";
import { kindOf, own, type Step } from "../process/kinds";
import { brief } from "../testing/briefs";
import { odd } from "../testing/odd";
import { many } from "../testing/worlds";
import { workCard, type Card } from "./card";

const OUT = "node_modules/.cache/words";

interface Said {
  text: string;
  plan: Plan;
  step: Step | null;
}
/** All that a card says. */
function sentences(plan: Plan, card: Card): Said[] {
  const of = (i: number): Said[] => {
    const s = card.steps[i];
    const all = [s.title, ...s.lines, ...s.cues, s.lookFor, s.wait ?? "", ...s.cautions, purpose(i)];
    return all.filter(Boolean).map((text) => ({ text, plan, step: plan.placed[i].step }));
  };
  const purpose = (i: number): string => kindOf(plan.placed[i].step.kind).purpose(plan.placed[i].step, plan.context);
  const rest = [...card.hazards, ...card.waivers, ...card.unfit, card.on, card.machine, card.air];
  return [...card.steps.flatMap((_s, i) => of(i)), ...rest.map((text) => ({ text, plan, step: null }))];
}
/** One plan for every route on every material by every beam that it can be planned for. */
function allSaid(): Said[] {
  const out = new Map<string, Said[]>();
  for (let n = 0; n < many(482); n++) {
    const plan = makePlan(brief(n), null, true);
    const { route, substrate, machine, job } = plan.context;
    const key = [route!.id, substrate.id, machine!.beam, job.substrate.shape ?? "flat"].join();
    if (!out.has(key)) out.set(key, sentences(plan, workCard(plan, plan.context.clock.fromLocal("2027-01-11T09:00"))));
  }
  return [...out.values()].flat();
}

const family = (s: Said): string => s.plan.context.substrate.family;
const masked = (s: Said): boolean => s.plan.placed.some((p) => kindOf(p.step.kind).lays === "mask");
const powdered = (s: Said): boolean => s.plan.placed.some((p) => kindOf(p.step.kind).lays === "powder");
const paintOf = (s: Said) => s.plan.context.paint(own(s.step, "productId"));

/** What may not be said, and where. */
const NOT: [string, RegExp, (s: Said) => boolean][] = [
  ["wood words off wood", /\b(wood|grain|veneer)\b/i, (s) => family(s) !== "wood"],
  ["glaze off tile", /\bglaze/i, (s) => family(s) !== "tile"],
  ["metal words off metal", /\b(bare metal|bright metal|abrasive pad)\b/i, (s) => !/metal|wood/.test(family(s))],
  ["silvering off glass", /silvering/i, (s) => family(s) !== "glass"],
  ["board off MDF", /\bboard drinks|bare board\b/i, (s) => family(s) !== "mdf"],
  ["water on what drinks", /\b(rinse,|pat dry|under a tap|soap)\b/i, (s) => s.plan.context.substrate.absorbent],
  ["degreased what drinks", /degrease/i, (s) => s.plan.context.substrate.absorbent],
  [
    "damp wipe over ink or marker",
    /damp/i,
    (s) => ["ink", "marker"].some((x) => x === paintOf(s)?.finish.family || x === paintOf(s)?.finish.by),
  ],
  ["mask words without a mask", /(?<!dust )\b(mask|weed)/i, (s) => !masked(s) && s.step !== null],
  ["powder where there is none", /powder/i, (s) => !powdered(s)],
  [
    "flat words on what is round",
    /focus on the face|face up|corner as the origin/i,
    (s) => (s.plan.context.job.substrate.shape ?? "flat") !== "flat",
  ],
  [
    "round words on what is flat",
    /chuck|rotary|on the crown|down the drop/i,
    (s) => (s.plan.context.job.substrate.shape ?? "flat") === "flat",
  ],
  ["face up behind a sheet", /\bface up\b/i, (s) => s.plan.context.route!.side === "back"],
  ["labels on a back that is painted", /on every back|label the back/i, (s) => s.plan.context.route!.side === "back"],
  [
    "out of a can with a brush",
    /\b(shake two minutes|spraying box)\b/i,
    (s) => s.step?.kind === "coat" && paintOf(s)?.finish.by !== "spray",
  ],
  [
    "brush words for a can",
    /\b(stir|brush, no\.)/i,
    (s) => s.step?.kind === "coat" && paintOf(s)?.finish.by === "spray",
  ],
  ["mirrored and not", /^not mirrored/i, (s) => s.plan.context.route!.mirrored],
  ["a loose shield in the heat", /loose stencil/i, (s) => paintOf(s)?.mask?.loose === false],
  [
    "one interval for engraving and for melting",
    /^Interval /,
    (s) => s.plan.placed.some((p) => own(p.step, "method") === "laser"),
  ],
  [
    "air on over powder",
    /; air on\b/i,
    (s) =>
      s.plan.context.route!.phases.some((p) => p.do === "colours" && p.melt === "laser") && s.step?.kind === "melt",
  ],
];
/** What is wrong wherever it stands. */
const NEVER: [string, RegExp][] = [
  ["a word twice", /\b([a-z]{2,}) \1\b/i],
  ["nothing where something should stand", /\b(undefined|NaN|null|\[object)|Against: -|: \.|“”/],
  ["a name of ours", /\b[a-z]+[a-z]*\.[a-z]+[A-Z]?\w*\b(?<!e\.g)|[a-z]{2,}[A-Z]\w*/],
  ["a letter for a way", /\broute [A-J]\d?\b|\b[A-J][1-5]\b/],
  ["a long figure", /\d\.\d{5,}/],
  ["one of many", /\b1 (pieces|coats|passes|steps|glasses|colours|minutes|loads)\b/],
  ["space before a stop", / [.,;:](\s|$)/],
  ["two stops", /\.\.|;;|,,|:\./],
  ["a wait of nothing", /: 0 min/],
];

test("what may not stand together on a card does not", () => {
  const all = allSaid();
  mkdirSync(OUT, { recursive: true });
  const where = (s: Said): string => `${s.plan.context.route!.id} on ${s.plan.context.substrate.id}`;
  const lines = new Map<string, string>();
  for (const s of all) if (!lines.has(s.text)) lines.set(s.text, `${s.text}   [${where(s)}]`);
  writeFileSync(`${OUT}/cards.txt`, [...lines.values()].join("\n"));
  const bad = new Set<string>();
  for (const s of all) {
    for (const [what, words, at] of NOT) if (words.test(s.text) && at(s)) bad.add(`${what}: “${s.text}” (${where(s)})`);
    for (const [what, words] of NEVER) if (words.test(s.text)) bad.add(`${what}: “${s.text}” (${where(s)})`);
  }
  expect([...bad].slice(0, 40)).toEqual([]);
  // said of many things, and not of nothing
  expect(all.length).toBeGreaterThan(many(482) * 10);
});

test("what rules say of odd briefs reads as a sentence", () => {
  const bad = new Set<string>();
  const said = new Set<string>();
  for (let n = 0; n < many(160); n++) {
    const plan = makePlan(
      odd(n, (w) => generate(context(w)).steps),
      null,
      true,
    );
    for (const s of snagsOf(plan))
      for (const text of [s.why, ...s.fixes.map((f) => f.label)]) {
        said.add(text);
        for (const [what, words] of NEVER) if (words.test(text)) bad.add(`rule ${s.rule}, ${what}: “${text}”`);
        if (!/^[\p{Lu}\d“(]/u.test(text) && !plan.context.world.products.some((p) => text.startsWith(p.name)))
          bad.add(`rule ${s.rule}, small at the beginning: “${text}”`);
      }
    for (const s of snagsOf(plan)) if (!/[.!?]$/.test(s.why)) bad.add(`rule ${s.rule}, no stop at the end: “${s.why}”`);
  }
  mkdirSync(OUT, { recursive: true });
  writeFileSync(`${OUT}/snags.txt`, [...said].sort().join("\n"));
  expect([...bad].slice(0, 40)).toEqual([]);
});

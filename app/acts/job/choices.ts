/** What is chosen about the route: products, coats, placing, finishing moves, schools, trials. */
import { withPick } from "../../core/catalogue/schools";
import type { Choices } from "../../core/records/job";
import type { World } from "../../core/records/world";
import { OneOf, Text } from "../../core/records/fields";
import { trialCards } from "../../core/explain/trials";
import type { Shop } from "../../core/records/shop";
import { shopClock } from "../../core/time/zoned";
import { nowMinutes } from "../../clock";
import { change, Refused } from "../../store/acts";
import { act, Bare, FieldForm, readField, toggled, tri, yes, type Readers } from "../act";
import { typed } from "../answer";
import { changed, type OnJob } from "./job";

/** No fewer are begun than are ordered. */
function enough(begin: number, ordered: number): number {
  if (begin < ordered)
    throw new Refused(`${begin} are fewer than the ${ordered} ordered. Change “How many” if fewer are wanted.`);
  return begin;
}

const FIELDS: Readers<Choices, World> = {
  topId: (v) => ({ topId: v || null }),
  sealerId: (v) => ({ sealerId: v || null }),
  whiteId: (v) => ({ whiteId: v || null }),
  clearId: (v) => ({ clearId: v || null }),
  undercoat: (v) => ({ undercoat: tri(v) }),
  noClear: (v) => ({ noClear: v === "true" }),
  depthMm: (v, w) => ({ depthMm: typed.lengthOrNull(v, w.shop.units) }),
  intervalMm: (v) => ({ intervalMm: typed.intervalOrNull(v) }),
  tolerance: (v) => ({ tolerance: typed.numberOrNull(v) }),
  proof: (v) => ({ proof: tri(v) }),
  handover: (v) => ({ handover: (v || null) as Choices["handover"] }),
  cleaner: (v) => ({ cleaner: v as Choices["cleaner"] }),
  toolMm: (v) => ({ toolMm: typed.lengthOrNull(v) }),
  inverted: (v) => ({ inverted: tri(v) }),
  mask: (v) => ({ mask: v === "true" }),
  maskChlorinated: (v) => ({ maskChlorinated: tri(v) }),
  oldPaint: (v) => ({ oldPaint: v === "true" }),
  sunOrHotAir: (v) => ({ sunOrHotAir: v === "true" }),
  driedInEnclosure: (v) => ({ driedInEnclosure: yes(v) }),
  attended: (v) => ({ attended: v === "true" }),
  maskId: (v) => ({ maskId: v || undefined }),
  // pockets left empty are those of the jig before
  placedBy: (v) => ({ placedBy: v || undefined, emptyPockets: undefined }),
  mirrored: (v) => ({ mirrored: tri(v) ?? undefined }),
  airStaysOn: (v) => ({ airStaysOn: yes(v) }),
  onBareBed: (v) => ({ onBareBed: yes(v) }),
  faces: (v) => ({ faces: v.trim() ? typed.whole(v) : undefined }),
  trap: (v) => ({ trap: yes(v) }),
  lossShare: (v) => (v.trim() ? { lossShare: typed.share(v) } : { lossShare: undefined, lossOn: undefined }),
  lossOn: (v) => ({ lossOn: v.trim() ? typed.whole(v) : undefined }),
  begin: (v, w) => ({ begin: v.trim() ? enough(typed.whole(v), w.job.quantity) : undefined }),
};
/** Fields that name one thing of a list: a finishing move, an axis of a trial, a trial voted out. */
const LISTS = { program: "inProgram", move: "finishing", trial: "trialOf", out: "trialOut" } as const;

/** Pockets left empty, one more or one less, in order. */
function pocketsLeft(now: readonly number[] = [], n: number, empty: boolean): number[] | undefined {
  const left = [...now.filter((x) => x !== n), ...(empty ? [n] : [])].sort((a, b) => a - b);
  return left.length ? left : undefined;
}

function choose(f: FieldForm, now: Choices, w: World): Partial<Choices> {
  const [prefix, ...rest] = f.field.split(":");
  const id = rest.join(":");
  if (prefix === "pocket") return { emptyPockets: pocketsLeft(now.emptyPockets, typed.whole(id), f.value === "true") };
  if (prefix === "school") return { schools: withPick(now.schools, id, f.value) };
  if (rest.length && Object.hasOwn(LISTS, prefix)) {
    const list = LISTS[prefix as keyof typeof LISTS];
    return { [list]: toggled(now[list], id, f.value === "true") };
  }
  return readField(FIELDS, f, w);
}

class VoteForm {
  @Text(400) key!: string;
  @OneOf(["keep", "drop"]) as!: "keep" | "drop";
}
/** One more vote on a card. */
function voted(now: Choices, { key, as }: VoteForm): Partial<Choices> {
  const all = now.trialVotes ?? [];
  const was = all.find((v) => v.key === key) ?? { key, keep: 0, drop: 0 };
  return { trialVotes: [...all.filter((v) => v.key !== key), { ...was, [as]: was[as] + 1 }] };
}
class LessonOff {
  @Text(120) id!: string;
}
class WinnerForm {
  @Text(400) key!: string;
}
/** The winner’s words, for the lesson that it leaves behind. */
const wonOf = (name: string, of: number): string => `${name}: best of ${of} trial cards`;

export const choiceActs = [
  act("vote", VoteForm, (f, c: OnJob) =>
    changed(c, "vote on a trial card of", (j) => ({ choices: { ...j.choices, ...voted(j.choices, f) } })),
  ),
  act("lesson-off", LessonOff, (f, c: OnJob) =>
    changed(c, "lesson put away on", (j) => ({ lessonsOff: toggled(j.lessonsOff, f.id, true) })),
  ),
  act("votes-clear", Bare, (_f, c: OnJob) =>
    changed(c, "votes on trial cards of", (j) => ({
      choices: { ...j.choices, trialVotes: undefined, trialOut: undefined },
    })),
  ),
  act("winner", WinnerForm, async (f, c: OnJob) => {
    const { trialOf = [], trialOut = [] } = c.world.job.choices;
    const cards = trialCards(c.world, trialOf, trialOut);
    const won = cards.find((x) => x.key === f.key);
    if (!won) throw new Refused("This card is no longer among them; read the page anew.");
    const shop = (c.world.elsewhere ?? c.world).shop;
    const at = nowMinutes();
    const lesson = {
      id: `lesson.${Math.round(at * 60).toString(36)}.${(shop.lessons ?? []).length + 1}`,
      text: wonOf(won.name, cards.length),
      at: shopClock(shop).toLocal(Math.floor(at)).slice(0, 10),
      jobId: c.id,
      kind: "inspect-blank",
      substrate: c.world.job.substrate.id,
      route: won.route,
    };
    const schools = won.picks.reduce<string[] | undefined>(
      (s, p) => withPick(s, p.slice(0, p.indexOf(":")), p.slice(p.indexOf(":") + 1)),
      shop.schools,
    );
    await change<Shop>("winner of the trial cards, for the shop", "shop", "shop", (s) => ({
      ...s,
      schools,
      lessons: [...(s.lessons ?? []), lesson],
    }));
    return "Kept: its picks are the shop’s, and it is told on the next job of this material and way";
  }),
  act("choice", FieldForm, (f, c: OnJob) =>
    changed(c, "choice for", (j) => ({ choices: { ...j.choices, ...choose(f, j.choices, c.world) } })),
  ),
];

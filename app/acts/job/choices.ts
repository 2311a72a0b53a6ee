/** What is chosen about the route: products, coats, placing, finishing moves, schools, trials. */
import { withPick } from "../../core/catalogue/schools";
import type { Choices } from "../../core/records/job";
import type { World } from "../../core/records/world";
import { Refused } from "../../store/acts";
import { act, FieldForm, readField, toggled, tri, yes, type Readers } from "../act";
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
  placedBy: (v) => ({ placedBy: v || undefined }),
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

function choose(f: FieldForm, now: Choices, w: World): Partial<Choices> {
  const [prefix, ...rest] = f.field.split(":");
  const id = rest.join(":");
  if (prefix === "school") return { schools: withPick(now.schools, id, f.value) };
  if (rest.length && Object.hasOwn(LISTS, prefix)) {
    const list = LISTS[prefix as keyof typeof LISTS];
    return { [list]: toggled(now[list], id, f.value === "true") };
  }
  return readField(FIELDS, f, w);
}

export const choiceActs = [
  act("choice", FieldForm, (f, c: OnJob) =>
    changed(c, "choice for", (j) => ({ choices: { ...j.choices, ...choose(f, j.choices, c.world) } })),
  ),
];

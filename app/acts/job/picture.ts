/** The picture of a job: taken in, laid on the blank, its tones, its dots; and the colours that lie under it. */
import { nowMinutes } from "../../clock";
import { route } from "../../core/catalogue/routes";
import { evenBands, settled, stacked, wholeFace } from "../../core/geometry/areas";
import { placementOf } from "../../core/plan/visits";
import { makePlan } from "../../core/plan/plan";
import { Text } from "../../core/records/fields";
import type { Areas, Job } from "../../core/records/job";
import { ORIGINAL_CHARS, PICTURE_IDS, type Photo } from "../../core/records/log";
import { FITS, type Picture, type Render, RENDERS, TONE_IDS, type ToneStep } from "../../core/records/picture";
import { TONE_KINDS } from "../../core/tone/steps";
import type { Shop, ToneList } from "../../core/records/shop";
import type { World } from "../../core/records/world";
import { commit, type Put, Refused } from "../../store/acts";
import { readPhoto } from "../../store/queries";
import { act, Bare, colourOf, FieldForm, HUGE, readField, type Readers, yes } from "../act";
import { typed } from "../answer";
import { changed, type OnJob } from "./job";

const WHITE = "#f4f2ee";
/** colours that a blend begins with: an evening over water */
const EVENING = [
  { colour: "#2f4a7d", name: "High sky" },
  { colour: "#c9577a", name: "Rose" },
  { colour: "#f0a23c", name: "Low sun" },
  { colour: "#f4dfa0", name: "Horizon" },
];

export class PictureForm {
  @Text(200) name: string = "";
  /** base64 */
  @Text(HUGE) data!: string;
  @Text(12) pxW!: string;
  @Text(12) pxH!: string;
  @Text(2) exif: string = "1";
  @Text(60_000) small: string = "";
  @Text(6) smallW: string = "0";
}
class ToneForm extends FieldForm {
  @Text(6) step!: string;
}
class ToneKindForm {
  @Text(30) kind!: string;
}
class ToneMoveForm {
  @Text(6) step!: string;
  @Text(6) to!: string;
}
class AreasForm {
  @Text(20) kind!: string;
}
class StripForm extends FieldForm {
  @Text(120) zone: string = "";
}
class RegionForm {
  /** corners x, y by turns, as JSON */
  @Text(8000) ring!: string;
  /** which step; empty: the part that is watched */
  @Text(6) step: string = "";
}
class ListForm {
  @Text(60) name!: string;
}
class DotsForm {
  @Text(30) render!: string;
  @Text(10) angle: string = "";
  @Text(6) serpentine: string = "";
}
class AtForm {
  /** mm from the middle of the blank, right and down */
  @Text(40) dx!: string;
  @Text(40) dy!: string;
}
class CropForm {
  @Text(20) x!: string;
  @Text(20) y!: string;
  @Text(20) w!: string;
  @Text(20) h!: string;
}

const MOST_LISTS = 60;
const listsOf = (shop: Shop): ToneList[] => shop.toneLists ?? [];
const originalId = (now: number): string => `${PICTURE_IDS}${Math.round(now * 60000).toString(36)}`;
/** The kept original of a job’s picture. */
const originalOf = (j: Job): string | null => j.picture?.photo ?? null;

const drawn = (j: Job): Picture => {
  if (!j.picture) throw new Refused("There is no picture on this job yet.");
  return j.picture;
};
const set = (j: Job, p: Partial<Picture>): Partial<Job> => ({ picture: { ...drawn(j), ...p } });

/** mm that a picture is made larger than its blank, each side: as the shop places its pieces, and none where a margin stays free. */
function overrun(world: World, j: Job): number {
  if (j.substrate.keepMm) return -j.substrate.keepMm;
  return placementOf(makePlan({ ...world, job: j }, null)).overrunMm;
}
const hundredth = (v: number): number => Math.round(v * 100) / 100;

/** said instead of a way to make tones: the picture’s colours are dug out of the stack beneath */
const DIG = "dig";
/** colours that a stack begins with: an old photo */
const SEPIA = [
  { colour: "#f0e4c8", name: "Light" },
  { colour: "#c98a4b", name: "Middle" },
  { colour: "#7a3f24", name: "Deep" },
];

type Of = { j: Job; c: OnJob };
/** One of a list. */
const inList =
  <T extends string>(list: readonly T[], what: string) =>
  (v: string): T => {
    if (!list.includes(v as T)) throw new Refused(`“${v}” is no ${what}.`);
    return v as T;
  };
const positive = (v: string, { c }: Of): number => {
  const mm = typed.length(v, c.world.shop.units);
  if (!(mm > 0)) throw new Refused("A picture has some width and height.");
  return mm;
};
const FIELDS: Readers<Picture, Of> = {
  w: (v, of) => ({ w: hundredth(positive(v, of)) }),
  h: (v, of) => ({ h: hundredth(positive(v, of)) }),
  dx: (v, { c }) => ({ dx: typed.lengthOrNull(v, c.world.shop.units) || undefined }),
  dy: (v, { c }) => ({ dy: typed.lengthOrNull(v, c.world.shop.units) || undefined }),
  /** the same on every side of the blank: mm, or per cent of its width */
  overrun: (v, { j, c }) => {
    const { w, h } = j.substrate;
    const percent = /^(-?[\d.,]+)\s*%$/.exec(v.trim());
    const mm = percent ? (typed.number(percent[1]) / 100) * w : typed.length(v, c.world.shop.units);
    if (!(w + 2 * mm > 0 && h + 2 * mm > 0)) throw new Refused("That would leave nothing of the picture.");
    return { w: hundredth(w + 2 * mm), h: hundredth(h + 2 * mm), dx: undefined, dy: undefined };
  },
  fit: (v) => ({ fit: inList(FITS, "fit")(v) }),
  quarters: (v) => {
    const q = ((typed.number(v) % 4) + 4) % 4;
    return { quarters: (q || undefined) as Picture["quarters"] };
  },
  flip: (v) => ({ flip: yes(v) }),
  /** dots, power, or the colours of a stack by power */
  render: (v) =>
    v === DIG
      ? { render: "grey", dig: true, plain: undefined }
      : { render: inList<Render>(RENDERS, "way to make tones")(v), dig: undefined },
  serpentine: (v) => ({ serpentine: yes(v) }),
  plain: (v) => ({ plain: yes(v) }),
  unlaid: (v) => ({ unlaid: yes(v) }),
  perCm: (v) => ({ perCm: v.trim() ? typed.number(v) : undefined }),
  angle: (v) => ({ angle: v.trim() ? typed.number(v.replace("°", "")) : undefined }),
  mix: (v) => {
    if (!v.trim()) return { mix: undefined };
    const shares = v.split(/[,;\s]+/).map((x) => typed.number(x));
    const sum = shares.reduce((a, b) => a + b, 0);
    if (shares.length !== 3 || shares.some((x) => x < 0) || !(sum > 0))
      throw new Refused("Three shares of red, green and blue are wanted, none below 0.");
    return { mix: shares.map((x) => Math.round((x / sum) * 10000) / 10000) };
  },
};

/** A field of a tone step read from what was typed. */
function toneField(s: ToneStep, { field, value }: ToneForm, c: OnJob): ToneStep {
  const units = c.world.shop.units;
  switch (field) {
    case "off":
      return { ...s, off: yes(value) };
    case "black":
    case "white":
    case "at":
    case "within": {
      const percent = /%$/.test(value.trim());
      const v = typed.number(value.replace("%", ""));
      return { ...s, [field]: percent || v > 1 ? v / 100 : v };
    }
    case "gamma":
    case "amount":
    case "shadows":
    case "highlights":
      return { ...s, [field]: typed.number(value.replace("%", "")) };
    case "radiusMm":
    case "featherMm":
      return { ...s, [field]: typed.length(value, units) };
    case "points": {
      const list = JSON.parse(value) as unknown;
      if (
        !Array.isArray(list) ||
        list.length < 4 ||
        list.length % 2 ||
        list.some((x) => typeof x !== "number" || x < 0 || x > 1)
      )
        throw new Refused("A curve has two points at least, each within 0 and 1.");
      return { ...s, points: list as number[] };
    }
    default:
      throw new Refused(`There is nothing called “${field}” here.`);
  }
}
const at = (list: readonly ToneStep[], step: string): number => {
  const i = Number(step);
  if (!Number.isInteger(i) || !list[i]) throw new Refused("This step is no longer there.");
  return i;
};

const areasOf = (j: Job): Areas => {
  if (j.areas?.kind !== "bands") throw new Refused("This job has no bands.");
  return j.areas;
};
/** most colours that are laid over one another and dug to */
const MOST_STACKED = route("A2").maxColours;
const stackOf = (j: Job): { colour: string; name: string }[] => {
  if (!j.areas?.over) throw new Refused("The colours of this job do not lie over one another.");
  return j.zones.map((z) => ({ colour: z.wanted ?? z.colour, name: z.name }));
};
const lengthIn = (v: string, c: OnJob): number => typed.length(v, c.world.shop.units);
const band = (a: Areas, f: StripForm, c: OnJob): Areas => {
  if (f.field === "angle") return { ...a, angle: typed.number(f.value.replace("°", "")) || undefined };
  if (f.field === "overlapMm" || f.field === "fadeMm") return { ...a, [f.field]: lengthIn(f.value, c) };
  if (f.field !== "from" && f.field !== "to") throw new Refused(`There is nothing called “${f.field}” here.`);
  const strips = (a.strips ?? []).map((s) => (s.zone === f.zone ? { ...s, [f.field]: lengthIn(f.value, c) } : s));
  const other = strips.find((s) => s.zone === f.zone);
  if (other && !(other.to > other.from)) throw new Refused("A band ends behind where it begins.");
  return { ...a, strips };
};

/** A photo taken in: its original, and the job that it is laid on, over one colour where nothing says what lies beneath. */
export function taken(f: PictureForm, job: Job, world: World): { photo: Photo; next: Job } {
  if (f.data.length > ORIGINAL_CHARS)
    throw new Refused(`“${f.name}” has more than ${(ORIGINAL_CHARS * 3) / 4 / 1e6} MB; save it smaller first.`);
  const now = nowMinutes();
  const photo: Photo = {
    version: 1,
    id: originalId(now),
    jobId: job.id,
    at: now,
    caption: f.name.slice(0, 200),
    data: f.data,
  };
  const lies = job.zones.length ? job : wholeFace(job, WHITE);
  const over = overrun(world, lies);
  const { w, h } = lies.substrate;
  const picture: Picture = {
    tone: [],
    render: "floyd-steinberg",
    fit: "cover",
    w: hundredth(w + 2 * over),
    h: hundredth(h + 2 * over),
    // another picture lies where the one before it lay, with its tones
    ...job.picture,
    crop: undefined,
    watched: undefined,
    name: f.name.slice(0, 200),
    photo: photo.id,
    pxW: Number(f.pxW),
    pxH: Number(f.pxH),
    exif: Number(f.exif) > 1 ? Number(f.exif) : undefined,
    small: f.small,
    smallW: Number(f.smallW),
  };
  return { photo, next: { ...lies, picture } };
}

/** A job that came of another, with an original of its own: the other one may be deleted. */
export async function ownOriginal(made: Job): Promise<{ made: Job; puts: Put[] }> {
  const kept = made.picture && (await readPhoto(made.picture.photo));
  if (!made.picture || !kept) return { made, puts: [] };
  const id = `${originalId(nowMinutes())}.${made.id}`.slice(0, 110);
  return {
    made: { ...made, picture: { ...made.picture, photo: id } },
    puts: [{ table: "photos", id, next: { ...kept, id, jobId: made.id }, base: null }],
  };
}

export const pictureActs = [
  act("picture", PictureForm, async (f, c: OnJob) => {
    const { job } = c.world;
    const before = originalOf(job);
    const { photo, next } = taken(f, job, c.world);
    const puts: Put[] = [
      { table: "photos", id: photo.id, next: photo, base: null },
      { table: "jobs", id: c.id, next, base: job },
    ];
    if (before) puts.push({ table: "photos", id: before, next: null });
    await commit(`picture of “${job.title}”`, puts);
    return "Picture taken in";
  }),
  act("picture-away", Bare, async (_f, c: OnJob) => {
    const { job } = c.world;
    const id = originalOf(job);
    if (!id) throw new Refused("There is no picture on this job.");
    await commit(`picture of “${job.title}” away`, [
      { table: "photos", id, next: null },
      { table: "jobs", id: c.id, next: { ...job, picture: undefined }, base: job },
    ]);
  }),
  act("picture-set", FieldForm, (f, c: OnJob) =>
    changed(c, "picture of", (j) => set(j, readField(FIELDS, f, { j, c }))),
  ),
  act("picture-dots", DotsForm, (f, c: OnJob) =>
    changed(c, "dots of", (j) =>
      set(j, {
        render: inList<Render>(RENDERS, "way to make tones")(f.render),
        angle: f.angle.trim() ? typed.number(f.angle) : undefined,
        serpentine: yes(f.serpentine),
      }),
    ),
  ),
  act("picture-at", AtForm, (f, c: OnJob) =>
    changed(c, "place of the picture of", (j) =>
      set(j, { dx: hundredth(Number(f.dx)) || undefined, dy: hundredth(Number(f.dy)) || undefined }),
    ),
  ),
  act("picture-crop", CropForm, (f, c: OnJob) =>
    changed(c, "part of the picture of", (j) => {
      const [x, y, w, h] = [f.x, f.y, f.w, f.h].map((v) => typed.number(v.replace("%", "")) / 100);
      if (!(w > 0 && h > 0 && x >= 0 && y >= 0 && x + w <= 1.0001 && y + h <= 1.0001))
        throw new Refused("The part lies within the picture: from left and top, width and height in per cent of it.");
      const whole = x === 0 && y === 0 && w >= 1 && h >= 1;
      return set(j, { crop: whole ? undefined : { x, y, w: Math.min(w, 1 - x), h: Math.min(h, 1 - y) } });
    }),
  ),
  act("tone-add", ToneKindForm, (f, c: OnJob) =>
    changed(c, "tones of", (j) => {
      const kind = inList(TONE_IDS, "tone step")(f.kind);
      const { points, region, ...start } = TONE_KINDS[kind].start as Record<string, unknown> & { do: ToneStep["do"] };
      const made = {
        ...start,
        ...(points ? { points: (points as number[][]).flat() } : {}),
        ...(region ? { region: [] } : {}),
      } as ToneStep;
      return set(j, { tone: [...drawn(j).tone, made] });
    }),
  ),
  act("tone-set", ToneForm, (f, c: OnJob) =>
    changed(c, "tones of", (j) => {
      const { tone } = drawn(j);
      const i = at(tone, f.step);
      return set(j, { tone: tone.map((s, k) => (k === i ? toneField(s, f, c) : s)) });
    }),
  ),
  act("tone-move", ToneMoveForm, (f, c: OnJob) =>
    changed(c, "order of tones of", (j) => {
      const { tone } = drawn(j);
      const i = at(tone, f.step);
      const to = Math.max(0, Math.min(tone.length - 1, Number(f.to)));
      const rest = tone.filter((_s, k) => k !== i);
      return set(j, { tone: [...rest.slice(0, to), tone[i], ...rest.slice(to)] });
    }),
  ),
  act("tone-remove", ToneMoveForm, (f, c: OnJob) =>
    changed(c, "tones of", (j) => {
      const { tone } = drawn(j);
      const i = at(tone, f.step);
      return set(j, { tone: tone.filter((_s, k) => k !== i) });
    }),
  ),
  act("tones-keep", ListForm, async (f, c: OnJob) => {
    const { shop, job } = c.world;
    const name = f.name.trim();
    const { tone } = drawn(job);
    if (!name) throw new Refused("Steps that are kept want a name.");
    if (!tone.length) throw new Refused("There are no steps to keep yet.");
    // the same name again: the newer steps
    const rest = listsOf(shop).filter((l) => l.name !== name);
    if (rest.length >= MOST_LISTS) throw new Refused(`${MOST_LISTS} lists are the most; let one go first.`);
    const toneLists = [...rest, { name, tone }].sort((a, b) => (a.name < b.name ? -1 : 1));
    await commit(`tones kept as “${name}”`, [{ table: "shop", id: "shop", next: { ...shop, toneLists }, base: shop }]);
    return "Kept";
  }),
  act("tones-use", ListForm, (f, c: OnJob) => {
    const list = listsOf(c.world.shop).find((l) => l.name === f.name);
    if (!list) throw new Refused(`There is no list “${f.name}” any more.`);
    return changed(c, `tones “${f.name}” on`, (j) => set(j, { tone: list.tone }));
  }),
  act("tones-forget", ListForm, async (f, c: OnJob) => {
    const { shop } = c.world;
    const rest = listsOf(shop).filter((l) => l.name !== f.name);
    await commit(`tones “${f.name}” away`, [
      { table: "shop", id: "shop", next: { ...shop, toneLists: rest.length ? rest : undefined }, base: shop },
    ]);
  }),
  act("picture-region", RegionForm, (f, c: OnJob) =>
    changed(c, "marked part of the picture of", (j) => {
      const ring = JSON.parse(f.ring) as number[];
      const p = drawn(j);
      if (f.step !== "") {
        const i = at(p.tone, f.step);
        return set(j, { tone: p.tone.map((s, k) => (k === i ? { ...s, region: ring } : s)) });
      }
      return set(j, { watched: ring.length >= 6 ? { name: p.watched?.name ?? "Face", ring } : undefined });
    }),
  ),
  act("areas", AreasForm, (f, c: OnJob) =>
    changed(c, "colour areas of", (j) => {
      if (f.kind === "whole") return wholeFace(j, j.zones.find((z) => !z.bare)?.wanted ?? WHITE);
      if (f.kind === "bands") {
        const had = j.zones.filter((z) => !z.bare).map((z) => ({ colour: z.wanted ?? z.colour, name: z.name }));
        return evenBands(j, had.length > 1 ? had : EVENING, 0);
      }
      if (f.kind === "stack") {
        const had = j.zones.filter((z) => !z.bare).map((z) => ({ colour: z.wanted ?? z.colour, name: z.name }));
        return stacked(j, had.length > 1 && had.length <= MOST_STACKED ? had : SEPIA);
      }
      throw new Refused(`There are no areas of the kind “${f.kind}”.`);
    }),
  ),
  act("stack-add", Bare, (_f, c: OnJob) =>
    changed(c, "stack of", (j) => {
      const now = stackOf(j);
      if (now.length >= MOST_STACKED) throw new Refused(`${MOST_STACKED} colours are the most that are dug.`);
      return stacked(j, [...now, { colour: WHITE, name: `Colour ${now.length + 1}` }]);
    }),
  ),
  act("stack-remove", StripForm, (f, c: OnJob) =>
    changed(c, "stack of", (j) => {
      stackOf(j);
      if (j.zones.length < 2) throw new Refused("One colour is the least.");
      return settled({ ...j, zones: j.zones.filter((z) => z.id !== f.zone) });
    }),
  ),
  act("bands", StripForm, (f, c: OnJob) =>
    changed(c, "bands of", (j) => settled({ ...j, areas: band(areasOf(j), f, c) })),
  ),
  act("band-add", StripForm, (f, c: OnJob) =>
    changed(c, "bands of", (j) => {
      const a = areasOf(j);
      const colour = f.value ? colourOf(f.value) : WHITE;
      const now = (a.strips ?? []).flatMap((s) => {
        const z = j.zones.find((x) => x.id === s.zone);
        return z ? [{ colour: z.wanted ?? z.colour, name: z.name }] : [];
      });
      if (now.length >= 24) throw new Refused("24 bands are the most.");
      return evenBands(j, [...now, { colour, name: `Band ${now.length + 1}` }], a.angle ?? 0);
    }),
  ),
  act("band-remove", StripForm, (f, c: OnJob) =>
    changed(c, "bands of", (j) => {
      const a = areasOf(j);
      const strips = (a.strips ?? []).filter((s) => s.zone !== f.zone);
      if (strips.length < 1) throw new Refused("One band is the least.");
      return settled({ ...j, areas: { ...a, strips }, zones: j.zones.filter((z) => z.id !== f.zone) });
    }),
  ),
];

/**
 * What goes to the laser, visit by visit: layers by purpose in the order in which they run, as they lie on the bed, mirrored where they
 * have to be; with the setting of each, and what the laser’s program must leave alone.
 */
import { laidAt, marks, nestOf, type BedLayout } from "../geometry/bed";
import { blankOf } from "../geometry/blank";
import { named } from "../geometry/names";
import { onBlank } from "../geometry/on-blank";
import { ringsOf, type Point, type Ring } from "../geometry/outline";
import { inRunningOrder, once, withLeads, withoutHairs, type Path } from "../geometry/travel";
import { grown, KERF_MM } from "../geometry/registration";
import { placementOf, visitsOf } from "../plan/visits";
import type { Plan } from "../plan/plan";
import type { Placed } from "../plan/placed";
import type { Context } from "../process/context";
import { byBeam, kindOf, own } from "../process/kinds";
import { wattsOf } from "../process/beam";
import { keptOut, layoutOn, pocketed } from "../process/on-bed";
import { burntBy } from "../process/polarity";
import { mirrored, shapeOf } from "../process/setup";
import type { LaserSetting } from "../process/step";
import { GROUND } from "../piece/state";
import { listWords } from "../units/show";
import { bounds, type Clip, type Region } from "../vector/clip";

export const PURPOSES = [
  "frame",
  "cut-mask",
  "uncover",
  "engrave",
  "open",
  "burn-in",
  "mark",
  "melt",
  "cut-out",
  "nest",
  "marks",
  "score",
] as const;
export type Purpose = (typeof PURPOSES)[number];

export interface PacketLayer {
  /** number and purpose: how it is named in the file */
  id: string;
  purpose: Purpose;
  name: string;
  how: "fill" | "line";
  /** zone that it works on; null: the piece, or all of them */
  zone: string | null;
  step: string | null;
  /** null: it is not burnt */
  setting: LaserSetting | null;
  /** W behind the percent; null: not known */
  watts: number | null;
  /** on one piece: areas as rings by even and odd, or lines in the order they run; mm from its upper left corner, as the file has it */
  paths: Path[];
  /** another one on each piece: the paths of each, in order; those above are the first one’s; absent: all alike */
  each?: Path[][];
  /** drawn by a picture of its own */
  picture: boolean;
}
/** Mask that comes off in one go: outlines on the piece, mm from its upper left corner as it is looked at. */
export interface WeedMap {
  step: string;
  title: string;
  mirrored: boolean;
  opens: { name: string; path: string }[];
  stays: { name: string; path: string }[];
}
export interface VisitPacket {
  n: number;
  title: string;
  /** the steps that are done at it, in order */
  steps: { id: string; title: string }[];
  mirrored: boolean;
  layers: PacketLayer[];
  bed: BedLayout | null;
  bedSize: { w: number; h: number } | null;
  machine: string | null;
  /** round work: unrolled to circumference × height */
  round: boolean;
  piece: { w: number; h: number; path: string };
  /** what is lifted after it and before the next: the map to weed by, as the piece lies then */
  weeding: WeedMap[];
  /** what of the laser’s program stays as it is */
  leaveAlone: string[];
  /** what somebody should know of it */
  notes: string[];
}

/** mm of a cut through the body, by beam: default until it is measured */
const CUT_KERF_MM = 0.15;
/** parts that fall through a honeycomb, mm */
const SMALL_PART_MM = 8;
const OF_BEAM: Record<string, { purpose: Purpose; how: "fill" | "line" }> = {
  mask: { purpose: "cut-mask", how: "line" },
  film: { purpose: "uncover", how: "fill" },
  body: { purpose: "engrave", how: "fill" },
  skin: { purpose: "open", how: "fill" },
  pigment: { purpose: "burn-in", how: "fill" },
  face: { purpose: "mark", how: "fill" },
  outline: { purpose: "cut-out", how: "line" },
};
export const PURPOSE_WORDS: Record<Purpose, string> = {
  frame: "Frame, not burnt",
  "cut-mask": "Cut the mask",
  uncover: "Uncover",
  engrave: "Engrave",
  open: "Open",
  "burn-in": "Burn in",
  mark: "Mark",
  melt: "Melt",
  "cut-out": "Cut out",
  nest: "Nest",
  marks: "Marks",
  score: "Score",
};

/** Steps of the beam by visits: from a placing on until the piece is taken away. */
export function beamVisits(plan: Plan): Placed[][] {
  const out: Placed[][] = [];
  let here = false;
  for (const p of plan.placed) {
    const k = kindOf(p.step.kind);
    if (byBeam(p.step) && k.tries !== "setting") {
      if (!here) out.push([]);
      out[out.length - 1].push(p);
      here = true;
    } else if (!k.stays && k.tries !== "piece") here = false;
  }
  return out;
}

/** Rings ready to be filled, or lines ready to be run. */
function pathsOf(rings: readonly Ring[], how: "fill" | "line"): Path[] {
  const sound = rings.map(withoutHairs).filter((r): r is Ring => r !== null);
  return how === "fill" ? sound.map((points) => ({ points, closed: true })) : inRunningOrder(once(sound));
}
const flip = (r: Ring, w: number): Ring => r.map(([x, y]): Point => [w - x, y]);

/** The edge that is cut, kerf on the waste side: outer lines grow by half of it, holes shrink. */
function cutRings(c: Context, clip: Clip): Ring[] {
  const { rings } = blankOf(c.job.substrate);
  return clip.grow(clip.fill(rings, "evenodd"), CUT_KERF_MM / 2);
}

/** What is lifted from a visit on until the next one. @param from index of its last step @param to of the next visit’s first */
function weedMaps(plan: Plan, from: number, to: number, flipped: boolean): WeedMap[] {
  const { job } = plan.context;
  return visitsOf(plan)
    .filter((v) => v.index > from && v.index < to && kindOf(v.kind).lifts === "mask" && v.opens.length)
    .map((v) => {
      const drawn = new Map(onBlank(job, flipped).map((z) => [z.id, z.path]));
      const named = (ids: string[]) =>
        ids.flatMap((id) => {
          const path = drawn.get(id);
          return path ? [{ name: job.zones.find((z) => z.id === id)!.name, path }] : [];
        });
      const { step, title } = v;
      return { step, title, mirrored: flipped, opens: named(v.opens), stays: named(v.stays) };
    });
}

/** Outlines of a step’s zones; those of colours that come later run under the earlier ones, where the job has them touch. */
function zoneRings(
  c: Context,
  zones: readonly string[],
  later: boolean,
  trapMm: number,
  clip: Clip,
  flipped: boolean,
  piece: number,
) {
  const { job } = c;
  const all = onBlank(job, flipped, piece);
  const letters = job.zones.filter((z) => z.onPieces).map((z) => z.id);
  const pathOn = (id: string): string => all.find((z) => z.id === id)?.path ?? "";
  return zones.map((id) => {
    const path = pathOn(id);
    const run = later && job.choices.trap && path ? grown(clip, path, trapMm) : path;
    const over = letters.includes(id) ? [] : letters.flatMap((l) => (pathOn(l) ? ringsOf(pathOn(l)) : []));
    const rings = run ? ringsOf(run) : [];
    // letters stand in place of what is drawn where they lie
    const cut =
      over.length && rings.length ? clip.subtract(clip.fill(rings, "evenodd"), clip.fill(over, "evenodd")) : rings;
    return { id, rings: cut };
  });
}
/**
 * Lines in a mask, half a kerf within what is lifted, so that the opening is as large as its zone; a border that two zones share stays
 * where it is, and is one line.
 */
function withinKerf(of: readonly { rings: Ring[] }[], clip: Clip): Ring[] {
  const regions = of.map((z) => clip.fill(z.rings, "evenodd"));
  const all = regions.reduce<Region>((a, r) => clip.union(a, r), []);
  const inner = clip.grow(all, -KERF_MM / 2);
  return regions.flatMap((r) => clip.intersect(r, inner));
}
/** Does what is drawn of these zones differ from piece to piece? Where letters lie over them, or they are letters. */
const differ = (c: Context, zones: readonly string[]): boolean => {
  const letters = c.job.zones.filter((z) => z.onPieces?.length);
  if (letters.some((z) => zones.includes(z.id))) return true;
  const boxes = letters.flatMap((z) => z.onPieces!.flatMap((p) => bounds(ringsOf(p.outline)) ?? []));
  return c.job.zones.some((z) => {
    const b = zones.includes(z.id) && z.outline ? bounds(ringsOf(z.outline)) : null;
    return b && boxes.some((a) => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1);
  });
};

function layersOf(p: Placed, plan: Plan, clip: Clip, flipped: boolean, later: boolean): Omit<PacketLayer, "id">[] {
  const c = plan.context;
  const beam = kindOf(p.step.kind).beam;
  const { purpose, how } = (beam && OF_BEAM[beam]) || { purpose: "melt" as const, how: "fill" as const };
  const set = own(p.step, "laser");
  const base = { step: p.step.id, setting: set, watts: set && c.machine ? wattsOf(c.machine, set.power) : null, how };
  const { w } = c.job.substrate;
  if (purpose === "cut-out") {
    const rings = cutRings(c, clip).map((r) => (flipped ? flip(r, w) : r));
    return [{ ...base, purpose, name: "Cut out", zone: null, paths: withLeads(pathsOf(rings, how)), picture: false }];
  }
  const zones = p.step.zones.filter((z) => z !== GROUND);
  const nameOf = (id: string): string => c.job.zones.find((z) => z.id === id)?.name ?? id;
  const pictured = c.picture !== null && how === "fill" && purpose !== "melt";
  if (pictured) {
    const { rings } = blankOf(c.job.substrate);
    const name = `${PURPOSE_WORDS[purpose]} the picture`;
    const around = rings.map((r) => (flipped ? flip(r, w) : r));
    return [{ ...base, purpose, name, zone: null, paths: pathsOf(around, "fill"), picture: true }];
  }
  // what is cut or dug at a later visit is what may lie off
  const runs = later && (purpose === "cut-mask" || purpose === "engrave");
  const trap = placementOf(plan).trapMm;
  const foundOn = (n: number) => zoneRings(c, zones, runs, trap, clip, flipped, n);
  const pieces = differ(c, zones) ? Array.from({ length: c.pieces }, (_v, i) => foundOn(i + 1)) : [];
  const found = pieces[0] ?? foundOn(1);
  const linesOf = (of: typeof found): Path[] =>
    pathsOf(purpose === "cut-mask" ? withinKerf(of, clip) : of.flatMap((z) => z.rings), how);
  // lines of one step are one layer, so that a border that two share is run once
  if (how === "line")
    return [
      {
        ...base,
        purpose,
        name: `${PURPOSE_WORDS[purpose]}: ${listWords(zones.map(nameOf))}`,
        zone: zones.length === 1 ? zones[0] : null,
        paths: linesOf(found),
        ...(pieces.length ? { each: pieces.map(linesOf) } : {}),
        picture: false,
      },
    ];
  return found.map((z, i) => ({
    ...base,
    purpose,
    name: `${PURPOSE_WORDS[purpose]} ${nameOf(z.id)}`,
    zone: z.id,
    paths: pathsOf(z.rings, how),
    ...(pieces.length ? { each: pieces.map((on) => pathsOf(on[i].rings, how)) } : {}),
    picture: false,
  }));
}

const two = (n: number): string => String(n).padStart(2, "0");
/** as part of a file’s name */
export const slug = (t: string): string =>
  t
    .toLowerCase()
    .normalize("NFKD")
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 40);

/** What the files of a visit are called, without an ending: job, visit, what is done, how many. */
export const packetName = (plan: Plan, v: VisitPacket, load: number | null = null): string => {
  const what = v.layers.find((l) => l.setting !== null)?.purpose ?? v.layers[0]?.purpose ?? "visit";
  const some = load === null ? plan.context.pieces : (v.bed?.loads[load].length ?? 1);
  const which = load === null ? "" : `_load-${load + 1}`;
  return `${slug(plan.context.job.title) || "job"}_visit-${v.n}_${what}${which}_${some}pcs`;
};

/** Everything that goes to the laser, a packet a visit. Nothing of another visit is in it, and nothing that lies masked. */
export function packets(plan: Plan, clip: Clip): VisitPacket[] {
  const c = plan.context;
  const { job, machine } = c;
  const { w, h } = job.substrate;
  const round = shapeOf(c) !== "flat";
  const flipped = mirrored(c);
  const place = placementOf(plan);
  const visits = beamVisits(plan);
  const [jig, outside] = [pocketed(c), keptOut(c)];
  const of = named(job.zones);
  return visits.map((steps, i): VisitPacket => {
    const later = i > 0;
    const piece = blankOf(job.substrate).rings.map((r) => (flipped ? flip(r, w) : r));
    const frame: Omit<PacketLayer, "id"> = {
      purpose: "frame",
      name: "The piece, to frame it by",
      how: "line",
      zone: null,
      step: null,
      setting: null,
      watts: null,
      paths: pathsOf(piece, "line"),
      picture: false,
    };
    const burns = steps.flatMap((p) => layersOf(p, plan, clip, flipped, later));
    // what is cut out falls away, so that it comes last
    const cut = (l: Omit<PacketLayer, "id">): number => Number(l.purpose === "cut-out");
    const all = [frame, ...burns].sort((a, b) => cut(a) - cut(b));
    const layers = all.map((l, k): PacketLayer => ({
      id: `${two(k)}-${l.purpose}${l.zone ? `-${slug(l.zone)}` : ""}`,
      ...l,
    }));
    const burnt = burntBy(c);
    const small = layers
      .filter((l) => l.purpose === "cut-out")
      .some((l) => l.paths.some((p) => p.closed && smallerThan(p.points, SMALL_PART_MM)));
    return {
      n: i + 1,
      title: listWords(steps.map((p) => p.step.title)),
      steps: steps.map((p) => ({ id: p.step.id, title: p.step.title })),
      mirrored: flipped,
      layers,
      bed: round ? null : layoutOn(c),
      bedSize: machine && !round ? { w: machine.bedW, h: machine.bedH } : null,
      machine: machine?.name ?? null,
      round,
      piece: { w, h, path: blankOf(job.substrate).path },
      weeding: weedMaps(plan, steps[steps.length - 1].index, visits[i + 1]?.[0].index ?? Infinity, flipped),
      leaveAlone: [
        `Invert: the artwork goes in ${burnt.says}`,
        flipped ? "Mirror: it is mirrored already" : "Mirror: it is not to be mirrored",
        ...(layers.some((l) => l.picture) ? ["Tone and dots: made here already", "Resolution: one dot a line"] : []),
        "Size and place: as the file has them",
        "Passes left from another job: set them to those here",
      ],
      notes: [
        ...(layers.some((l) => l.setting === null && l.purpose !== "frame")
          ? ["A layer has no setting yet: test it first, then save this packet anew."]
          : []),
        ...(machine?.galvo
          ? [
              `The field is ${machine.bedW} × ${machine.bedH} mm with its origin in the middle: the middle of the file lies there. ` +
                `Jump delay ${machine.jumpMs} ms.`,
            ]
          : []),
        ...(outside ? [`${outside.why} The file has one piece alone.`] : []),
        ...(jig && !outside
          ? [`Pieces lie in the pockets of ${jig.name}, each pushed into the upper left corner of its pocket.`]
          : []),
        ...(small
          ? [`Parts under ${SMALL_PART_MM} mm fall through the bed: hold them with tape or leave a bridge.`]
          : []),
        ...(i > 0 && place.errorMm > 0
          ? [
              `Put back by ${place.by}: within ${Math.round(place.errorMm * 100) / 100} mm; the frame shows whether it lies right.`,
            ]
          : []),
        ...(of > 0 && of < c.pieces
          ? [
              of + 1 === c.pieces
                ? `Piece ${c.pieces} carries no name: it is for one that is lost, and gets its name then.`
                : `Pieces ${of + 1} to ${c.pieces} carry no name: they are for those that are lost, and get their names then.`,
            ]
          : []),
        ...(of > c.pieces ? [`There are ${of} names for ${c.pieces} pieces: the last ones stand on none.`] : []),
        ...(layers.some((l) => l.paths.length === 0 && !l.each)
          ? ["Of a zone only the area is known, not its outline: it is missing in the file."]
          : []),
        ...(layers.some((l) => l.purpose === "cut-mask")
          ? [
              `The line in the mask is taken to be ${KERF_MM} mm wide, a default, and lies half of that within what is lifted: ` +
                "the opening is as large as its zone.",
            ]
          : []),
        ...(layers.some((l) => l.purpose === "cut-out")
          ? [
              "Leave the sheet where it is when the pieces are out: its openings are the nest that they come back to.",
              `Cut ${CUT_KERF_MM / 2} mm outside the edge: half of a cut taken to be ${CUT_KERF_MM} mm wide, a default.`,
              "Each cut begins with a short line in what falls away, then runs its outline: keep the order of the file.",
            ]
          : []),
      ],
    };
  });
}
const smallerThan = (r: Ring, mm: number): boolean => {
  const [xs, ys] = [r.map((p) => p[0]), r.map((p) => p[1])];
  return Math.max(...xs) - Math.min(...xs) < mm && Math.max(...ys) - Math.min(...ys) < mm;
};

/** Do the loads differ by more than how many lie there: does each piece carry something of its own? */
export const byPiece = (v: VisitPacket): boolean => v.layers.some((l) => l.each);
/** Loads that are looked at and written: all where pieces differ, else the first and the last, if that is a smaller one. */
export function toldLoads(v: VisitPacket): number[] {
  const loads = v.bed
    ? v.bed.loads.map((_l, i) => i)
    : byPiece(v)
      ? v.layers.find((l) => l.each)!.each!.map((_p, i) => i)
      : [0];
  if (byPiece(v) || !v.bed) return loads;
  return loads.filter((i) => i === 0 || v.bed!.loads[i].length !== v.bed!.loads[0].length);
}

/** Layers of one load as they lie on the bed; without a bed those of one piece. */
export function onBed(v: VisitPacket, load: number): { layer: PacketLayer; paths: Path[] }[] {
  // one at a time where there is no bed
  const places = v.bed?.loads[load] ?? [{ piece: load + 1, x: 0, y: 0 }];
  const turned = v.bed?.turned ?? false;
  return v.layers.map((layer) => ({
    layer,
    paths: places.flatMap((at) =>
      (layer.each?.[at.piece - 1] ?? layer.paths).map((p) => ({
        ...p,
        points: laidAt(p.points, [at.x, at.y], turned, v.piece.h),
      })),
    ),
  }));
}

/** The name as lines at the board’s upper edge, or else its lower one, where it meets no opening; nowhere: none. */
function titleOn(title: readonly Ring[], openings: readonly Ring[], bed: { w: number; h: number }): Path[] {
  const box = bounds([...title]);
  if (!box) return [];
  const taken = openings.flatMap((r) => bounds([r]) ?? []);
  const [w, h] = [box.x1 - box.x0, box.y1 - box.y0];
  for (const y of [TITLE_AT[1], bed.h - TITLE_AT[1] - h]) {
    const [x0, x1, y1] = [TITLE_AT[0], TITLE_AT[0] + w, y + h];
    const free = x1 < bed.w && taken.every((b) => b.x0 > x1 || b.x1 < x0 || b.y0 > y1 || b.y1 < y);
    if (free)
      return title.map((r) => ({
        closed: true,
        points: r.map(([px, py]): Point => [px - box.x0 + x0, py - box.y0 + y]),
      }));
  }
  return [];
}
/** mm from the board’s edge to the job’s name on it, and how high its capitals are */
const TITLE_AT: Point = [12, 2];
export const TITLE_MM = 4;
/**
 * The nest for a load: an opening a piece, and marks by which the board is found again.
 * @param title the job’s name as outlines, from its own upper left corner: scored where no opening lies; empty: it goes without
 */
export function nestLayers(
  v: VisitPacket,
  c: Context,
  clip: Clip,
  load: number,
  title: readonly Ring[] = [],
): { layer: PacketLayer; paths: Path[] }[] {
  if (!v.bed || !v.bedSize) return [];
  const none = { how: "line" as const, zone: null, step: null, setting: null, watts: null, picture: false, paths: [] };
  const jig = pocketed(c);
  // a pocket is as wide as it is said to be
  const open = (jig ? nestOf({ w: jig.pockets.w, h: jig.pockets.h }, clip, 0) : nestOf(c.job.substrate, clip))
    .map((r) => withoutHairs(r))
    .filter((r): r is Ring => r !== null);
  const { turned } = v.bed;
  const rings = v.bed.loads[load].flatMap((at) => open.map((r) => laidAt(r, [at.x, at.y], turned, v.piece.h)));
  const name = titleOn(title, rings, v.bedSize);
  return [
    {
      layer: { ...none, id: "00-marks", purpose: "marks", name: "Marks to find the board by" },
      paths: marks(v.bedSize).map((points) => ({ points, closed: false })),
    },
    ...(name.length
      ? [{ layer: { ...none, id: "01-score", purpose: "score" as const, name: "The job’s name, scored" }, paths: name }]
      : []),
    {
      layer: { ...none, id: name.length ? "02-nest" : "01-nest", purpose: "nest", name: "Openings of the nest" },
      paths: inRunningOrder(rings.map((points) => ({ points, closed: true }))),
    },
  ];
}

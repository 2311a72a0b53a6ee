/** Artwork and its zones: a drawing taken in, a zone named, given a finish or left as it is. */
import { Text } from "../../core/records/fields";
import { Zone as ZoneRecord, type Artwork, type Job, type Zone } from "../../core/records/job";
import { named, reshaped } from "../../core/geometry/names";
import type { Point } from "../../core/geometry/outline";
import { turnedTo, withArtwork } from "../../core/geometry/artwork";
import type { FoundArtwork } from "../../core/vector/zones";
import { Refused } from "../../store/acts";
import { act, colourOf, FieldForm, freeId, HUGE, LONG } from "../act";
import { typed } from "../answer";
import { changed, type OnJob } from "./job";

class ZoneForm extends FieldForm {
  @Text(120) zone!: string;
}
class OneForm {
  /** the zone whose colour all get */
  @Text(120) zone!: string;
}
class ArtworkForm {
  @Text(200) name: string = "";
  @Text(HUGE) svg!: string;
  /** what measuring found, as JSON */
  @Text(HUGE) found!: string;
}

/** A zone with what was typed or picked; the value “bare” leaves it as it is, “burn” has it burnt dark. */
function changedZone({ burn, ...z }: Zone, f: ZoneForm): Zone {
  if (f.field === "name") return { ...z, ...(burn ? { burn } : {}), name: f.value.trim() || z.name };
  if (f.field === "finish" && f.value === "burn") return { ...z, bare: true, burn: true, productId: null };
  const bare = f.field === "bare" ? f.value === "true" : f.value === "bare";
  if (f.field === "bare") return { ...z, bare, productId: bare ? null : z.productId };
  if (f.field === "wanted") return { ...z, wanted: colourOf(f.value), bare: false, productId: null };
  if (f.field === "finish" && f.value === "") return { ...z, bare, productId: null, wanted: z.wanted ?? z.colour };
  return { ...z, bare, productId: bare ? null : f.value || null };
}

class PlaceForm {
  /** mm from the middle of the blank, right and down */
  @Text(40) dx!: string;
  @Text(40) dy!: string;
}
/** Where the artwork lies; no way from the middle is none that is kept. */
const laidAt = (a: Artwork, dx: number, dy: number): Artwork => ({ ...a, dx: dx || undefined, dy: dy || undefined });
const drawn = (j: Job): Artwork => {
  if (!j.artwork) throw new Refused("There is no drawing to lay on the piece yet.");
  return j.artwork;
};
/** ° as they are typed, with or without their sign */
const degrees = (v: string): number => (v.trim() ? typed.number(v.replace(/°|deg(rees)?/i, "")) : 0);
/** to a hundredth of a mm: finer than anything is laid */
const hundredth = (v: string): number => Math.round(Number(v) * 100) / 100;

class ShapeForm {
  /** the zone that gets the shape; empty: a new one */
  @Text(120) zone: string = "";
  /** a zone that goes with it, since it was joined; empty: none */
  @Text(120) gone: string = "";
  @Text(60) name: string = "";
  @Text(20) colour: string = "";
  /** outline and what measuring found, as JSON */
  @Text(HUGE) found!: string;
}
/** A zone’s measures out of a shape. */
const ofShape = (found: string): Partial<Zone> => {
  const { areaMm2, perimeterMm, narrowestMm, pieces, holes, smallestMm2, rows, outline } = JSON.parse(found) as Zone;
  return { areaMm2, perimeterMm, narrowestMm, pieces, holes, smallestMm2, rows, outline };
};
class GroupForm {
  /** ids of the zones, separated by blanks */
  @Text(LONG) zones!: string;
  /** mm, right and down */
  @Text(40) dx!: string;
  @Text(40) dy!: string;
}
/** Zones moved within the artwork. */
const shifted = (z: Zone, dx: number, dy: number, n: number): Zone =>
  reshaped(z, (rings) => rings.map((r) => r.map(([x, y]): Point => [x + dx, y + dy])), n);

export const zoneActs = [
  act("zone-shape", ShapeForm, (f, c: OnJob) =>
    changed(c, "shapes of", (j) => {
      const shape = ofShape(f.found);
      if (f.zone) {
        if (!j.zones.some((z) => z.id === f.zone)) throw new Refused(`There is no zone “${f.zone}”.`);
        const zones = j.zones.filter((z) => z.id !== f.gone).map((z) => (z.id === f.zone ? { ...z, ...shape } : z));
        return { zones };
      }
      const colour = colourOf(f.colour);
      const known = j.zones.map((z) => z.id);
      const base = `z-${colour.slice(1)}`;
      const id = known.includes(base) ? freeId(`${base}-2`, known, base) : base;
      const made: Zone = {
        ...new ZoneRecord(),
        ...shape,
        id,
        name: f.name.trim() || "Shape",
        colour,
        wanted: colour,
      } as Zone;
      // a drawing of one’s own begins with the blank’s size
      const artwork = j.artwork ?? { name: "made here", svg: "", w: j.substrate.w, h: j.substrate.h };
      return { artwork, zones: [...j.zones, made] };
    }),
  ),
  act("zones-move", GroupForm, (f, c: OnJob) =>
    changed(c, "zones moved on", (j) => {
      const ids = f.zones.split(" ");
      const [dx, dy] = [hundredth(f.dx), hundredth(f.dy)];
      return { zones: j.zones.map((z) => (ids.includes(z.id) ? shifted(z, dx, dy, named(j.zones)) : z)) };
    }),
  ),
  act("place", FieldForm, (f, c: OnJob) =>
    changed(c, "place of the artwork of", (j) => {
      const a = drawn(j);
      const units = c.world.shop.units;
      if (f.field === "turn") return turnedTo(j, degrees(f.value));
      const mm = typed.lengthOrNull(f.value, units) ?? 0;
      return { artwork: f.field === "dx" ? laidAt(a, mm, a.dy ?? 0) : laidAt(a, a.dx ?? 0, mm) };
    }),
  ),
  act("place-at", PlaceForm, (f, c: OnJob) =>
    changed(c, "place of the artwork of", (j) => ({ artwork: laidAt(drawn(j), hundredth(f.dx), hundredth(f.dy)) })),
  ),
  act("zone", ZoneForm, (f, c: OnJob) =>
    changed(c, "zone of", (j) => ({ zones: j.zones.map((z) => (z.id === f.zone ? changedZone(z, f) : z)) })),
  ),
  act("one-colour", OneForm, (f, c: OnJob) =>
    changed(c, "one colour for", (j) => {
      const of = j.zones.find((z) => z.id === f.zone);
      if (!of) throw new Refused(`There is no zone “${f.zone}”.`);
      const { productId, wanted = of.colour } = of;
      return { zones: j.zones.map((z) => (z.bare ? z : { ...z, productId, wanted })) };
    }),
  ),
  act("artwork", ArtworkForm, (f, c: OnJob) => {
    const found = JSON.parse(f.found) as FoundArtwork;
    return changed(c, "artwork of", (j) => ({ ...withArtwork(j, f.name, f.svg, found), areas: undefined }));
  }),
];

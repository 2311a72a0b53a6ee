/** Artwork and its zones: a drawing taken in, a zone named, given a finish or left as it is. */
import { Text } from "../../core/records/fields";
import type { Zone } from "../../core/records/job";
import { withArtwork } from "../../core/geometry/artwork";
import type { FoundArtwork } from "../../core/vector/zones";
import { act, FieldForm, HUGE } from "../act";
import { changed, type OnJob } from "./job";

class ZoneForm extends FieldForm {
  @Text(120) zone!: string;
}
class ArtworkForm {
  @Text(200) name: string = "";
  @Text(HUGE) svg!: string;
  /** what measuring found, as JSON */
  @Text(HUGE) found!: string;
}

/** A zone with what was typed or picked; the value “bare” leaves it as it is. */
function changedZone(z: Zone, f: ZoneForm): Zone {
  if (f.field === "name") return { ...z, name: f.value.trim() || z.name };
  const bare = f.field === "bare" ? f.value === "true" : f.value === "bare";
  if (f.field === "bare") return { ...z, bare, productId: bare ? null : z.productId };
  return { ...z, bare, productId: bare ? null : f.value || null };
}

export const zoneActs = [
  act("zone", ZoneForm, (f, c: OnJob) =>
    changed(c, "zone of", (j) => ({ zones: j.zones.map((z) => (z.id === f.zone ? changedZone(z, f) : z)) })),
  ),
  act("artwork", ArtworkForm, (f, c: OnJob) => {
    const found = JSON.parse(f.found) as FoundArtwork;
    return changed(c, "artwork of", (j) => withArtwork(j, f.name, f.svg, found));
  }),
];

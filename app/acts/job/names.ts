/** A name on each piece: zones that are another one on each, set in one block. */
import { colourWord } from "../../core/models/film/words";
import { Text } from "../../core/records/fields";
import { NameBlock, Zone as ZoneRecord, type Job, type Zone } from "../../core/records/job";
import { check } from "../../core/records/parse";
import type { World } from "../../core/records/world";
import { ink } from "../../core/vector/css";
import type { Measures } from "../../core/vector/measure";
import { plural } from "../../core/units/show";
import { Refused } from "../../store/acts";
import { act, Bare, HUGE } from "../act";
import { changed, type OnJob } from "./job";

class NamesForm {
  /** how they are set, as JSON */
  @Text(4000) block!: string;
  /** what was set, as JSON */
  @Text(HUGE) found!: string;
  /** colour of those that ask for none */
  @Text(20) colour!: string;
}
interface Found {
  list: { lines: string[]; key: string; outline: string }[];
  zones: Record<string, Measures & { outline: string }>;
}

/** The colour that a cell of a list asks for: as CSS spells it, or as a paint of the Shelf is called. */
function colourAsked(key: string, otherwise: string, w: World): string {
  const asked = key || otherwise;
  const paint = w.products.find((p) => p.name.trim().toLowerCase() === asked.toLowerCase());
  const hex = ink(paint?.colour ?? asked)?.hex;
  if (!hex) throw new Refused(`“${asked}” is neither a colour such as #a1b2c3 nor a paint on the Shelf.`);
  return hex;
}

/** Zones without those of names; how they are set is gone with them. */
const unnamed = (j: Job): Zone[] => j.zones.filter((z) => !z.onPieces);

/** Zones of the names beside the drawing’s own: one a colour, with the finish that it had. */
function zonesOf(j: Job, found: Found, otherwise: string, w: World): Zone[] {
  const before = j.zones.filter((z) => z.onPieces);
  const byColour = new Map<string, string[]>();
  for (const key of Object.keys(found.zones)) {
    const hex = colourAsked(key, otherwise, w);
    byColour.set(hex, [...(byColour.get(hex) ?? []), key]);
  }
  return [...byColour].map(([colour, keys]): Zone => {
    if (keys.length > 1)
      throw new Refused(`“${keys[0] || otherwise}” and “${keys[1] || otherwise}” are one colour: call it by one name.`);
    const id = `names-${colour.slice(1)}`;
    const { productId = null, bare = false, wanted = colour } = before.find((z) => z.id === id) ?? {};
    const { outline, ...measures } = found.zones[keys[0]];
    const onPieces = found.list.flatMap((x, i) =>
      x.key === keys[0] ? [{ n: i + 1, text: x.lines.join(", "), outline: x.outline }] : [],
    );
    const called = ink(keys[0] || otherwise) ? colourWord(colour).toLowerCase() : keys[0];
    const name = byColour.size > 1 ? `Names, ${called}` : "Names";
    return { ...new ZoneRecord(), ...measures, id, name, colour, wanted, productId, bare, outline, onPieces } as Zone;
  });
}

export const nameActs = [
  act("names", NamesForm, async (f, c: OnJob) => {
    const block = check(NameBlock, JSON.parse(f.block), "the block");
    if (!block.ok) throw new Refused(`The block can’t be read: ${block.faults[0].message}.`);
    const found = JSON.parse(f.found) as Found;
    await changed(c, "names on the pieces of", (j) => ({
      // a drawing of one’s own begins with the blank’s size
      artwork: j.artwork ?? { name: "made here", svg: "", w: j.substrate.w, h: j.substrate.h },
      zones: [...unnamed(j), ...zonesOf(j, found, f.colour, c.world)],
      names: block.value,
      quantity: found.list.length,
      // spares follow anew
      choices: { ...j.choices, begin: undefined },
    }));
    return `${plural(found.list.length, "name")}, and as many pieces`;
  }),
  act("names-off", Bare, (_f, c: OnJob) =>
    changed(c, "names taken off the pieces of", (j) => ({ zones: unnamed(j), names: undefined })),
  ),
];

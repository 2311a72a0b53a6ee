/** A job once more: what it is made of and how stays, what happened to the first one does not. */
import { Job, WrapUp, type Choices } from "../records/job";
import { settled } from "../geometry/areas";
import { scaleArtwork } from "../geometry/artwork";
import { resized } from "../geometry/blank";
import { followed } from "./goes";

/** steps that mended a window which that set missed */
const MENDS = /\.m\d+$/;
/** Choices that belong to the set they were made for. */
const ofTheSet: readonly (keyof Choices)[] = ["begin", "trialOf", "trialOut", "trialVotes"];

/**
 * @param made a new job, of which name, beginning and units are taken @param due local; null: no date
 */
export function onceMore(old: Job, made: Job, quantity: number, due: string | null): Job {
  const choices = Object.fromEntries(
    Object.entries(old.choices).filter(([k]) => !ofTheSet.includes(k as keyof Choices)),
  ) as unknown as Choices;
  return {
    ...made,
    quantity,
    due,
    substrate: { ...old.substrate },
    use: [...old.use],
    machineId: old.machineId,
    route: old.route,
    artwork: old.artwork,
    // the paint is the same where it is still there, and else the nearest to it
    zones: old.zones.map(followed),
    ...(old.areas ? { areas: old.areas } : {}),
    // its original is kept anew with it by whoever stores it
    ...(old.picture ? { picture: old.picture } : {}),
    choices,
    edits: old.edits.filter((e) => !MENDS.test(e.step) && !MENDS.test(e.after ?? "")),
    ...(old.left ? { left: old.left } : {}),
    // the setting that won holds for the same stack, machine and can, and says so where it does not
    plate: old.plate,
    order: { ...made.order, text: old.order.text },
    note: old.note,
    ...(old.credit === undefined ? {} : { credit: old.credit }),
  };
}

/**
 * The same on a blank of another size, for the same order: what is drawn grows with it as far as it fits, holes and outline with each side.
 * @param as what tells it from the first one
 */
export function inSize(old: Job, as: Pick<Job, "id" | "title" | "set">, quantity: number, w: number, h: number): Job {
  const { client, start, units, language } = old;
  const order = { ...old.order, proofSent: null, proofAccepted: null, delivered: null };
  const fresh: Job = { ...new Job(), client, start, units, language, order, wrapUp: new WrapUp(), ...as };
  const again = onceMore(old, fresh, quantity, old.due);
  const k = Math.min(w / old.substrate.w, h / old.substrate.h);
  const made = { ...again, substrate: resized(old.substrate, w, h) };
  if (made.areas) return settled(made);
  const { artwork: a, zones } = scaleArtwork(made, k);
  const away = (mm: number | undefined): number | undefined => (mm === undefined ? undefined : mm * k);
  const artwork = a && { ...a, ...(a.dx ? { dx: away(a.dx) } : {}), ...(a.dy ? { dy: away(a.dy) } : {}) };
  return { ...made, artwork, zones };
}

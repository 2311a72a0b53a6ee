/** A job once more: what it is made of and how stays, what happened to the first one does not. */
import type { Choices, Job } from "../records/job";
import { followed } from "./goes";

/** steps that mended a window which that set missed */
const MENDS = /\.m\d+$/;
/** Choices that belong to the set they were made for. */
const ofTheSet: readonly (keyof Choices)[] = ["begin", "trialOf", "trialOut"];

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

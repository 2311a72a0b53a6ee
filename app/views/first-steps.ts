/** What a new shop still wants, in the order in which plans will ask for it. */
import type { ShopFacts } from "../core/records/world";

export interface FirstStep {
  id: "machine" | "shop" | "job" | "hours" | "shelf" | "copy";
  name: string;
  done: boolean;
  to: string;
}

/** @param jobs how many there are @param saved has the shop been saved as a file from this browser? */
export function firstSteps({ shop, machines, products }: ShopFacts, jobs: number, saved: boolean): FirstStep[] {
  return [
    { id: "machine", name: "A laser", done: machines.length > 0, to: "/workshop/machines" },
    { id: "shop", name: "The air where pieces dry", done: shop.climate.measured, to: "/workshop/climate" },
    { id: "job", name: "A first job", done: jobs > 0, to: "/jobs/new" },
    { id: "hours", name: "Hours of the shop", done: shop.hoursSet, to: "/workshop/hours" },
    { id: "shelf", name: "Paints on the Shelf", done: products.length > 0, to: "/shelf" },
    { id: "copy", name: "A spare copy of it all", done: saved, to: "/workshop/files" },
  ];
}
/** jobs up to which the list of first steps is shown */
export const STILL_NEW = 1;
/** Is there anything to show: a shop that is new, with something still to do? */
export const stillNew = (steps: readonly FirstStep[], jobs: number): boolean =>
  jobs <= STILL_NEW && steps.some((s) => !s.done);

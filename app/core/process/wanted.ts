/**
 * Which paint a zone gets, where the maker has said what is to be seen and not with what: the nearest on the Shelf that the route takes,
 * or one that stands in for a paint still to be bought. A paint that was picked stays wherever the route takes it.
 */
import { FINISHES, finishNamed, inWords, type Finish } from "../catalogue/finishes";
import { meltsBy, paintless, route as routeOf, taken, takes, type Route } from "../catalogue/routes";
import { defaultProduct } from "../catalogue/starter";
import { substrateNamed } from "../catalogue/substrates";
import { difference, linear } from "../models/film/colour";
import { colourWord } from "../models/film/words";
import type { Job, Zone } from "../records/job";
import type { Product } from "../records/product";
import type { World } from "../records/world";

/** CIEDE2000 from which a paint is another colour to anybody who holds the two side by side: it is not taken for the one that is wanted */
export const OTHER_COLOUR = 10;
const WHITE = "#f6f6f2";
/** begins the id of what is not on the Shelf */
const TO_BUY = "to-buy-";
export const isStandIn = (id: string): boolean => id.startsWith(TO_BUY);

/** What a finish is asked for by: powders by the heat that they want, others without how they are laid. */
const boughtAs = (f: Finish): string => (f.powder ? f.name : f.name.split(",")[0]);

/** What stands in for a paint of this finish and colour, with its finish's default figures. */
export const standInOf = (finish: string, colour: string, name?: string): Product =>
  defaultProduct(
    `${TO_BUY}${finish}-${colour.slice(1)}`,
    name ?? `${colourWord(colour)} ${inWords(boughtAs(finishNamed(finish)))}`,
    finish,
    colour,
  );

/** The finish that is bought for a route on a body: its usual one, unless the body would not bear how that is melted. */
export function boughtFor(r: Route, substrateId: string): Finish {
  const usual = taken(r)[0];
  const cool = FINISHES.find((f) => f.powder && f.id !== usual.id && takes(r, f));
  const tender = ["mdf", "wood"].includes(substrateNamed(substrateId).family);
  return tender && cool && meltsBy("oven", r.id) ? cool : usual;
}

/** Does a job say what is to be seen, so that its paints follow? */
export const follows = (job: Job): boolean => job.zones.some((z) => z.wanted !== undefined);

/** Shelf paints that a route takes, by how near they come to a colour, nearest first; a mark of the burn has the colour of none. */
export const fitting = (r: Route, colour: string, products: readonly Product[]): { product: Product; off: number }[] =>
  products
    .filter((p) => !p.clear && takes(r, finishNamed(p.finish)))
    .map((product) => ({
      product,
      off: r.shows === "mark" ? 0 : difference(linear(product.colour), linear(colour)),
    }))
    .sort((a, b) => a.off - b.off);

/** What a zone gets by a route; null: nothing is wanted of it, or it is left as it is. */
function paintFor(z: Zone, r: Route, world: World): Product | null {
  if (z.bare || z.wanted === undefined || paintless(r)) return null;
  const own = world.products.find((p) => p.id === z.productId);
  if (own && takes(r, finishNamed(own.finish))) return own;
  // a job that has begun is made with what stood on the Shelf by then; only where that holds nothing, with what has been bought since
  for (const shelf of [world.job.begun?.products ?? [], world.products]) {
    const [near] = fitting(r, z.wanted, shelf);
    if (near && near.off <= OTHER_COLOUR) return near.product;
  }
  // what burns into the glaze is white, whatever its mark is to look like
  return standInOf(boughtFor(r, world.job.substrate.id).id, r.shows === "mark" ? WHITE : z.wanted);
}

/** The job with a paint for every zone that wants a colour, and the stand-ins among them. Jobs that want none are left as they are. */
export function coloursOf(world: World): { job: Job; standIns: Product[] } {
  const { job } = world;
  if (!job.route || !follows(job)) return { job, standIns: [] };
  const r = routeOf(job.route);
  const standIns = new Map<string, Product>();
  const zones = job.zones.map((z) => {
    const p = paintFor(z, r, world);
    if (p === null || p.id === z.productId) return z;
    if (isStandIn(p.id)) standIns.set(p.id, p);
    return { ...z, productId: p.id };
  });
  return { job: { ...job, zones }, standIns: [...standIns.values()] };
}

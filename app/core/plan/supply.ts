/**
 * What a plan is made with where the job says what is to be seen and the Shelf lacks something: sealers, tops, clear coats and tapes stand
 * in with their default figures until they are bought, as colours do.
 */
import { STARTER } from "../catalogue/starter";
import { byHand } from "../catalogue/routes";
import { context, type Context } from "../process/context";
import { follows, standInOf } from "../process/wanted";
import type { Product } from "../records/product";
import type { World } from "../records/world";
import type { Generated, Missing } from "./builder";
import { generate } from "./generate";

/** What the Shelf may lack, and the plainest product that does it; a white is brushed where colour is laid by hand. */
export const STARTER_FOR: Partial<Record<Missing["what"], (byHand: boolean) => string>> = {
  mask: () => "heat-tape",
  epoxy: () => "epoxy",
  sealer: () => "shellac",
  white: (hand) => (hand ? "white-acrylic" : "white-enamel"),
  top: () => "black-enamel",
  clear: () => "clear-acrylic",
};
/** rounds in which what stands in may show that something else is lacking */
const ROUNDS = 3;

/** What stands in for what a plan lacks; empty: nothing that is bought. */
function lentFor(missing: Missing[], c: Context): Product[] {
  return missing.flatMap((m) => {
    const s = STARTER.find((x) => x.id === STARTER_FOR[m.what]?.(byHand(c.route)));
    return s ? standInOf(s.finish, s.colour, s.name) : [];
  });
}

/** A world and the steps that it makes, with what stands in for what is not on the Shelf. */
export function supplied(world: World): { c: Context; made: Generated } {
  let c = context(world);
  let made = generate(c);
  if (!follows(world.job)) return { c, made };
  const lent: Product[] = [];
  for (let n = 0; n < ROUNDS; n++) {
    const more = lentFor(made.missing, c).filter((p) => !lent.some((x) => x.id === p.id));
    if (!more.length) break;
    lent.push(...more);
    c = context(world, lent);
    made = generate(c);
  }
  return { c, made };
}

/** Kinds, finishes, materials, routes and roles are closed: what is misspelt does not compile, and is told where it comes as text. */
import { finish, isFinish } from "../catalogue/finishes";
import { isSubstrate, substrate } from "../catalogue/substrates";
import type { Route } from "../catalogue/routes";
import type { CoatRole, RouteId } from "../records/ids";
import { isKind, kindOf, newStep, type StepFor } from "./kinds";

/** Compiled, never run: a line below that does compile is an error of `tsc`. */
export const MISSPELT = [
  // @ts-expect-error a kind
  () => newStep("a", "engarve"),
  // @ts-expect-error a kind
  () => kindOf("coats"),
  // @ts-expect-error a field that the kind lacks
  (s: StepFor<"dust">) => s.productId,
  // @ts-expect-error a field that the kind lacks
  () => newStep("a", "dust", "Dust it", { depthMm: 1 }),
  // @ts-expect-error a finish
  () => finish("spray-enamell"),
  // @ts-expect-error a material
  () => substrate("hard-mapel"),
  // @ts-expect-error a route
  (): RouteId => "A9",
  // @ts-expect-error a role
  (): CoatRole => "seel",
  // @ts-expect-error a kind that a route names
  (): Route<"dust">["phases"][number] => ({ do: "step", kind: "dusty" }),
];

test("as text they are told from what there is", () => {
  expect([isKind("engrave"), isKind("engarve"), isKind("toString")]).toEqual([true, false, false]);
  expect([isFinish("spray-enamel"), isFinish("spray-enamell"), isFinish("constructor")]).toEqual([true, false, false]);
  expect([isSubstrate("hard-maple"), isSubstrate("hard-mapel")]).toEqual([true, false]);
  expect(MISSPELT).toHaveLength(9);
});

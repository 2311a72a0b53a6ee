/** A zone that is to be as dark as the beam makes it: on every body that darkens, by every way that leaves it bare; or why not. */
import { ROUTES, paintless } from "../catalogue/routes";
import { SUBSTRATES } from "../catalogue/substrates";
import { defaultMachine } from "../catalogue/starter";
import { open } from "../judge/judge";
import { difference, linear } from "../models/film/colour";
import { zoneOf, shown } from "../piece/state";
import { meantColour } from "../process/meant";
import { kneeOf } from "../process/settings";
import { BEAMS } from "../records/ids";
import { allSafe } from "../records/machine";
import { FULL_SHELF, GEAR } from "../testing/briefs";
import { e1, zone } from "../testing/worlds";
import { chooseRoutes } from "./choose";
import { context } from "../process/context";
import { makePlan } from "./plan";
import { byRoute } from "./goes";

const on = (substrate: string, beam: (typeof BEAMS)[number]) => {
  const w = e1({ products: FULL_SHELF(), shop: { gear: GEAR() } });
  const m = { ...allSafe(defaultMachine(beam, beam === "co2" ? 40 : 10, "m")), id: "m" };
  return {
    ...w,
    machines: [m],
    job: {
      ...w.job,
      machineId: "m",
      route: null,
      substrate: { ...w.job.substrate, id: substrate },
      zones: [
        { ...zone("fill", null), wanted: "#a8235a" },
        { ...zone("dark", null), bare: true, burn: true },
      ],
    },
  };
};

test("what is burnt ends up with the mark’s colour, once nothing is painted or sanded any more", () => {
  const seen = new Set<string>();
  for (const s of SUBSTRATES)
    for (const beam of BEAMS) {
      const w = on(s.id, beam);
      for (const r of chooseRoutes(context(w)).filter((x) => !x.no.length)) {
        const plan = makePlan(byRoute(w, r.route.id), null, true);
        const c = plan.context;
        const burns = plan.placed.filter((p) => p.step.kind === "mark-face" && p.step.zones.includes("dark"));
        if (!burns.length) {
          // it is said why not, and the plan is not given out as whole
          if (!paintless(r.route))
            expect([s.id, r.route.id, plan.missing.length > 0]).toEqual([s.id, r.route.id, true]);
          continue;
        }
        if (plan.missing.length || plan.stuck) continue;
        const last = plan.placed[plan.placed.length - 1].after;
        const off = difference(
          shown(last, zoneOf(last, "dark"), c.substrate.colour, c.paintOf),
          linear(meantColour(c.job.zones[1], c)!),
        );
        expect([s.id, beam, r.route.id, off <= c.tolerance + 0.01]).toEqual([s.id, beam, r.route.id, true]);
        expect(kneeOf(c)).not.toBeNull();
        // nothing that wets with paint or sands comes behind it but a clear coat
        const after = plan.placed.slice(burns[burns.length - 1].index + 1).map((p) => p.step.kind);
        expect(after.some((k) => k === "sand-back" || k === "rub-dye" || k === "powder-fill")).toBe(false);
        expect(open(plan).filter((x) => x.rule === 16 && x.zone === "dark")).toEqual([]);
        seen.add(r.route.id);
      }
    }
  expect(seen.size).toBeGreaterThan(2);
});
test("all zones burnt: the way without paint takes it, and every way that lays colours says that it has none", () => {
  const w = on("hard-maple", "blue");
  const job = { ...w.job, zones: [{ ...zone("dark", null), bare: true, burn: true }] };
  const choices = chooseRoutes(context({ ...w, job }));
  expect(choices.find((x) => x.route.id === "N")!.no).toEqual([]);
  for (const x of choices.filter((y) => !paintless(y.route) && !y.route.bareAlone))
    expect(x.no.some((n) => n.of === "bare")).toBe(true);
  expect(ROUTES.some((r) => paintless(r))).toBe(true);
});

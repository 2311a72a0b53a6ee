import { byRoute } from "../core/plan/goes";
import { ROUTES } from "../core/catalogue/routes";
import { SCHOOLS } from "../core/catalogue/schools";
import { inTurn } from "../core/plan/placed";
import { makePlan } from "../core/plan/plan";
import type { World } from "../core/records/world";
import { a1, e1 } from "../core/testing/worlds";
import { canTry, tryOn } from "./try";
import { GUIDE } from "./guide";

const page = (id: string) => GUIDE.find((p) => p.id === id)!;
const NOW = 0;
/** The job after an act of the page, done by hand. */
const after = (w: World, act: Record<string, string>): World =>
  act.field === "route"
    ? byRoute(w, act.value as World["job"]["route"])
    : { ...w, job: { ...w.job, choices: { ...w.job.choices, schools: [`${act.field.slice(7)}:${act.value}`] } } };

test("every page of a way and of a matter, tried on a job: what is told is the plan that taking it would make", () => {
  let told = 0;
  for (const w of [e1({ job: { quantity: 5 } }), a1()])
    for (const p of GUIDE.filter(canTry)) {
      const rows = tryOn(w, NOW, p);
      expect(rows.filter((r) => r.is).length).toBeLessThanOrEqual(1);
      for (const r of rows) {
        const plan = makePlan(after(w, r.act), NOW, true);
        expect([p.id, r.name, r.steps]).toEqual([p.id, r.name, plan.placed.length]);
        expect(r.ready === null).toBe(plan.ready === null);
        expect(r.lacks.length).toBe(r.no.length ? 0 : plan.missing.length);
        expect(r.hands === null).toBe(inTurn(plan.placed).some((x) => x.minutes === null));
        told++;
      }
      if (p.kind === "school") expect(rows).toHaveLength(SCHOOLS.find((s) => `school-${s.id}` === p.id)!.picks.length);
    }
  expect(told).toBeGreaterThan(2 * (ROUTES.length + SCHOOLS.length));
});

test("the way that the job goes by stands first and can’t be taken again; one that does not go here says why", () => {
  const w = e1();
  const own = tryOn(w, NOW, page(`route-${w.job.route}`));
  expect(own.map((r) => r.is)).toEqual([true]);
  const others = ROUTES.filter((r) => r.id !== w.job.route).map((r) => tryOn(w, NOW, page(`route-${r.id}`)));
  expect(others.every(([now, other]) => now.is && !now.no.length && !other.is)).toBe(true);
  const refused = others.filter(([, other]) => other.no.length);
  expect(refused.length).toBeGreaterThan(5);
  expect(refused.every(([, other]) => other.no.every((why) => /^[A-Z].+\.$/.test(why)))).toBe(true);
  const unsaid = tryOn({ ...w, job: { ...w.job, route: null } }, NOW, page(`route-${w.job.route}`));
  expect(unsaid.map((r) => [r.is, r.no])).toEqual([[false, []]]);
});

test("the pick in force is the job's, else the shop's; another one moves the plan", () => {
  const w = a1();
  const is = (x: World) => tryOn(x, NOW, page("school-before-laser")).find((r) => r.is)!.name;
  expect(is(w)).toBe("Until it is laser-safe");
  const shop = { ...w, shop: { ...w.shop, schools: ["before-laser:touch"] } };
  expect(is(shop)).toBe("Until it is touch dry");
  expect(is({ ...shop, job: { ...w.job, choices: { ...w.job.choices, schools: ["before-laser:safe"] } } })).toBe(
    "Until it is laser-safe",
  );
  const [safe, touch] = tryOn(
    { ...w, job: { ...w.job, choices: { ...w.job.choices, proof: false, noClear: true } } },
    NOW,
    page("school-before-laser"),
  );
  expect(safe.ready).not.toBe(touch.ready);
});

test("both sides of every matter are told in sentences of their own", () => {
  for (const p of SCHOOLS.flatMap((s) => s.picks)) {
    expect(p.more).toMatch(/^[A-Z].{60,}\.$/);
    expect(p.more).not.toBe(p.says);
  }
});

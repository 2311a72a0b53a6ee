/** What the bench draws of the piece: the side that lies up, mirrored where it is the back, the mask, what is lifted and what stays. */
import { ROUTES } from "../core/catalogue/routes";
import { makePlan } from "../core/plan/plan";
import { kindOf } from "../core/process/kinds";
import { brief, LATER_FROM } from "../core/testing/briefs";
import { doneUpTo } from "../core/testing/done";
import { benchView } from "./bench";

test("over all routes: back up and left for right while the back is worked, the face for the last look; masks as they lie", () => {
  const met = { back: 0, face: 0, lifts: 0 };
  const all = Array.from({ length: 241 }, (_, n) => n);
  for (const r of ROUTES) {
    const w = brief(
      !r.takes.length
        ? LATER_FROM
        : all.find((n) => brief(n).job.route === r.id && (r.side !== "back" || !brief(n).job.substrate.shape))!,
    );
    const p = makePlan(w, null, true);
    if (p.stuck || p.missing.length) continue;
    const behind = p.context.route!.side === "back";
    const flat = !w.job.substrate.shape;
    const looked = p.placed.filter(
      (x) =>
        kindOf(x.step.kind).lifts === "mask" ||
        kindOf(x.step.kind).packs ||
        x.index % 6 === 2 ||
        (behind && x.index % 2 === 0),
    );
    for (const x of looked) {
      const at = x.start!;
      const piece = benchView(w, makePlan(doneUpTo(w, p, x.index), at, true), at, []).piece!;
      const { packs, lifts } = kindOf(x.step.kind);
      const back = behind && flat && !packs && lifts !== "face-film";
      met[back ? "back" : "face"]++;
      expect([w.job.id, x.step.id, piece.mirrored]).toEqual([w.job.id, x.step.id, back]);
      expect(/^Back up/.test(piece.up)).toBe(back);
      expect(piece.masked).toEqual(x.before.zones.filter((z) => z.mask).map((z) => z.zone));
      if (lifts !== "mask") {
        expect(piece.lift).toBeNull();
        continue;
      }
      met.lifts++;
      const mine = w.job.zones.filter((z) => x.step.zones.includes(z.id) && piece.masked.includes(z.id));
      for (const z of w.job.zones) {
        expect([z.name, piece.lift!.includes(z.name)]).toEqual([z.name, mine.includes(z)]);
        const stays = piece.masked.includes(z.id) && !mine.includes(z);
        expect([z.name, piece.stays?.includes(z.name) ?? false]).toEqual([z.name, stays]);
      }
      const pieces = mine.reduce((a, z) => a + z.pieces!, 0);
      if (mine.length) expect(piece.lift).toContain(`${pieces} piece`);
    }
  }
  expect([met.back > 5, met.face > 20, met.lifts > 5]).toEqual([true, true, true]);
});

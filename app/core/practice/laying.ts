/** G3 spray, G6 wait or go, G7 melt powder, G8 fill and level, G11 sand back. */
import { finishNamed } from "../catalogue/finishes";
import { substrateNamed } from "../catalogue/substrates";
import { rateIn, type DryingOf } from "../models/drying/clock";
import { GRITS, VENEER_SHARE } from "../models/depth/depth";
import { hex, linear, mix } from "../models/film/colour";
import { fanWidth, SAG_UPRIGHT_UM, sprayed, SprayFilm, type SprayMap } from "../models/film/spray";
import { gunHeat } from "../models/powder/gun";
import { mayStayOpen } from "../models/powder/fill";
import { randomOf } from "../units/random";
import { showMinutes } from "../units/show";
import type { World } from "../records/world";
import {
  clamp,
  near,
  num,
  pathText,
  pickOf,
  r1,
  r2,
  rect,
  samplesOf,
  towards,
  type Answer,
  type Control,
  type Drawing,
  type Exercise,
  type Sample,
  type Verdict,
} from "./exercise";

/** spread of a film that counts as even */
const EVEN = 0.08;
const DRY_MOST = 0.15;

function sprayPicture(m: SprayMap, w: number, h: number, wanted: number): Drawing {
  const [cx, cy] = [w / m.across, h / m.down];
  const shapes = Array.from(m.um, (um, i) => {
    const share = clamp(um / (2 * wanted), 0, 1);
    return {
      d: rect((i % m.across) * cx, Math.floor(i / m.across) * cy, cx + 0.3, cy + 0.3),
      fill: um > SAG_UPRIGHT_UM ? "#5b0f2c" : hex(mix(linear("#f3eee6"), linear("#a8235a"), share)),
    };
  });
  return { w, h, label: `Film over the face, ${Math.round(m.least)} to ${Math.round(m.most)} µm wet`, shapes };
}
const sprayTask = (seed: number, level: number) => {
  const r = randomOf(seed * 5 + level);
  return { w: 120 + 20 * r.below(5), h: 80 + 20 * r.below(4), wanted: 25 + 5 * r.below(9) };
};
const SPRAY: Record<"distance" | "speed" | "overlap", Extract<Control, { kind: "number" }>> = {
  distance: { id: "distance", label: "Distance", kind: "number", min: 80, max: 480, step: 10, unit: "mm", start: 420 },
  speed: { id: "speed", label: "Hand", kind: "number", min: 50, max: 900, step: 10, unit: "mm/s", start: 120 },
  overlap: {
    id: "overlap",
    label: "Passes overlap by",
    kind: "number",
    min: 0,
    max: 80,
    step: 5,
    unit: "%",
    start: 10,
  },
};
/** by hand a film is less even than by rule */
const HAND = { even: 0.2, off: 0.2 };
/** how much slower a hand goes on the screen than before a piece */
export const SLOWER = 8;

/** The film that a hand has left, and at which moment it first ran: ms, mm. */
export function byHand(path: string, distance: number, w: number, h: number) {
  const film = new SprayFilm(w, h);
  const all = samplesOf(path);
  let ran: { ms: number; x: number; y: number } | null = null;
  all.forEach((s, i) => {
    const next = all[i + 1];
    if (!s.open || !next) return;
    film.stroke([s.x, s.y], [next.x, next.y], Math.max(0, next.ms - s.ms) / 1000 / SLOWER, distance);
    const at = ran ? -1 : film.um.findIndex((um) => um > SAG_UPRIGHT_UM);
    if (at >= 0)
      ran = {
        ms: next.ms,
        x: ((at % film.across) + 0.5) * (w / film.across),
        y: (Math.floor(at / film.across) + 0.5) * (h / film.down),
      };
  });
  return { film, ran: ran as { ms: number; x: number; y: number } | null, samples: all };
}
/** A hand that goes as it should: passes one way, then across, begun and ended beside the piece, as quick as lays what is wanted. */
function properly(w: number, h: number, wanted: number, distance: number): string {
  const fan = fanWidth(distance);
  const overlap = 0.65;
  const at = (speed: number): number =>
    sprayed({ distance, speed, overlap, triggered: true, crossed: true }, w, h).mean;
  const speed = (300 * at(300)) / wanted;
  const all: Sample[] = [];
  let ms = 0;
  const go = (along: number, side: number, put: (u: number, v: number) => [number, number]): void => {
    const step = fan * (1 - overlap);
    for (let v = -fan / 4, k = 0; v < side + fan / 2; v += step, k++) {
      const ends = k % 2 ? [along + fan / 2, -fan / 2] : [-fan / 2, along + fan / 2];
      const [a, b] = ends.map((u) => put(u, v));
      all.push({ ms, x: a[0], y: a[1], open: true });
      ms += (1000 * SLOWER * (along + fan)) / speed;
      all.push({ ms, x: b[0], y: b[1], open: false });
      ms += 200;
    }
  };
  go(w, h, (u, v) => [u, v]);
  go(h, w, (u, v) => [v, u]);
  return pathText(all);
}
function judgeByHand(t: ReturnType<typeof sprayTask>, a: Answer): Verdict {
  const distance = num(a, "distance");
  const { film, ran, samples } = byHand(String(a.path ?? ""), distance, t.w, t.h);
  const m = film.map();
  const off = Math.abs(m.mean - t.wanted) / t.wanted;
  const dry = distance > 0 ? sprayed({ ...STILL, distance }, t.w, t.h).dry : 0;
  const good = m.outMl > 0 && !ran && m.cv <= HAND.even && off <= HAND.off && dry <= DRY_MOST;
  const thin = m.um.indexOf(m.least);
  const where = (i: number): string =>
    `${Math.round((i % m.across) * (t.w / m.across))} mm from the left and ` +
    `${Math.round(Math.floor(i / m.across) * (t.h / m.down))} from the top`;
  const wrong = good
    ? null
    : m.outMl === 0
      ? "before it began: nothing was sprayed"
      : dry > DRY_MOST
        ? "on the way: it arrives dry"
        : ran
          ? `after ${r1(ran.ms / 1000)} s, ${Math.round(ran.x)} mm from the left and ${Math.round(ran.y)} from the top: it runs there`
          : m.cv > HAND.even
            ? `it is thinnest ${where(thin)}: ${Math.round(m.least)} µm`
            : m.mean > t.wanted
              ? "too much: too slow a hand"
              : "too little: too quick a hand";
  const near240 = dry > DRY_MOST ? towards(SPRAY.distance, distance, 240) : distance;
  return {
    score: clamp(
      (m.outMl > 0 ? 1 : 0) *
        (0.4 * near(Math.max(0, m.cv - HAND.even), 0.15) +
          0.3 * near(off, 0.25) +
          0.2 * (ran ? 0 : 1) +
          0.1 * (1 - dry)),
      0,
      1,
    ),
    good,
    says: good ? "Even, wet, and nothing runs." : `It went wrong ${wrong}.`,
    wrongAt: wrong,
    figures: [
      ["Mean, wet", `${Math.round(m.mean)} µm of ${t.wanted}`],
      ["Spread", `${Math.round(100 * m.cv)} %`],
      ["Least and most", `${Math.round(m.least)} and ${Math.round(m.most)} µm`],
      [
        "Out of the can",
        `${r1(m.outMl)} ml, ${Math.round(m.outMl > 0 ? (100 * m.faceMl) / m.outMl : 0)} % of it on the face`,
      ],
      [
        "The can was open",
        `${r1(openMs(samples) / 1000)} s on the screen, ${r1(openMs(samples) / 1000 / SLOWER)} s at a piece`,
      ],
    ],
    picture: sprayPicture(m, t.w, t.h, t.wanted),
    next: dry > DRY_MOST ? { ...a, distance: near240 } : { ...a, path: properly(t.w, t.h, t.wanted, distance) },
  };
}
const STILL = { speed: 300, overlap: 0.6, triggered: true, crossed: true };
const openMs = (all: readonly Sample[]): number =>
  all.reduce((sum, s, i) => sum + (s.open && all[i + 1] ? all[i + 1].ms - s.ms : 0), 0);
/** what the gun warms from, °C */
const ROOM_C = 20;
const YES_NO = (id: string, label: string, yes: string, no: string, begin: string): Control => ({
  id,
  label,
  kind: "choice",
  options: [
    { value: "yes", label: yes },
    { value: "no", label: no },
  ],
  start: begin,
});
export const spray: Exercise = {
  id: "spray",
  name: "Spray",
  about: "An even wet film, no runs, nothing dry: distance, hand, overlap, where the can is opened.",
  guide: "step-coat",
  kinds: ["coat"],
  levels: 3,
  task(seed, level) {
    const t = sprayTask(seed, level);
    if (level === 3)
      return {
        says:
          `Spray a face of ${t.w} × ${t.h} mm that stands upright by your own hand: ${t.wanted} µm wet, as even as you can. ` +
          `The hand goes ${SLOWER} times slower here than at a piece.`,
        facts: [
          `Beyond ${SAG_UPRIGHT_UM} µm wet it runs`,
          `By hand even is a spread of ${Math.round(100 * HAND.even)} % or less, ${Math.round(100 * HAND.off)} % off at most`,
        ],
        controls: [
          SPRAY.distance,
          {
            id: "path",
            label: "Your hand",
            kind: "path",
            w: t.w,
            h: t.h,
            wanted: t.wanted,
            distance: "distance",
            start: "",
          },
        ],
        picture: null,
      };
    return {
      says: `Spray a face of ${t.w} × ${t.h} mm that stands upright: ${t.wanted} µm wet, as even as you can.`,
      facts: [`Beyond ${SAG_UPRIGHT_UM} µm wet it runs`, `Even is a spread of ${Math.round(100 * EVEN)} % or less`],
      controls: [
        SPRAY.distance,
        SPRAY.speed,
        SPRAY.overlap,
        YES_NO("off", "The can is opened and shut", "beside the piece", "over the piece", "no"),
        YES_NO("crossed", "Directions", "one, then across", "one only", "no"),
      ],
      picture: null,
    };
  },
  judge(seed, level, a) {
    const t = sprayTask(seed, level);
    if (level === 3) return judgeByHand(t, a);
    const use = (x: Answer) => ({
      distance: num(x, "distance"),
      speed: num(x, "speed"),
      overlap: num(x, "overlap") / 100,
      triggered: x.off === "yes",
      crossed: x.crossed === "yes",
    });
    const m = sprayed(use(a), t.w, t.h);
    const runs = m.most > SAG_UPRIGHT_UM;
    const off = Math.abs(m.mean - t.wanted) / t.wanted;
    const good = m.cv <= EVEN && !runs && off <= (level === 1 ? 0.18 : 0.12) && m.dry <= DRY_MOST;
    const next: Answer = { ...a };
    let wrong: string | null = null;
    if (m.dry > DRY_MOST) {
      wrong = "on the way: it arrives dry";
      next.distance = towards(SPRAY.distance, num(a, "distance"), 240);
    } else if (a.off === "no") {
      wrong = "at both ends of each pass: the can was opened over the piece";
      next.off = "yes";
    } else if (m.cv > EVEN && num(a, "overlap") < 65) {
      wrong = "between the passes: they leave stripes";
      next.overlap = clamp(num(a, "overlap") + 15, 0, 65);
    } else if (m.cv > EVEN && a.crossed === "no") {
      wrong = "across the passes: one direction leaves stripes";
      next.crossed = "yes";
    } else if (m.cv > EVEN) {
      wrong = "too near: the fan is narrow against the piece";
      next.distance = towards(SPRAY.distance, num(a, "distance"), 300);
    }
    // what lies on it goes with the time that the fan rests over each place
    if (!good && (wrong === null || off > 0.5)) {
      wrong ??=
        m.mean > t.wanted
          ? runs
            ? "it runs: too slow a hand"
            : "too much: too slow a hand"
          : "too little: too quick a hand";
      const there = sprayed(use(next), t.w, t.h);
      next.speed = clamp(Math.round((num(next, "speed") * there.mean) / t.wanted / 10) * 10, 50, 900);
    }
    const balance = m.outMl > 0 ? m.faceMl / m.outMl : 0;
    return {
      score: clamp(
        0.4 * near(Math.max(0, m.cv - EVEN), 0.08) + 0.3 * near(off, 0.2) + 0.2 * (runs ? 0 : 1) + 0.1 * (1 - m.dry),
        0,
        1,
      ),
      good,
      says: good ? "Even, wet, and nothing runs." : `It went wrong ${wrong}.`,
      wrongAt: good ? null : wrong,
      figures: [
        ["Mean, wet", `${Math.round(m.mean)} µm of ${t.wanted}`],
        ["Spread", `${Math.round(100 * m.cv)} %`],
        ["Least and most", `${Math.round(m.least)} and ${Math.round(m.most)} µm`],
        ["Out of the can", `${r1(m.outMl)} ml, ${Math.round(100 * balance)} % of it on the face`],
        ["Arrived dry", `${Math.round(100 * m.dry)} %`],
      ],
      picture: sprayPicture(m, t.w, t.h, t.wanted),
      next,
    };
  },
};

const DRYING = ["spray-enamel", "spray-lacquer", "craft-acrylic", "spray-clear"] as const;
function waitOf(seed: number, level: number, shop: World | null) {
  const r = randomOf(seed * 17 + level);
  const f = finishNamed(pickOf(level === 1 ? (["spray-enamel"] as const) : DRYING, r));
  const c = shop ? shop.shop.climate.c : 10 + r.below(18);
  const rh = shop ? shop.shop.climate.rh : 0.35 + 0.05 * r.below(8);
  const of = (limit: DryingOf["limit"]): DryingOf => ({
    waterBorne: f.family === "acrylic",
    minC: f.minC,
    fan: true,
    limit,
  });
  const rate = (limit: DryingOf["limit"]): number => rateIn(c, rh, 1, of(limit));
  const opens = f.times.recoat === null || rate("opens") <= 0 ? Infinity : f.times.recoat / rate("opens");
  const closes = f.times.closes === null ? Infinity : f.times.closes / rate("closes");
  const again = f.times.reopens === null || rate("opens") <= 0 ? Infinity : f.times.reopens / rate("opens");
  const spots = [opens * 0.4, opens * 1.3, closes * 1.5, again * 1.1].filter((x) => Number.isFinite(x) && x < 6e4);
  const since = Math.max(1, Math.round(pickOf(spots.length ? spots : [30], r)));
  const truth = since < opens ? "wait" : since <= closes ? "go" : since < again ? "again" : "go";
  return { f, c, rh, opens, closes, again, since, truth };
}
const WAIT_SAYS = {
  wait: "wait until it bears the next coat",
  go: "coat it now",
  again: "wait until the window reopens, or scuff it",
} as const;
export const waitOrGo: Exercise = {
  id: "wait",
  name: "Wait or go",
  about: "Is this film to be coated now, later, or not before it reopens?",
  guide: "step-rest",
  kinds: ["coat", "rest"],
  levels: 3,
  own: { of: "its air", has: () => true },
  task(seed, level, shop) {
    const w = waitOf(seed, level, shop);
    return {
      says:
        `${w.f.name.split(",")[0]} was laid ${showMinutes(w.since)} ago. The room has ${r1(w.c)} °C and ` +
        `${Math.round(100 * w.rh)} % humidity. The next coat of the same?`,
      facts: [
        `At 20 °C and 50 %: next coat from ${showMinutes(w.f.times.recoat)}` +
          (w.f.times.closes === null ? "" : `, shut from ${showMinutes(w.f.times.closes)}`) +
          (w.f.times.reopens === null ? "" : `, open again from ${showMinutes(w.f.times.reopens)}`),
        ...(level === 1 ? ["Ten degrees warmer dries twice as fast"] : []),
      ],
      controls: [
        {
          id: "do",
          label: "What now?",
          kind: "choice",
          options: Object.entries(WAIT_SAYS).map(([value, label]) => ({ value, label })),
          start: "go",
        },
      ],
      picture: null,
    };
  },
  judge(seed, level, a, shop) {
    const w = waitOf(seed, level, shop);
    const good = a.do === w.truth;
    const cost = w.truth === "again" && a.do === "go" ? 0 : w.truth === "wait" && a.do === "go" ? 0.2 : good ? 1 : 0.5;
    return {
      score: cost,
      good,
      says: good
        ? `Right: ${WAIT_SAYS[w.truth as keyof typeof WAIT_SAYS]}.`
        : w.truth === "again"
          ? "The film beneath is half hard: a coat now wrinkles it."
          : w.truth === "wait"
            ? "It is still soft: a coat now runs into it, and it never dries right through."
            : "It bears the coat: every hour more brings it nearer to shutting.",
      wrongAt: good ? null : `${showMinutes(w.since)} after the coat`,
      figures: [
        ["Opens here after", Number.isFinite(w.opens) ? showMinutes(w.opens) : "never in this air"],
        ["Shuts after", Number.isFinite(w.closes) ? showMinutes(w.closes) : "does not shut"],
        ["Open again after", Number.isFinite(w.again) ? showMinutes(w.again) : "does not reopen"],
      ],
      picture: null,
      next: { do: w.truth },
    };
  },
};

const MELT_BODY = ["hard-maple", "tile-glazed", "mdf", "aluminium-bare"] as const;
function meltOf(seed: number, level: number) {
  const r = randomOf(seed * 19 + level);
  const body = substrateNamed(pickOf(level === 1 ? MELT_BODY.slice(0, 3) : MELT_BODY, r));
  const flow = 100 + 10 * r.below(7);
  return { body, flow, limit: flow + 30 + 10 * r.below(3), thick: body.family === "metal" ? 3 : 8 };
}
const MELT: Record<"height" | "air" | "seconds", Extract<Control, { kind: "number" }>> = {
  height: {
    id: "height",
    label: "Gun over the face",
    kind: "number",
    min: 10,
    max: 250,
    step: 5,
    unit: "mm",
    start: 20,
  },
  air: { id: "air", label: "Air", kind: "number", min: 100, max: 550, step: 10, unit: "°C", start: 550 },
  seconds: { id: "seconds", label: "Over each place", kind: "number", min: 5, max: 240, step: 5, unit: "s", start: 10 },
};
export const meltPowder: Exercise = {
  id: "melt",
  name: "Melt powder",
  about: "From dull to gloss, with nothing blown out and nothing scorched.",
  guide: "step-melt",
  kinds: ["melt", "powder-fill"],
  levels: 2,
  task(seed, level) {
    const t = meltOf(seed, level);
    return {
      says: `Powder that flows at ${t.flow} °C lies in a cut in ${t.body.name.toLowerCase()}. Melt it with the gun.`,
      facts: [`Beyond ${t.limit} °C it scorches`, `The body is ${t.thick} mm thick`],
      controls: [
        MELT.height,
        MELT.air,
        MELT.seconds,
        {
          id: "fan",
          label: "Fan",
          kind: "choice",
          options: [
            { value: "low", label: "low" },
            { value: "high", label: "high" },
          ],
          start: "high",
        },
        YES_NO("moving", "The gun", "is kept moving", "is held still", "no"),
      ],
      picture: null,
    };
  },
  judge(seed, level, a) {
    const t = meltOf(seed, level);
    const use = (x: Answer) => ({
      height: num(x, "height"),
      airC: num(x, "air"),
      fan: x.fan === "high" ? ("high" as const) : ("low" as const),
      seconds: num(x, "seconds"),
      moving: x.moving === "yes",
    });
    const at = (x: Answer) => gunHeat(t.body, use(x), t.flow, t.thick);
    const e = at(a);
    const scorched = e.skinC > t.limit || (a.moving === "no" && e.skinC > t.limit - 25);
    const good = e.flowed > 0.95 && e.blown < 0.05 && !scorched;
    const next: Answer = { ...a };
    let wrong: string | null = null;
    if (e.blown >= 0.05) {
      wrong = "while it was loose: the stream blew it out";
      if (a.fan === "high") next.fan = "low";
      else next.height = towards(MELT.height, num(a, "height"), 45);
    } else if (a.moving === "no" && scorched) {
      wrong = "under the nozzle: it was held still";
      next.moving = "yes";
    } else if (scorched || e.flowed <= 0.95) {
      wrong = scorched ? "in the skin: hotter than the body bears" : "in the cut: it has not flowed";
      // the skin goes with what the air is above the room; what the air can't do, time does
      const aim = Math.min(t.limit - 6, t.flow + 16);
      const air = ROOM_C + ((num(a, "air") - ROOM_C) * (aim - ROOM_C)) / (e.skinC - ROOM_C);
      if (air > MELT.air.max) next.seconds = clamp(num(a, "seconds") * 2, 5, 240);
      else next.air = Math.max(MELT.air.min, Math.round(air / 10) * 10);
    }
    const gloss = e.flowed;
    return {
      score: clamp(0.5 * e.flowed + 0.25 * (1 - e.blown) + (scorched ? 0 : 0.25), 0, 1),
      good,
      says: good ? "Gloss all over, flush, nothing blown, nothing brown." : `It went wrong ${wrong}.`,
      wrongAt: good ? null : wrong,
      figures: [
        ["Skin", `${Math.round(e.skinC)} °C, flows at ${t.flow}`],
        ["Flowed", `${Math.round(100 * e.flowed)} %`],
        ["Blown out", `${Math.round(100 * e.blown)} %`],
      ],
      picture: {
        w: 160,
        h: 60,
        label: `Powder ${Math.round(100 * gloss)} % flowed${scorched ? ", scorched" : ""}`,
        shapes: [
          { d: rect(0, 20, 160, 40), fill: scorched ? "#6b4a2c" : "#e0c296" },
          { d: rect(40, 20 + 20 * e.blown, 80, 24 - 20 * e.blown), fill: "#c4471e", opacity: 0.5 + 0.5 * gloss },
          ...(gloss > 0.5 ? [{ d: rect(48, 22 + 20 * e.blown, 64, 2), fill: "#ffffff", opacity: gloss * 0.7 }] : []),
        ],
      },
      next,
    };
  },
};

function fillOf(seed: number, level: number) {
  const r = randomOf(seed * 23 + level);
  const area = 200 + 50 * r.below(20);
  const depth = r1(0.8 + 0.1 * r.below(9));
  const solids = [1, 0.5, 0.35][level - 1] ?? 0.5;
  return { area, depth, solids, phi: level === 3 ? 0.55 : solids };
}
export const fillAndLevel: Exercise = {
  id: "fill",
  name: "Fill and level",
  about: "How much, how often, how flat, so that it ends flush once it has dried.",
  guide: "step-coat",
  kinds: ["coat", "pour-paint", "powder-fill"],
  levels: 3,
  task(seed, level) {
    const t = fillOf(seed, level);
    return {
      says:
        `A recess of ${t.area} mm², ${t.depth} mm deep. What you fill in keeps ${Math.round(100 * t.solids)} % ` +
        `of its volume once it is dry.`,
      facts: ["It may end a third of the depth low at most, and no higher than flush"],
      controls: [
        { id: "ml", label: "Each fill", kind: "number", min: 0.002, max: 3, step: 0.002, unit: "ml", start: 0.02 },
        { id: "fills", label: "Fills", kind: "number", min: 1, max: 8, step: 1, unit: "", start: 1 },
        {
          id: "tilt",
          label: "The piece lies",
          kind: "number",
          min: 0,
          max: 10,
          step: 0.5,
          unit: "° off level",
          start: 3,
        },
      ],
      picture: null,
    };
  },
  judge(seed, level, a) {
    const t = fillOf(seed, level);
    const [ml, n, tilt] = [num(a, "ml"), Math.round(num(a, "fills")), num(a, "tilt")];
    let open = t.depth;
    let spilt = 0;
    for (let i = 0; i < n; i++) {
      const brim = (t.area * open) / 1000;
      const goes = Math.min(ml, brim);
      spilt += Math.max(0, ml - brim);
      open -= (goes * 1000 * t.solids) / t.area;
    }
    const side = Math.sqrt(t.area);
    const slope = Math.tan((tilt * Math.PI) / 180) * side;
    const may = mayStayOpen(t.depth, false);
    const level1 = tilt <= 0.5 || slope <= may;
    const good = open <= may + 1e-9 && spilt < 0.05 * ml * n + 1e-9 && level1;
    const brimful = (t.area * t.depth) / 1000;
    const next: Answer = { ...a };
    const wrong = !level1
      ? "while it dried: it ran to the low side"
      : spilt >= 0.05 * ml * n
        ? "over the rim: more than the recess holds"
        : "once it had dried: it sank";
    const [sunk, leans] = [10 + (30 * open) / t.depth, Math.min(8, (slope / t.depth) * 15)];
    // fills that are as large as the last one still bears, and as many of them as it takes
    const leaves = (k: number): number => (1 - t.solids) / (1 + (k - 1) * t.solids);
    let want = 1;
    while (want < 8 && leaves(want) > (0.85 * may) / t.depth) want++;
    const each = Math.max(0.002, Math.floor((500 * brimful) / (1 + (want - 1) * t.solids)) / 500);
    if (!level1) next.tilt = 0;
    else if (!good && n !== want) next.fills = want;
    else if (!good) next.ml = Math.min(3, each);
    return {
      score: clamp(
        0.5 * near(Math.max(0, open - may), 0.3) + 0.25 * (level1 ? 1 : 0) + 0.25 * near(spilt, brimful * 0.1 + 0.02),
        0,
        1,
      ),
      good,
      says: good ? "Flush, level, nothing wasted." : `It went wrong ${wrong}.`,
      wrongAt: good ? null : wrong,
      figures: [
        ["Left open", `${r2(open)} mm of ${t.depth}, ${r2(may)} may stay`],
        ["Over the rim", `${r2(spilt)} ml`],
        ["High side over low side", `${r2(slope)} mm`],
      ],
      picture: {
        w: 160,
        h: 50,
        label: `Recess, ${r2(open)} mm left open`,
        shapes: [
          { d: rect(0, 10, 160, 40), fill: "#e0c296" },
          { d: rect(40, 10, 80, 30), fill: "#2b1d14" },
          {
            d: `M40 ${sunk - leans}L120 ${sunk + leans}L120 40L40 40Z`,
            fill: "#a8235a",
          },
        ],
      },
      next,
    };
  },
};

function sandOf(seed: number, level: number) {
  const r = randomOf(seed * 29 + level);
  const skin = 40 + 20 * r.below(14);
  const fill = skin + (level === 1 ? 90 : 60) + 10 * r.below(6);
  const veneer = level === 3 ? Math.round((skin + 60 + 10 * r.below(6)) / VENEER_SHARE) : null;
  return { skin, fill, veneer };
}
export const sandBack: Exercise = {
  id: "sand",
  name: "Sand back",
  about: "To bare wood and no further: which grits, how many strokes.",
  guide: "step-sand-back",
  kinds: ["sand-back"],
  levels: 3,
  task(seed, level) {
    const t = sandOf(seed, level);
    return {
      says:
        `${t.skin} µm of paint lie on the face; the fill lies ${t.fill} µm deep.` +
        (t.veneer === null ? "" : ` The face is a veneer of ${t.veneer} µm.`),
      facts: [
        ...GRITS.map((g) => `Grit ${g.grit} takes ${g.umPerStroke} µm a firm stroke`),
        "End with the finest: coarse scratches show",
      ],
      controls: GRITS.map((g, i) => ({
        id: `g${i}`,
        label: `Strokes with ${g.grit}`,
        kind: "number" as const,
        min: 0,
        max: 60,
        step: 1,
        unit: "",
        start: i === 0 ? 40 : 0,
      })),
      picture: null,
    };
  },
  judge(seed, level, a) {
    const t = sandOf(seed, level);
    const strokes = GRITS.map((_g, i) => num(a, `g${i}`));
    const um = strokes.reduce((s, n, i) => s + n * GRITS[i].umPerStroke, 0);
    const most = Math.min(t.fill, t.veneer === null ? Infinity : t.veneer * VENEER_SHARE);
    const through = t.veneer !== null && um > t.veneer * VENEER_SHARE;
    const fine = strokes[2] >= 5;
    const good = um >= t.skin && um < most && fine;
    const wrong = through
      ? "in the veneer: the glue line is near"
      : um >= t.fill
        ? "in the fill: it is sanded out"
        : um < t.skin
          ? "on the face: paint is left"
          : "at the end: coarse scratches show";
    const next: Answer = { ...a };
    // coarse for most of it, finer to finish
    const target = t.skin + Math.min(24, (most - t.skin) / 2);
    const fin = 6 * GRITS[2].umPerStroke;
    const g0 = clamp(Math.floor((target - fin - 20) / GRITS[0].umPerStroke), 0, 60);
    const g1 = clamp(Math.ceil((target - fin - g0 * GRITS[0].umPerStroke) / GRITS[1].umPerStroke), 0, 60);
    if (!good) {
      if (strokes[2] !== 6) next.g2 = 6;
      else if (strokes[0] !== g0) next.g0 = g0;
      else next.g1 = g1;
    }
    return {
      score: clamp(
        0.7 * (um < t.skin ? um / t.skin : um < most ? 1 : near(um - most, most * 0.2)) + (fine ? 0.3 : 0),
        0,
        1,
      ),
      good,
      says: good ? "Bare wood, the fill whole, a fine surface." : `It went wrong ${wrong}.`,
      wrongAt: good ? null : wrong,
      figures: [
        ["Taken off", `${um} µm`],
        ["Bare from", `${t.skin} µm`],
        ["Must stay below", `${Math.round(most)} µm`],
      ],
      picture: null,
      next,
    };
  },
};

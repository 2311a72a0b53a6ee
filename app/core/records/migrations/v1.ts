/**
 * Version 0 to 1. In version 0 a shop had one opening time for all days (`open`, `close`, `days`), its climate was two bare
 * numbers, a job called its title `name`, and its zones stood inside the artwork. Nothing is dropped.
 */
type Rec = Record<string, unknown>;
const rec = (v: unknown): Rec => (v && typeof v === "object" && !Array.isArray(v) ? (v as Rec) : {});
const list = (v: unknown): Rec[] => (Array.isArray(v) ? v.map(rec) : []);
const DAYS = ["mon", "tue", "wed", "thu", "fri", "sat", "sun"];

export function shopV1(old: Rec): Rec {
  const { open, close, days, tempC, humidity, ...rest } = old;
  const working = Array.isArray(days) ? (days as string[]) : DAYS.slice(0, 5);
  const hours = Object.fromEntries(
    DAYS.map((d) => [d, working.includes(d) ? [open ?? "09:00", close ?? "18:00"] : null]),
  );
  return {
    version: 1,
    id: "shop",
    name: "My shop",
    units: "metric",
    currency: "EUR",
    language: "en",
    zone: "UTC",
    hoursSet: open !== undefined,
    daysOff: [],
    tools: [],
    learned: [],
    tolerance: 4,
    demo: null,
    ...rest,
    hours,
    climate: {
      kind: "constant",
      c: tempC ?? 20,
      rh: humidity ?? 0.5,
      hourly: [],
      air: "still",
      measured: tempC !== undefined,
    },
  };
}

export function jobV1(old: Rec): Rec {
  const { name, ...rest } = old;
  const art = old.artwork ? rec(old.artwork) : null;
  const zones = list(art?.zones).map((z) => ({
    smallestMm2: null,
    rows: [],
    outline: "",
    perimeterMm: null,
    narrowestMm: null,
    pieces: null,
    holes: null,
    productId: null,
    bare: false,
    name: z.id,
    ...z,
  }));
  return {
    version: 1,
    client: "",
    use: [],
    due: null,
    machineId: null,
    route: null,
    edits: [],
    waivers: [],
    acknowledged: [],
    plate: null,
    units: "metric",
    language: "en",
    note: "",
    order: { text: "", proofSent: null, proofAccepted: null, delivered: null },
    wrapUp: { good: null, lost: null, score: null, note: "", flaws: [], photos: [], closedAt: null },
    ...rest,
    choices: {
      topId: null,
      sealerId: null,
      whiteId: null,
      clearId: null,
      undercoat: null,
      noClear: false,
      depthMm: null,
      intervalMm: null,
      tolerance: null,
      proof: null,
      handover: null,
      cleaner: "alcohol",
      toolMm: null,
      inverted: null,
      mask: false,
      maskChlorinated: null,
      oldPaint: false,
      sunOrHotAir: false,
      attended: true,
      ...rec(old.choices),
    },
    title: name ?? rest.title,
    artwork: art ? { name: art.name ?? "", svg: art.svg ?? "", w: art.w, h: art.h } : null,
    zones,
  };
}

export const toV1 = (old: Rec): Rec => ({
  ...old,
  shop: shopV1(rec(old.shop)),
  jobs: list(old.jobs).map(jobV1),
  machines: list(old.machines),
  products: list(old.products),
  log: list(old.log),
  photos: list(old.photos),
});

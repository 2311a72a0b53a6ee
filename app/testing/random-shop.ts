/** A shop of chance, and text that must stay text, for tests of everything that comes in and goes out. */
import { keptWith } from "../core/plan/begun";
import { makePlan } from "../core/plan/plan";
import { a1, e1, seeded, SHELF, shop } from "../core/testing/worlds";
import { LogEntry } from "../core/records/log";
import type { ShopRecords } from "../io/export/job-file";

/** what a job that has begun carries */
const BEGUN = () => keptWith(makePlan(e1()), "dust", 1);

/** Text that must stay text wherever it goes. */
export const NASTY = [
  "<script>globalThis.hit=1</script>",
  "javascript:hit=1",
  "=cmd()",
  "../../etc",
  "\u0000\u0007",
  "😀茶",
  '"><img onerror=hit=1>',
  "%s%n",
  "{{7*7}}",
  "'; drop --",
];

/** A whole shop of chance, sound in every field; the same for the same seed. */
export function randomShop(seed: number): ShopRecords {
  const r = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(r() * list.length)];
  const text = (): string => pick(["", "Beet", ...NASTY.filter((x) => !x.includes("\u0000"))]);
  const jobs = Array.from({ length: Math.floor(r() * 4) }, (_, i) => ({
    ...(r() < 0.5 ? e1() : a1()).job,
    id: `job${i}`,
    note: text(),
    client: text(),
    quantity: 1 + Math.floor(r() * 50),
    due: r() < 0.5 ? null : "2027-03-01T12:00",
    edits:
      r() < 0.5
        ? []
        : [
            {
              id: "e",
              op: "set" as const,
              step: "dust",
              after: null,
              field: "minutes",
              value: Math.round(r() * 1e4) / 100,
            },
          ],
    ...(r() < 0.5 ? {} : { credit: text() || "own" }),
  }));
  return {
    shop: shop({
      name: text() || "s",
      tolerance: 1 + Math.round(r() * 50) / 10,
      climate: {
        ...shop().climate,
        ...(r() < 0.5 ? {} : { readings: [{ at: Math.round(r() * 1e6), c: Math.round(r() * 300) / 10, rh: 0.5 }] }),
      },
    }),
    machines: r() < 0.5 ? [] : e1().machines,
    products: SHELF()
      .filter(() => r() < 0.7)
      .map((p) => ({ ...p, note: text(), hideUm: r() < 0.5 ? null : 0.1 + r() * 100 })),
    jobs: jobs.map((j, i) => (i % 2 ? { ...j, begun: { ...BEGUN(), at: i } } : j)),
    log: jobs.flatMap((j, i) =>
      Array.from({ length: Math.floor(r() * 5) }, (_, n) => ({
        ...new LogEntry(),
        id: `l${i}.${n}`,
        jobId: j.id,
        kind: "note" as const,
        step: "dust",
        at: r() * 1e8,
        note: text(),
        ...(n % 3 === 2 ? { kind: "check" as const, tick: text().slice(0, 60) } : {}),
      })),
    ),
    photos: jobs
      .filter(() => r() < 0.3)
      .map((j, i) => ({
        version: 1,
        id: `p${i}`,
        jobId: j.id,
        at: r() * 1e7,
        caption: text(),
        data: Buffer.from([0xff, 0xd8, 0xff, Math.floor(r() * 256)]).toString("base64"),
      })),
  };
}

/** Packets: what goes to the laser at each visit, over every way, read back by readers that are not ours. */
import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { unzipSync } from "fflate";
import { loadClip } from "../../door/kernel";
import { packetFiles, sheetOf, visitJson, zipOf } from "../../io/export/packet";
import { writeDxf, writeSvg } from "../../io/export/vectors";
import { readPixels } from "../../io/import/pixels";
import { testWith } from "../../testing/readers";
import { brief, FULL_SHELF, GEAR } from "../testing/briefs";
import { e1, many, zone } from "../testing/worlds";
import { ringsArea } from "../geometry/blank";
import { ringsOf } from "../geometry/outline";
import { HAIR_MM } from "../geometry/travel";
import { makePlan, type Plan } from "../plan/plan";
import { byBeam, kindOf } from "../process/kinds";
import { mirrored } from "../process/setup";
import { GROUND } from "../piece/state";
import type { World } from "../records/world";
import { beamVisits, nestLayers, onBed, packetName, packets } from "./packet";

/** Zones with outlines that share a border, one of them with a hole. */
const SHAPES = ["M2 2L12 2L12 12L2 12ZM5 5L5 8L8 8L8 5Z", "M12 2L20 2L20 12L12 12Z", "M2 14L14 14L8 20Z"];
function drawn(w: World): World {
  const zones = w.job.zones.map((z, i) => {
    const outline = SHAPES[i % SHAPES.length];
    return { ...z, outline, areaMm2: ringsArea(ringsOf(outline)) };
  });
  return { ...w, job: { ...w.job, zones, artwork: { name: "a", svg: "", w: 22, h: 22 } } };
}
const planOf = (n: number): Plan => makePlan(drawn(brief(n)), null, true);

test("over all ways: a layer belongs to a step of its visit, each zone that is worked is there once a step, all on the bed", async () => {
  const clip = await loadClip();
  let [some, flipped] = [0, 0];
  // two that are worked from the back, and so mirrored
  for (const n of [...Array.from({ length: many(300) }, (_v, k) => k), 234, 235]) {
    const plan = planOf(n);
    const all = packets(plan, clip);
    const beams = plan.placed.filter((p) => byBeam(p.step) && kindOf(p.step.kind).tries !== "setting");
    expect(all.flatMap((v) => v.steps.map((s) => s.id))).toEqual(beams.map((p) => p.step.id));
    for (const v of all) {
      some++;
      if (v.mirrored) flipped++;
      expect(v.mirrored).toBe(mirrored(plan.context));
      for (const s of v.steps) {
        const p = plan.placed.find((x) => x.step.id === s.id)!;
        const mine = v.layers.filter((l) => l.step === s.id);
        const drawnZones = p.step.zones.filter((z) => z !== GROUND);
        const fills = mine.filter((l) => l.how === "fill" && !l.picture).map((l) => l.zone);
        if (fills.length) expect(fills).toEqual(drawnZones);
        expect(mine.length).toBeGreaterThan(0);
      }
      // cut out comes last, the frame first
      const order = v.layers.map((l) => l.purpose);
      expect(order[0]).toBe("frame");
      if (order.includes("cut-out")) expect(order[order.length - 1]).toBe("cut-out");
      const size = v.bedSize ?? v.piece;
      for (const [i] of (v.bed?.loads ?? [[]]).entries())
        for (const { layer, paths } of onBed(v, i))
          for (const p of paths) {
            if (layer.how === "fill") expect(p.closed).toBe(true);
            for (const [k, [x, y]] of p.points.entries()) {
              expect(Math.min(x, y, size.w - x, size.h - y)).toBeGreaterThan(-0.1);
              const q = p.points[(k + 1) % p.points.length];
              if (p.closed || k < p.points.length - 1)
                expect(Math.hypot(x - q[0], y - q[1])).toBeGreaterThanOrEqual(HAIR_MM * 0.99);
            }
          }
    }
  }
  expect(Math.min(some, flipped)).toBeGreaterThan(0);
});
test("areas of what is filled are the zones’ own; mirrored twice it lies as it was", async () => {
  const clip = await loadClip();
  for (let n = 0; n < many(60); n++) {
    const plan = planOf(n);
    for (const v of packets(plan, clip))
      for (const l of v.layers.filter((x) => x.how === "fill" && x.zone && !x.picture)) {
        const z = plan.context.job.zones.find((x) => x.id === l.zone)!;
        expect(ringsArea(l.paths.map((p) => p.points))).toBeCloseTo(z.areaMm2, 6);
      }
    const w = plan.context.world;
    const turned = makePlan(
      { ...w, job: { ...w.job, choices: { ...w.job.choices, mirrored: !mirrored(plan.context) } } },
      null,
      true,
    );
    const [a, b] = [packets(plan, clip), packets(turned, clip)];
    const width = w.job.substrate.w;
    a.forEach((v, i) =>
      v.layers.forEach((l, k) => {
        if (l.how !== "fill") return;
        const back = b[i]?.layers[k].paths.map((p) => p.points.map(([x, y]) => [width - x, y]));
        back?.forEach((ring, r) =>
          ring.forEach(([x, y], q) => {
            expect(x).toBeCloseTo(l.paths[r].points[q][0], 4);
            expect(y).toBeCloseTo(l.paths[r].points[q][1], 4);
          }),
        );
      }),
    );
  }
});

const masked = (): World => {
  const w = e1({ products: FULL_SHELF(), shop: { gear: GEAR() } });
  const zones = [zone("left", "e-rust"), zone("right", "e-rust")];
  return drawn({
    ...w,
    job: { ...w.job, route: "D1", quantity: 9, choices: { ...w.job.choices, begin: undefined }, zones },
  });
};
test("a mask is cut along a border once; its two zones are one layer; settings stand in the machine’s units and plain ones", async () => {
  const clip = await loadClip();
  const plan = makePlan(masked(), null, true);
  const all = packets(plan, clip);
  const cut = all.flatMap((v) => v.layers).filter((l) => l.purpose === "cut-mask" || l.how === "line");
  for (const l of cut) {
    const seen = new Set<string>();
    for (const p of l.paths)
      p.points.forEach((a, i) => {
        if (!p.closed && i === p.points.length - 1) return;
        const edge = [a, p.points[(i + 1) % p.points.length]]
          .map((q) => q.map((x) => x.toFixed(2)).join(" "))
          .sort()
          .join("|");
        expect(seen.has(edge)).toBe(false);
        seen.add(edge);
      });
  }
  const json = visitJson(plan, all[0], 0) as {
    layers: { setting: Record<string, number> | null; purpose: string }[];
    pieces: unknown[];
  };
  const burnt = json.layers.find((l) => l.purpose !== "frame")!;
  expect(burnt.setting!.powerPercent).toBeGreaterThan(0);
  expect(burnt.setting!.watts).toBeCloseTo((40 * burnt.setting!.powerPercent) / 100, 0);
  expect(json.pieces.length).toBe(all[0].bed!.loads[0].length);
  expect(packetName(plan, all[0])).toMatch(/^a-job_visit-1_[a-z-]+_\d+pcs$/);
});
test("a mask opens as wide as its zone: half the cut within it, a shared border where it was", async () => {
  const clip = await loadClip();
  const squares = ["M2 2L12 2L12 12L2 12Z", "M12 2L20 2L20 12L12 12Z"];
  const cutOf = (n: number) => {
    const w = drawn(brief(n));
    const zones = w.job.zones.slice(0, 2).map((z, i) => ({ ...z, outline: squares[i], areaMm2: [100, 80][i] }));
    const plan = makePlan({ ...w, job: { ...w.job, zones } }, null, true);
    const layers = packets(plan, clip).flatMap((v) => v.layers);
    return { w, zones, cut: layers.filter((l) => l.purpose === "cut-mask" && l.zone === null) };
  };
  const { w, cut } = Array.from({ length: 400 }, (_v, n) => n)
    .map(cutOf)
    .find((x) => x.zones.length === 2 && x.cut.length && !mirrored(makePlan(x.w, null, true).context))!;
  const [ox, oy] = [(w.job.substrate.w - 22) / 2, (w.job.substrate.h - 22) / 2];
  const xs = cut.flatMap((l) => l.paths.flatMap((p) => p.points.map((q) => q[0] - ox)));
  const ys = cut.flatMap((l) => l.paths.flatMap((p) => p.points.map((q) => q[1] - oy)));
  for (const [got, want] of [
    [Math.min(...xs), 2.05],
    [Math.max(...xs), 19.95],
    [Math.min(...ys), 2.05],
    [Math.max(...ys), 11.95],
  ])
    // prettier-ignore
    expect(got).toBeCloseTo(want, 4);
  expect(xs.some((x) => Math.abs(x - 12) < 1e-4)).toBe(true);
});
test("what is lifted after a visit is mapped as the piece lies, each zone that opens once before the next colour", async () => {
  const clip = await loadClip();
  let [maps, flipped] = [0, 0];
  for (const n of [...Array.from({ length: many(150) }, (_v, k) => k), 234, 235]) {
    const plan = planOf(n);
    const all = packets(plan, clip);
    for (const v of all)
      for (const m of v.weeding) {
        maps++;
        const p = plan.placed.find((x) => x.step.id === m.step)!;
        const off = p.before.zones.filter((z) => z.mask && !p.after.zones.find((x) => x.zone === z.zone)!.mask);
        const names = off.flatMap((z) => plan.context.job.zones.find((x) => x.id === z.zone)?.name ?? []);
        expect(m.opens.map((z) => z.name).sort()).toEqual(names.sort());
        expect(m.mirrored).toBe(v.mirrored);
        if (m.mirrored) flipped++;
      }
  }
  expect(maps).toBeGreaterThan(0);
  expect(flipped).toBeGreaterThanOrEqual(0);
});
test("a nest has its job’s name scored where no opening lies, and goes without where there is no room", async () => {
  const clip = await loadClip();
  const plan = planOf(3);
  const [v] = packets(plan, clip);
  const title: [number, number][][] = [[[5, 5], [25, 5], [25, 9], [5, 9]]]; // prettier-ignore
  const of = (bed: { w: number; h: number }, x = 0, y = 0) =>
    nestLayers(
      { ...v, bedSize: bed, bed: { turned: false, across: 1, down: 1, perLoad: 1, loads: [[{ piece: 1, x, y }]] } },
      plan.context,
      clip,
      0,
      title,
    );
  const { w, h } = plan.context.job.substrate;
  const free = of({ w: w + 60, h: h + 60 }, 20, 20);
  expect(free.map((l) => l.layer.purpose)).toEqual(["marks", "score", "nest"]);
  expect(free[1].paths[0].points[0][1]).toBe(2);
  const below = of({ w: w + 60, h: h + 20 }, 5, 0);
  expect(below[1].paths[0].points[0][1]).toBe(h + 20 - 2 - 4);
  expect(of({ w: w + 1, h: h + 1 }).map((l) => l.layer.purpose)).toEqual(["marks", "nest"]);
});
test("the same job makes the same bytes, twice; a zip holds drawings, settings and the nest", async () => {
  const clip = await loadClip();
  const once = async () => {
    const plan = makePlan(masked(), null, true);
    return zipOf({ "visit-1": await packetFiles(plan, packets(plan, clip)[0], clip) });
  };
  const [a, b] = [await once(), await once()];
  expect(Buffer.compare(Buffer.from(a), Buffer.from(b))).toBe(0);
  const names = Object.keys(unzipSync(a));
  for (const end of [".svg", ".dxf", ".json", "_nest.svg", "_nest.dxf"])
    expect(names.some((n) => n.endsWith(end))).toBe(true);
});
test("trap: colours that come later run under the earlier ones by what the placing may err", async () => {
  const clip = await loadClip();
  const w = masked();
  const zones = [zone("left", "p-plum"), zone("right", "p-straw")];
  const powder = drawn({
    ...w,
    products: FULL_SHELF(),
    job: {
      ...w.job,
      route: "D3",
      zones: zones.map((z, i) => ({
        ...z,
        productId: FULL_SHELF().filter((p) => p.finish === "powder")[i]?.id ?? null,
      })),
    },
  });
  const at = (trap: boolean) => {
    const plan = makePlan({ ...powder, job: { ...powder.job, choices: { ...powder.job.choices, trap } } }, null, true);
    return packets(plan, clip).map((v) => v.layers.filter((l) => l.purpose === "cut-mask" || l.purpose === "engrave"));
  };
  const [plain, run] = [at(false), at(true)];
  expect(run.length).toBe(plain.length);
  if (plain.length > 1) {
    const grew = run
      .slice(1)
      .flat()
      .some((l, i) => {
        const q = plain.slice(1).flat()[i];
        return ringsArea(l.paths.map((p) => p.points)) > ringsArea(q.paths.map((p) => p.points)) + 1;
      });
    expect(grew).toBe(true);
  }
});
test("a visit is over when the piece is taken away", () => {
  for (let n = 0; n < many(60); n++) {
    const plan = planOf(n);
    for (const [k, v] of beamVisits(plan).entries()) {
      if (!k) continue;
      const before = beamVisits(plan)[k - 1];
      const between = plan.placed.slice(before[before.length - 1].index + 1, v[0].index);
      expect(between.some((p) => !kindOf(p.step.kind).stays)).toBe(true);
    }
  }
});

testWith("ezdxf")("an outside reader finds a DXF sound: no faults, layers by purpose, the same areas", async () => {
  const clip = await loadClip();
  const dir = mkdtempSync(join(tmpdir(), "packet-"));
  for (const n of [0, 7, 19, 33, 58]) {
    const plan = planOf(n);
    const [v] = packets(plan, clip);
    if (!v) continue;
    const sheet = sheetOf(plan, v, 0);
    const file = join(dir, `${n}.dxf`);
    writeFileSync(file, writeDxf(sheet));
    const script = `
import ezdxf, json, sys
d = ezdxf.readfile(sys.argv[1]); a = d.audit(); out = {}
for e in d.modelspace().query("POLYLINE"):
    p = [v.dxf.location for v in e.vertices]
    s = sum(p[i-1].x*p[i].y - p[i].x*p[i-1].y for i in range(len(p)))/2
    o = out.setdefault(e.dxf.layer, [0, 0, 0]); o[0] += 1; o[1] += abs(s) if e.is_closed else 0; o[2] += len(p)
print(json.dumps({"errors": len(a.errors), "fixes": len(a.fixes), "layers": out}))`;
    const said = JSON.parse(spawnSync("/usr/bin/python3", ["-c", script, file], { encoding: "utf8" }).stdout) as {
      errors: number;
      fixes: number;
      layers: Record<string, [number, number, number]>;
    };
    expect([said.errors, said.fixes]).toEqual([0, 0]);
    for (const { layer, paths } of sheet.layers) {
      if (!paths.length) continue;
      const [count, mm2, corners] =
        said.layers[
          layer.id
            .toUpperCase()
            .replace(/[^A-Z0-9_-]/g, "_")
            .slice(0, 31)
        ];
      expect(count).toBe(paths.length);
      expect(corners).toBe(paths.reduce((a, p) => a + p.points.length, 0));
      const ours = paths.filter((p) => p.closed).reduce((a, p) => a + Math.abs(ringsArea([p.points])), 0);
      expect(Math.abs(mm2 - ours)).toBeLessThanOrEqual(1e-3 * ours + 0.01);
    }
  }
});
testWith("rsvg")(
  "an outside rasteriser fills what the zones are: at 0.05 mm a pixel one in a thousand may differ",
  async () => {
    const clip = await loadClip();
    const dir = mkdtempSync(join(tmpdir(), "packet-"));
    let compared = 0;
    for (const n of [3, 12, 40]) {
      const plan = planOf(n);
      const v = packets(plan, clip).find((x) => x.layers.some((l) => l.how === "fill" && !l.picture && l.zone));
      if (!v) continue;
      const layers = v.layers
        .filter((l) => l.how === "fill" && !l.picture && l.zone)
        .map((layer) => ({ layer, paths: layer.paths }));
      const [w, h] = [Math.min(60, v.piece.w), Math.min(60, v.piece.h)];
      const [svg, png] = [join(dir, `${n}.svg`), join(dir, `${n}.png`)];
      writeFileSync(svg, writeSvg({ w, h, title: "t", layers }));
      const scale = 20;
      spawnSync("rsvg-convert", [
        "-w",
        String(w * scale),
        "-h",
        String(h * scale),
        "--background-color",
        "white",
        "-o",
        png,
        svg,
      ]);
      const px = readPixels(readFileSync(png));
      const rings = layers.map((l) => l.paths.map((p) => p.points));
      let differ = 0;
      for (let y = 0; y < px.h; y++) {
        const row = px.row(y);
        // where the middle of a row of pixels crosses each layer's edges
        const cross = rings.map((of) =>
          of
            .flatMap((r) =>
              r.flatMap(([x1, y1], k) => {
                const [x2, y2] = r[(k + 1) % r.length];
                const at = (y + 0.5) / scale;
                return y1 > at !== y2 > at ? [(x1 + ((x2 - x1) * (at - y1)) / (y2 - y1)) * scale] : [];
              }),
            )
            .sort((a, b) => a - b),
        );
        for (let x = 0; x < px.w; x++) {
          const inked = row[x * px.channels] / px.max < 0.5;
          const meant = cross.some((xs) => xs.filter((v) => v < x + 0.5).length % 2 === 1);
          if (inked !== meant) differ++;
        }
      }
      expect(differ / (px.w * px.h)).toBeLessThan(0.001);
      compared++;
    }
    expect(compared).toBeGreaterThan(0);
  },
);

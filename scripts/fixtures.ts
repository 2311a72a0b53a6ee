/**
 * Writes the frozen exports once (a file that is there already is never written again), and what measuring gives for
 * the sample's drawings, and its pictures.
 */
import "reflect-metadata";
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { keptScene, SCENES } from "../app/demo/scenes";
import { loadClip } from "../app/door/kernel";
import { readZones, type FoundArtwork } from "../app/core/vector/zones";
import { jobFile, writeFile } from "../app/io/export/job-file";
import { packetsTold } from "../app/testing/packets";
import { zonedClock } from "../app/core/time/zoned";

writeFileSync(
  "app/demo/pictures.json",
  `${JSON.stringify(Object.fromEntries((Object.keys(SCENES) as (keyof typeof SCENES)[]).map((n) => [n, keptScene(n)])), null, 1)}\n`,
);
const { buildSample } = await import("../app/demo/build");
const clip = await loadClip();
const now = zonedClock("Europe/Lisbon").fromLocal("2027-01-13T11:20");
const drawings = new Map<string, FoundArtwork>();
const sample = await buildSample(now, "Europe/Lisbon", async (svg) => {
  const found = readZones(clip, svg);
  drawings.set(svg, found);
  return found;
});
writeFileSync(
  "app/demo/drawings.json",
  `[\n${[...drawings].map(([svg, found]) => JSON.stringify({ svg, found })).join(",\n")}\n]\n`,
);
mkdirSync("fixtures/v1", { recursive: true });
for (const j of sample.jobs) {
  const path = `fixtures/v1/${j.id}.richlayer.json`;
  if (!existsSync(path)) writeFileSync(path, writeFile(jobFile(sample, j.id)));
}
mkdirSync("fixtures/packets", { recursive: true });
for (const name of readdirSync("fixtures/v1")) {
  const path = `fixtures/packets/${name.replace(".richlayer", "")}`;
  const { packets } = await packetsTold(readFileSync(`fixtures/v1/${name}`, "utf8"), clip);
  if (!existsSync(path)) writeFileSync(path, `${JSON.stringify(packets, null, 1)}\n`);
}

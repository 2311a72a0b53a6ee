/**
 * `node scripts/picture.mjs`: draws docs/architecture.svg, the rooms of the house from the ground up, with what each holds, how many
 * lines it has, and which rooms it really imports from (read off the files by the import checker).
 */
import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";
import { root } from "./setup.mjs";

const { CORE, APP, HOLDS } = createRequire(import.meta.url)("./rooms.cjs");

const cruised = JSON.parse(
  execFileSync("node_modules/.bin/depcruise", ["app", "--config", ".dependency-cruiser.cjs", "--output-type", "json"], {
    cwd: root,
    encoding: "utf8",
    maxBuffer: 1e9,
  }),
);
/** the room that a file lies in; null: none of ours */
const roomOf = (path) => {
  const [top, second] = path.replace(/^app\//, "").split("/");
  if (!path.startsWith("app/")) return null;
  if (top === "core") return CORE.includes(second) ? `core/${second}` : null;
  const name = top.replace(/\.tsx?$/, "");
  return APP.includes(name) ? name : null;
};
const isTest = (path) => /\.test\.tsx?$/.test(path);
const rooms = new Map([...CORE.map((r) => `core/${r}`), ...APP].map((r) => [r, { lines: 0, from: new Map() }]));
for (const m of cruised.modules) {
  const room = roomOf(m.source);
  if (!room || isTest(m.source)) continue;
  rooms.get(room).lines += readFileSync(join(root, m.source), "utf8").split("\n").length;
  for (const d of m.dependencies) {
    const from = roomOf(d.resolved);
    if (from && from !== room) rooms.get(room).from.set(from, (rooms.get(room).from.get(from) ?? 0) + 1);
  }
}

const W = 1240;
const ROW = 42;
const esc = (s) => s.replace(/&/g, "&amp;").replace(/</g, "&lt;");
const text = (x, y, s, how = "") => `<text x="${x}" y="${y}" ${how}>${esc(s)}</text>`;
/** a tower of rooms, the first at the bottom */
function tower(list, prefix, x, w, y0, title) {
  const out = [text(x, y0 - 12, title, 'class="t"')];
  [...list].reverse().forEach((name, i) => {
    const { lines, from } = rooms.get(prefix + name);
    const y = y0 + i * ROW;
    const first = list.filter((r) => from.has(prefix + r)).reverse();
    const core = !prefix && [...from.keys()].some((r) => r.startsWith("core/"));
    const says = core ? [...first, "core"] : first;
    out.push(
      `<rect x="${x}" y="${y}" width="${w}" height="${ROW - 6}" rx="5"/>`,
      text(x + 10, y + 16, name, 'class="n"'),
      text(x + 108, y + 16, HOLDS[name], 'class="h"'),
      text(x + w - 10, y + 16, `${lines.toLocaleString("en")} lines`, 'class="c" text-anchor="end"'),
      text(x + 108, y + 30, says.length ? `from ${says.join(", ")}` : "from no other room", 'class="f"'),
    );
  });
  return out.join("\n");
}
const above = APP.filter((r) => r !== "core");
const H = 70 + CORE.length * ROW + 20;
const label = "The rooms of the house, each importing from those below it only";
const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${W} ${H}" role="img" aria-label="${label}">
<style>
svg{font:12px system-ui,sans-serif;background:#fbf8fc}
rect{fill:#fff;stroke:#8a6f9c}
.t{font-weight:700;font-size:15px;fill:#3c2250}
.n{font-weight:700;fill:#3c2250}
.h{fill:#2b2430}
.c,.f{font-size:10.5px;fill:#6a5c72}
</style>
${tower(CORE, "core/", 20, 600, 50, "The core: no interface, no clock, no chance")}
${tower(above, "", 640, 580, 50, "Around it: whatever touches the browser")}
</svg>
`;
writeFileSync(join(root, "docs/architecture.svg"), svg);

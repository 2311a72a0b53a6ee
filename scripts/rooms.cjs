/**
 * The rooms of the house, from the ground up: each may import from those below it and from nothing else. One list, read by the
 * import checks and by the picture in docs/architecture.md.
 */
/** rooms of the core */
const CORE = [
  "units",
  "time",
  "records",
  "models",
  "tone",
  "catalogue",
  "vector",
  "geometry",
  "piece",
  "process",
  "schedule",
  "plan",
  "judge",
  "explain",
  "bench",
  "practice",
  "testing",
];
/** packages that the core may use */
const CORE_PACKAGES = [
  "class-validator",
  "class-transformer",
  "reflect-metadata",
  "temporal-polyfill",
  "culori",
  "saxes",
  "svgpath",
  "clipper2-wasm",
  "flatqueue",
  "flatbush",
];
/** everything else; `core` stands beneath all of it, and only those above the clock may ask for the time */
const APP = [
  "core",
  "io",
  "simulators",
  "clock",
  "store",
  "workers",
  "testing",
  "door",
  "demo",
  "acts",
  "views",
  "ui",
  "routes",
];
/** rooms that lie side by side: neither may import the other, though one stands first in the list */
const APART = [
  ["io", "store"],
  ["simulators", "store"],
  ["store", "workers"],
  ["acts", "views"],
  ["store", "views"],
  ["store", "ui"],
  ["acts", "ui"],
  ["clock", "views"],
];
/** what each holds, in a few words */
const HOLDS = {
  units: "lengths, temperatures, volumes: typed text in, words out",
  time: "local time of the shop, its hours",
  records: "what is kept: one record a file, with its migrations",
  models: "one formula a file: numbers in, numbers out",
  tone: "pixels: resampled, toned, made into dots, uncovered",
  catalogue: "rows: finishes, materials, beams, routes, schools",
  vector: "drawings in: outlines, clipping, zones",
  geometry: "where artwork lies, mirrored, round a body, gaps",
  piece: "the state of a piece: films, cuts, masks, heat",
  process: "kinds of step with their traits; what must be dry",
  schedule: "shared hands and machines: searches, bounds, proof",
  plan: "brief to steps, edits, placed in time, amounts",
  judge: "one rule a file: findings with numbers and fixes",
  explain: "why this number; work card; figures of a step",
  bench: "the log folded into what is true now; ways out",
  practice: "exercises on the core’s own models, flaws drawn",
  testing: "made-up shops and jobs for tests",
  io: "files in and out, pure over bytes",
  simulators: "stand-ins for outside things",
  clock: "the only place that asks for the time",
  store: "the only place that knows the database; undo",
  workers: "what takes long, off the main thread",
  door: "the core on a command line",
  demo: "the sample shop",
  acts: "what a maker does: one act a function, its form a class",
  views: "what a screen shows: plans into words, pure",
  ui: "components, by what they show",
  routes: "loaders, actions, pages",
};
module.exports = {
  HOLDS,
  CORE,
  CORE_PACKAGES,
  APP,
  APART,
};

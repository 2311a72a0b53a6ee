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
module.exports = { CORE, CORE_PACKAGES, APP, APART };

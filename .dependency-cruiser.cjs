/** One-way dependencies: every room imports from the rooms below it only. The rooms: scripts/rooms.cjs; why: docs/architecture.md. */
const { CORE, CORE_PACKAGES, APP, APART } = require("./scripts/rooms.cjs");

const TEST = "\\.test\\.tsx?$";
/** A rule for what ships; tests may look anywhere in the app. */
const never = (name, from, to, comment) => ({
  name,
  severity: "error",
  comment,
  from: { ...from, pathNot: [TEST, ...(from.pathNot ? [from.pathNot] : [])] },
  to,
});
const within = (rooms) => rooms.join("|");
/** Each room of a list against those above it. */
const upward = (base, rooms, ending) =>
  rooms
    .slice(0, -1)
    .map((room, i) =>
      never(
        `${room}-below`,
        { path: `^${base}/${room}${ending}` },
        { path: `^${base}/(${within(rooms.slice(i + 1))})${ending}` },
        `${room} lies beneath ${rooms.slice(i + 1).join(", ")}`,
      ),
    );

module.exports = {
  forbidden: [
    ...upward("app/core", CORE, "/"),
    ...upward("app", APP, "(/|\\.tsx?$)"),
    ...APART.map(([a, b]) =>
      never(
        `${b}-apart-from-${a}`,
        { path: `^app/${b}(/|\\.tsx?$)` },
        { path: `^app/${a}(/|\\.tsx?$)` },
        `${b} and ${a} know nothing of one another`,
      ),
    ),
    never(
      "core-packages",
      { path: "^app/core" },
      { pathNot: `^app/core|node_modules/(@types/)?(${CORE_PACKAGES.join("|")})/` },
      "the core imports the core and a short list of packages",
    ),
    never(
      "core-rooms-known",
      { path: "^app/core/", pathNot: `^app/core/(${within(CORE)})/` },
      {},
      "a new room of the core gets its place in scripts/rooms.cjs",
    ),
    never(
      "testing-only-in-tests",
      { path: "^app", pathNot: "^app(/core)?/testing/" },
      { path: "^app(/core)?/testing/" },
      "what is there for tests ships with nothing",
    ),
    {
      name: "no-e2e-in-app",
      severity: "error",
      comment: "neither the app nor its tests know anything of the journeys",
      from: { path: "^app" },
      to: { path: "^e2e" },
    },
    never(
      "dexie-only-in-store",
      { path: "^app", pathNot: "^app/store" },
      { path: "node_modules/dexie/" },
      "one database",
    ),
    { name: "no-circular", severity: "error", from: { path: "^app", pathNot: TEST }, to: { circular: true } },
  ],
  options: {
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    doNotFollow: { path: "node_modules" },
    exclude: { path: "^\\.react-router" },
  },
};

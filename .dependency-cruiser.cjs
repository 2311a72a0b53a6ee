/** One-way dependencies: core <- io, store, workers <- ui <- routes. See docs/architecture.md. */
const never = (name, from, to, comment) => ({
  name,
  severity: "error",
  comment,
  from: { path: from },
  to: { path: to },
});
module.exports = {
  forbidden: [
    never(
      "core-is-pure",
      "^app/core",
      "^app/(store|workers|io|ui|routes|demo|root)|node_modules/(react|react-dom|react-router|dexie|radix-ui|comlink)/",
      "the core knows no screen, store or worker",
    ),
    never(
      "io-below-store",
      "^app/io",
      "^app/(store|workers|ui|routes)",
      "readers and writers are pure functions over bytes",
    ),
    never("store-below-ui", "^app/(store|workers|demo)", "^app/(ui|routes)", "records do not know screens"),
    never("ui-does-not-store", "^app/ui", "^app/(store|routes)", "components get data from routes"),
    {
      name: "dexie-only-in-store",
      severity: "error",
      from: { path: "^app", pathNot: "^app/store" },
      to: { path: "node_modules/dexie/" },
    },
    { name: "no-circular", severity: "error", from: { path: "^app" }, to: { circular: true } },
  ],
  options: {
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    doNotFollow: { path: "node_modules" },
    exclude: { path: "\\.test\\.tsx?$|^\\.react-router" },
  },
};

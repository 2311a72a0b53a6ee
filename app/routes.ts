import { index, layout, prefix, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  route("do", "routes/do.ts"),
  route("palette", "routes/palette.ts"),
  layout("routes/shell.tsx", [
    index("routes/today.tsx"),
    ...prefix("jobs", [
      index("routes/jobs.tsx"),
      route("new", "routes/job-new.tsx"),
      route(":id", "routes/job.tsx", [
        index("routes/job-home.tsx"),
        route("brief", "routes/job-brief.tsx"),
        route("artwork", "routes/job-artwork.tsx"),
        route("picture", "routes/job-picture.tsx"),
        route("route", "routes/job-route.tsx"),
        route("layers", "routes/job-layers.tsx"),
        route("calendar", "routes/job-calendar.tsx"),
        route("test", "routes/job-test.tsx"),
        route("files", "routes/job-files.tsx"),
        route("cost", "routes/job-cost.tsx"),
        route("wrap-up", "routes/job-wrap-up.tsx"),
      ]),
    ]),
    route("calendar", "routes/calendar.tsx"),
    route("shelf", "routes/shelf.tsx"),
    route("workshop/:part?", "routes/workshop.tsx"),
    route("guide", "routes/guide.tsx"),
    route("guide/:topic", "routes/guide-page.tsx"),
    route("bench-log", "routes/bench-log.tsx"),
    route("practice", "routes/practice.tsx"),
    route("practice/:id", "routes/exercise.tsx"),
    route("settings", "routes/settings.tsx"),
    route("find", "routes/find.tsx"),
    route("compare", "routes/compare.tsx"),
  ]),
  route("jobs/:id/bench", "routes/job-bench.tsx"),
  route("*", "routes/nowhere.tsx"),
] satisfies RouteConfig;

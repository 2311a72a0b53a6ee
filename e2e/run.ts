/** Serves the build and walks the real interface in headless Chromium. `npm run e2e -- text` runs the journeys whose name holds it. */
import { build } from "../scripts/setup.mjs";
import { serve } from "../scripts/serve.mjs";
import { runAll } from "./support/suite";
// the longest first, so that all lanes end together
import "./kill";
import "./access";
import "./whole-job";
import "./layers";
import "./records";
import "./trust";
import "./routes";

build();
const { server, url } = await serve(0);
const begun = Date.now();
const { passed, failed } = await runAll(url, process.argv.slice(2));
server.close();
console.log(`${passed} passed, ${failed} failed (${((Date.now() - begun) / 1000).toFixed(0)} s)`);
process.exit(failed ? 1 : 0);

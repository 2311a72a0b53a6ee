/** `npm run demo`: install what is missing, build, serve, print the address. */
import { build, install } from "./setup.mjs";

install();
build();
const { serve } = await import("./serve.mjs");
const wanted = Number(process.env.PORT ?? 4747);
let running;
try {
  running = await serve(wanted);
} catch (e) {
  if (e.code !== "EADDRINUSE" || process.env.PORT) {
    process.stderr.write(`Port ${wanted} cannot be used (${e.code}). Set PORT to another one.\n`);
    process.exit(1);
  }
  running = await serve(0);
}
console.log(`Rich Layer: ${running.url}`);
for (const s of ["SIGINT", "SIGTERM"])
  process.on(s, () => running.server.close(() => process.exit(0)) && setTimeout(() => process.exit(0), 300));

/** Serves the built app: folders first, then the app shell. Loopback only, with a content security policy on every response. */
import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import { join } from "node:path";
import sirv from "sirv";
import { root } from "./setup.mjs";

/** Every inline script of the shell, by hash: the build writes new ones each time. */
function hashes(dir) {
  const html = readFileSync(join(dir, "index.html"), "utf8");
  return [...html.matchAll(/<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g)].map(
    (m) => `'sha256-${createHash("sha256").update(m[1]).digest("base64")}'`,
  );
}
const policy = (scripts) =>
  [
    "default-src 'self'",
    `script-src 'self' ${scripts.join(" ")}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "connect-src 'self'",
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
/** The polygon kernel's glue makes functions from text; only the worker that runs it may. */
const KERNEL = "default-src 'self'; script-src 'self' 'unsafe-eval' 'wasm-unsafe-eval'";

/** @param dir the built app @returns the server and its address, once it listens */
export function serve(port = 0, dir = join(root, "build/client")) {
  const page = policy(hashes(dir));
  const files = sirv(dir, {
    single: true,
    etag: true,
    gzip: true,
    setHeaders: (res, path) => {
      res.setHeader("Cache-Control", path.startsWith("/assets/") ? "public, max-age=31536000, immutable" : "no-cache");
      res.setHeader("X-Content-Type-Options", "nosniff");
      res.setHeader("Referrer-Policy", "no-referrer");
      res.setHeader("Content-Security-Policy", /^\/assets\/(zones|packets)\.worker/.test(path) ? KERNEL : page);
    },
  });
  const server = createServer((req, res) =>
    files(req, res, () => {
      res.statusCode = 404;
      res.end("Not found");
    }),
  );
  return new Promise((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", () => resolve({ server, url: `http://127.0.0.1:${server.address().port}/` }));
  });
}

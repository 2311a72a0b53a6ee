/** Serves the built app: folders first, then the app shell. Loopback only. */
import { createServer } from "node:http";
import { join } from "node:path";
import sirv from "sirv";
import { root } from "./setup.mjs";

/** @returns the server and its address, once it listens */
export function serve(port = 0) {
  const files = sirv(join(root, "build/client"), { single: true, etag: true, gzip: true, setHeaders: (res, path) => {
    res.setHeader("Cache-Control", path.startsWith("/assets/") ? "public, max-age=31536000, immutable" : "no-cache");
    res.setHeader("X-Content-Type-Options", "nosniff");
    res.setHeader("Referrer-Policy", "no-referrer");
  } });
  const server = createServer((req, res) => files(req, res, () => { res.statusCode = 404; res.end("Not found"); }));
  return new Promise((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", () => resolve({ server, url: `http://127.0.0.1:${server.address().port}/` }));
  });
}

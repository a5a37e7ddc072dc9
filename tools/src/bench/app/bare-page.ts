import { existsSync, readFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import { extname, join } from "node:path";
import { gzipSync } from "node:zlib";
import { ROOT } from "../../paths";
import { exportWeb, keepOnDevice } from "../../site/web-build";
import { TINY } from "../size";

const TYPES: Record<string, string> = {
  ".html": "text/html; charset=utf-8",
  ".js": "text/javascript; charset=utf-8",
  ".css": "text/css; charset=utf-8",
};

/**
 * An almost empty page with the same stack, built and served like ours: compressed, with a service worker. In a trial run our
 * page replaces it, because a second build would take most of the time.
 */
export async function openBarePage(ours: string): Promise<{ url: string; close(): Promise<void> }> {
  if (TINY) return { url: ours, close: () => Promise.resolve() };
  const root = join(ROOT, ".cravix", "bare");
  await exportWeb(root, join(ROOT, "tools", "bare-page"));
  await keepOnDevice(root);
  const packed = new Map<string, Buffer>();
  const server: Server = createServer((request, response) => {
    const path = new URL(request.url ?? "/", "http://localhost").pathname;
    const name = existsSync(join(root, path)) && extname(path) !== "" ? path : "/index.html";
    const body = packed.get(name) ?? gzipSync(readFileSync(join(root, name)));
    packed.set(name, body);
    response.writeHead(200, {
      "content-type": TYPES[extname(name)] ?? "application/octet-stream",
      "content-encoding": "gzip",
      "cache-control": name.startsWith("/_expo/") ? "public, max-age=31536000, immutable" : "no-cache",
    });
    response.end(body);
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const { port } = server.address() as { port: number };
  return {
    url: `http://localhost:${port}`,
    close: () => new Promise((resolve) => server.close(() => resolve())),
  };
}

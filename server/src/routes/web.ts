import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { serveStatic } from "@hono/node-server/serve-static";
import { Hono } from "hono";

/** The built interface. Files with a content hash in their name never change; everything else is asked for again. */
export function webRoutes(root: string) {
  return new Hono()
    .use(
      "*",
      serveStatic({
        root,
        onFound: (path, c) => {
          c.header(
            "cache-control",
            path.includes("/_expo/") || /\.[0-9a-f]{32}\./.test(path)
              ? "public, max-age=31536000, immutable"
              : "no-cache",
          );
        },
      }),
    )
    .get("*", async (c) =>
      c.html(await readFile(join(root, "index.html"), "utf8"), 200, { "cache-control": "no-cache" }),
    );
}

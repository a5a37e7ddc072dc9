import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { serveStatic } from "@hono/node-server/serve-static";
import { Hono } from "hono";

/** The built interface. Files with a content hash in their name never change; everything else is asked for again. */
export function webRoutes(root: string) {
  return (
    new Hono()
      .use(
        "*",
        serveStatic({
          root,
          // Packed once, by the build.
          precompressed: true,
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
      // A page of the interface has no ending in its address: what has one and is not here is not here, and no page in its place.
      .get("*", async (c, next) => {
        const { path } = c.req;
        if (path.startsWith("/_expo/") || path.startsWith("/assets/") || /\.[a-z0-9]{1,12}$/i.test(path))
          return next();
        return c.html(await readFile(join(root, "index.html"), "utf8"), 200, { "cache-control": "no-cache" });
      })
  );
}

import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { serveStatic } from "@hono/node-server/serve-static";
import { Hono } from "hono";

/** The built interface. Files with a content hash in their name never change; others are revalidated. */
export function webRoutes(root: string) {
  return (
    new Hono()
      .use(
        "*",
        serveStatic({
          root,
          // Compressed by the build.
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
      // Page addresses have no extension: a missing file gives 404 rather than a page.
      .get("*", async (c, next) => {
        const { path } = c.req;
        if (path.startsWith("/_expo/") || path.startsWith("/assets/") || /\.[a-z0-9]{1,12}$/i.test(path))
          return next();
        return c.html(await readFile(join(root, "index.html"), "utf8"), 200, { "cache-control": "no-cache" });
      })
  );
}

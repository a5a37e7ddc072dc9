import type { MiddlewareHandler } from "hono";
import { problem } from "../access/problem";

/** Content types that another site's form cannot send. */
const TYPES = ["application/json", "text/csv", "image/webp", "image/jpeg", "image/png"];
const READS = ["GET", "HEAD", "OPTIONS"];
const IPV4 = /^\d{1,3}(\.\d{1,3}){3}$/;

/** Host without port, lower case. */
function hostName(host: string): string {
  return host.trim().toLowerCase().replace(/:\d+$/, "");
}

/**
 * True for localhost, IP addresses and configured names. Prevents DNS rebinding: another site that points its name at this server
 * is rejected.
 */
export function isOwnHost(host: string, names: readonly string[]): boolean {
  const name = hostName(host);
  return (
    name === "localhost" ||
    name.endsWith(".localhost") ||
    IPV4.test(name) ||
    (name.startsWith("[") && name.endsWith("]")) ||
    names.includes(name)
  );
}

/**
 * Allows writes only from our own pages: own host, same origin, and a content type that another site's form cannot send. Programs
 * that send no Origin are allowed.
 */
export function sameOriginOnly(names: readonly string[] = []): MiddlewareHandler {
  return async (c, next) => {
    const host = c.req.header("host") ?? new URL(c.req.url).host;
    if (!isOwnHost(host, names))
      return problem(
        c,
        421,
        "This server does not accept this host name. Add it to CRAVIX_HOSTS, or use the server's IP address.",
      );
    // Cross-site requests to the API are useless to their sender and may be expensive.
    if (c.req.header("sec-fetch-site") === "cross-site" && c.req.path.startsWith("/api/"))
      return problem(c, 403, "Requests from other websites are not allowed.");
    if (!READS.includes(c.req.method)) {
      const origin = c.req.header("origin");
      if (origin !== undefined && originHost(origin) !== host.toLowerCase())
        return problem(c, 403, "Changes from other websites are not allowed.");
      const type = c.req.header("content-type")?.split(";")[0]?.trim().toLowerCase();
      if (!TYPES.includes(type ?? ""))
        return problem(
          c,
          415,
          "Send JSON as application/json, CSV as text/csv, and photos as image/jpeg, image/png or image/webp.",
        );
    }
    await next();
  };
}

function originHost(origin: string): string | undefined {
  try {
    return new URL(origin).host;
  } catch {
    return undefined;
  }
}

import type { MiddlewareHandler } from "hono";
import { problem } from "../problem";

/** None of these can a form of another site send. */
const TYPES = ["application/json", "text/csv", "image/webp", "image/jpeg", "image/png"];
const READS = ["GET", "HEAD", "OPTIONS"];
const IPV4 = /^\d{1,3}(\.\d{1,3}){3}$/;

/** The host without its port, lower case. */
function hostName(host: string): string {
  return host.trim().toLowerCase().replace(/:\d+$/, "");
}

/**
 * Whether this server may be called so: by this machine's own name, by an address, or by a name that it was told. A page of another site that
 * points its own name at this machine calls it by that name, and gets nothing.
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
 * Only our own pages write: the host is one of ours, what comes from a page comes from this origin, and a body is of a type that no form of
 * another site can send. A program without a page (it sends no Origin) is no other site's.
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
    // What another site's page asks of the API is of no use to it, and may cost: an engine monitor, a table of years.
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

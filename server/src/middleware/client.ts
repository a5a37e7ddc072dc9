import { getConnInfo } from "@hono/node-server/conninfo";
import type { Context } from "hono";

/** Client address for rate limits; the same for all if unknown. */
export function clientOf(c: Context): string {
  try {
    return getConnInfo(c).remote.address ?? "here";
  } catch {
    return "here";
  }
}

import { getConnInfo } from "@hono/node-server/conninfo";
import type { Context } from "hono";

/** Where a request comes from, to share out what is scarce; the same for all where it cannot be told. */
export function clientOf(c: Context): string {
  try {
    return getConnInfo(c).remote.address ?? "here";
  } catch {
    return "here";
  }
}

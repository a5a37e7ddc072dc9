import type { Context } from "hono";
import { knownCrew } from "../access/identity";
import type { Database } from "../db/database";

/** A PDF as a download. */
export function asPdf(c: Context, pdf: Uint8Array, name: string): Response {
  c.header("content-type", "application/pdf");
  c.header("content-disposition", `attachment; filename="${name.replace(/[^\w-]/g, "")}.pdf"`);
  return c.body(pdf as Uint8Array<ArrayBuffer>);
}

/** Names of a group's people by id, for papers. */
export async function namesOf(db: Database["db"], groupId: string): Promise<Record<string, string>> {
  const crew = await knownCrew(db, groupId);
  return Object.fromEntries([...crew].map(([id, { name }]) => [id, name]));
}

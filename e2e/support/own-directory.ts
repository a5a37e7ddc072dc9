import { execFileSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** Where the tests' setup says what a first start leaves. */
export const PREPARED = "CRAVIX_E2E_PREPARED";

/** A data directory of one's own: a copy of the prepared one, where there is one. */
export function ownDirectory(): string {
  const directory = mkdtempSync(join(tmpdir(), "cravix-e2e-"));
  const prepared = process.env[PREPARED];
  // By the system's own command: what the database owns must stay the database's.
  if (prepared) execFileSync("cp", ["-a", "--sparse=always", `${prepared}/.`, directory]);
  return directory;
}

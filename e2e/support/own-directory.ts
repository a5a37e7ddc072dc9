import { execFileSync } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** Set by the test setup to the prepared data directory. */
export const PREPARED = "CRAVIX_E2E_PREPARED";

/** A new data directory: a copy of the prepared one, if any. */
export function ownDirectory(): string {
  const directory = mkdtempSync(join(tmpdir(), "cravix-e2e-"));
  const prepared = process.env[PREPARED];
  // The system's cp preserves the database's file ownership.
  if (prepared) execFileSync("cp", ["-a", "--sparse=always", `${prepared}/.`, directory]);
  return directory;
}

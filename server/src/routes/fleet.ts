import { readFileText } from "@cravix/contract/files";
import { Hono } from "hono";
import { bodyLimit } from "hono/body-limit";
import type { Database } from "../db/database";
import { readBundle, readDiscrepancies, readFleet } from "../fleet/read-fleet";
import { isOnRecord, writeFile } from "../fleet/write-file";
import { problem } from "../problem";

const MAX_BYTES = 8 * 1024 * 1024;

export function fleetRoutes({ db }: Database) {
  return new Hono()
    .get("/aircraft", async (c) => c.json(await readFleet(db)))
    .get("/aircraft/:registration", async (c) => {
      const bundle = await readBundle(db, c.req.param("registration"));
      return bundle ? c.json(bundle) : noAircraft(c);
    })
    .get("/aircraft/:registration/discrepancies", async (c) => {
      const registration = c.req.param("registration");
      if (!(await readBundle(db, registration))) return noAircraft(c);
      return c.json({ items: await readDiscrepancies(db, registration, c.req.query("state") !== "all") });
    })
    .get("/discrepancies", async (c) =>
      c.json({ items: await readDiscrepancies(db, undefined, c.req.query("state") !== "all") }),
    )
    .post(
      "/files",
      bodyLimit({ maxSize: MAX_BYTES, onError: (c) => problem(c, 413, "A file may have at most 8 MiB.") }),
      async (c) => {
        const reading = readFileText(await c.req.text());
        if ("faults" in reading)
          return problem(c, 422, "The file is not valid. Nothing was changed.", reading.faults);
        // Only asked whether it is valid: nothing is put on record.
        if (c.req.query("check") === "true") return c.json({ format: reading.file.format });
        const basis = c.req.header("if-match")?.replace(/^"|"$/g, "");
        if (basis && !(await isOnRecord(db, reading.file, basis)))
          return problem(
            c,
            412,
            "Somebody else has changed this aircraft since. Nothing was overwritten: look at the new state, then save again.",
          );
        const missing = await writeFile(db, reading.file);
        if (missing)
          return problem(c, 409, "The file does not fit what is on record. Nothing was changed.", [missing]);
        return c.json({ format: reading.file.format }, 201);
      },
    );
}

function noAircraft(c: Parameters<typeof problem>[0]) {
  return problem(c, 404, `There is no aircraft ${c.req.param("registration")} in the group.`);
}

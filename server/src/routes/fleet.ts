import { Hono } from "hono";
import { boolean, object } from "yup";
import { callerOf, principalOf } from "../access/identity";
import { problem } from "../access/problem";
import type { Database } from "../db/database";
import { ownSheets } from "../fleet/group-library";
import { hasAircraft, readBundle, readDiscrepancies, readFleet } from "../fleet/read-fleet";
import { readVersion, readVersions } from "../fleet/read-versions";
import { saveFile } from "../fleet/write-file";
import { atMost } from "../middleware/body";
import { valid } from "../middleware/valid";
import { runInWorker } from "../worker-pool/run-in-worker";
import { ofAircraft, ofFile, ofVersion, whichState } from "./addresses";

const onlyCheck = object({ check: boolean().default(false) });

export function fleetRoutes({ db }: Database, clock: () => Date) {
  return new Hono()
    .get("/aircraft", async (c) => c.json(await readFleet(db, callerOf(c).groupId)))
    .get("/aircraft/:registration", valid("param", ofAircraft), async (c) => {
      const bundle = await readBundle(db, c.req.valid("param").registration, callerOf(c).groupId);
      return bundle ? c.json(bundle) : noAircraft(c);
    })
    .get(
      "/aircraft/:registration/discrepancies",
      valid("param", ofAircraft),
      valid("query", whichState),
      async (c) => {
        const { registration } = c.req.valid("param");
        const { groupId } = callerOf(c);
        if (!(await hasAircraft(db, registration, groupId))) return noAircraft(c);
        const open = c.req.valid("query").state === "open";
        return c.json({ items: await readDiscrepancies(db, registration, open, groupId) });
      },
    )
    .get("/discrepancies", valid("query", whichState), async (c) =>
      c.json({
        items: await readDiscrepancies(
          db,
          undefined,
          c.req.valid("query").state === "open",
          callerOf(c).groupId,
        ),
      }),
    )
    .post("/files", atMost("file"), valid("query", onlyCheck), async (c) => {
      const sheets = await ownSheets(db, callerOf(c).groupId);
      const reading = await runInWorker({ kind: "file", text: await c.req.text(), sheets });
      if ("faults" in reading)
        return problem(c, 422, "The file is not valid. Nothing was changed.", reading.faults);
      const { file } = reading;
      // Validation only: nothing is saved.
      if (c.req.valid("query").check) return c.json({ format: file.format });
      const basis = c.req.header("if-match")?.replace(/^"|"$/g, "");
      const outcome = await saveFile(db, file, {
        ...callerOf(c),
        by: await principalOf(db, callerOf(c)),
        now: clock(),
        ...(basis && { basis }),
      });
      if (!outcome) return c.json({ format: file.format }, 201);
      if ("forbidden" in outcome) return problem(c, 403, outcome.forbidden);
      if ("missing" in outcome)
        return problem(c, 409, "The file conflicts with the data on file. Nothing was changed.", [
          outcome.missing,
        ]);
      return problem(
        c,
        412,
        `Someone else changed this ${file.format === "cravix.aircraft/2" ? "aircraft" : "file"} while you were editing. Nothing was overwritten. Check the new version, then save again.`,
      );
    })
    .get("/files/:kind/:id/versions", valid("param", ofFile), async (c) => {
      const { kind, id } = c.req.valid("param");
      return c.json({ items: await readVersions(db, callerOf(c).groupId, kind, id) });
    })
    .get("/files/:kind/:id/versions/:version", valid("param", ofVersion), async (c) => {
      const { kind, id, version } = c.req.valid("param");
      const body = await readVersion(db, callerOf(c).groupId, kind, id, version);
      return body === undefined ? problem(c, 404, "Version not found.") : c.json(body as object);
    });
}

function noAircraft(c: Parameters<typeof problem>[0]) {
  return problem(c, 404, "This is not one of your group's aircraft.");
}

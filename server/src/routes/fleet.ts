import { contentHash, mayDo, rolesWithPermission } from "@cravix/contract";
import type { LoadingProfile } from "@cravix/core";
import { Hono } from "hono";
import { boolean, object } from "yup";
import { readLoading } from "../airworthiness/read-airworthiness";
import type { Database, Db } from "../db/database";
import { hasAircraft, readBundle, readDiscrepancies, readFleet } from "../fleet/read-fleet";
import { readVersion, readVersions, saveFile } from "../fleet/write-file";
import { type Caller, callerOf, knownCrew } from "../identity";
import { atMost } from "../middleware/body";
import { valid } from "../middleware/valid";
import { problem } from "../problem";
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
      const reading = await runInWorker({ kind: "file", text: await c.req.text() });
      if ("faults" in reading)
        return problem(c, 422, "The file is not valid. Nothing was changed.", reading.faults);
      const { file } = reading;
      // Validation only: nothing is saved.
      if (c.req.valid("query").check) return c.json({ format: file.format });
      const refused = file.format === "cravix.loading/1" && (await mayWeigh(db, callerOf(c), file));
      if (refused) return problem(c, 403, refused);
      const basis = c.req.header("if-match")?.replace(/^"|"$/g, "");
      const outcome = await saveFile(db, file, {
        ...callerOf(c),
        now: clock(),
        ...(basis && { basis }),
      });
      if (!outcome) return c.json({ format: file.format }, 201);
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

/** Why this person cannot replace the weighing on file; false if they can. The first one comes with the aircraft's files. */
async function mayWeigh(db: Db, { groupId, crewId }: Caller, file: LoadingProfile): Promise<string | false> {
  const before = await readLoading(db, file.registration, groupId);
  if (!before || contentHash(before.weighing) === contentHash(file.weighing)) return false;
  const member = crewId === undefined ? undefined : (await knownCrew(db, groupId)).get(crewId);
  return (
    !mayDo(member?.role, "weighing.enter") &&
    `Only ${rolesWithPermission("weighing.enter")} can enter a weighing. Select your name first.`
  );
}

function noAircraft(c: Parameters<typeof problem>[0]) {
  return problem(c, 404, "This is not one of your group's aircraft.");
}

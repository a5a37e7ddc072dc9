import {
  airworthinessFiles,
  flightEvents,
  loadingFiles,
  pastYear,
  personEvents,
  scenarioFiles,
  trainerHistory,
} from "@cravix/demo";
import {
  acceptEvents,
  type Database,
  HOME_GROUP,
  importFluids,
  putList,
  readFleet,
  writeFile,
} from "@cravix/server";

/** Loads the demo group if the database has no aircraft. Returns true if it did. */
export async function loadDemoIfEmpty({ db }: Database, now: Date): Promise<boolean> {
  if ((await readFleet(db, HOME_GROUP)).aircraft.length > 0) return false;
  const history = trainerHistory(now);
  for (const file of [...scenarioFiles, ...airworthinessFiles(now), ...loadingFiles]) {
    const missing = await writeFile(db, file, { groupId: HOME_GROUP, by: "operator" });
    if (missing) throw new Error(`a demo file is incomplete: ${missing.path}: expected ${missing.expected}`);
  }
  for (const [hash, list] of history.lists) await putList(db, hash, list, HOME_GROUP);
  const events = [...history.events, ...flightEvents(now), ...personEvents(now)];
  for (let i = 0; i < events.length; i += 500) {
    const { refused } = await acceptEvents(db, events.slice(i, i + 500), { groupId: HOME_GROUP, now });
    if (refused[0]) throw new Error(`a demo event was rejected: ${refused[0].reason}`);
  }
  await importFluids(db, pastYear(now), HOME_GROUP);
  return true;
}

import { checkProjections, openDatabase } from "@cravix/server";
import { runTask } from "./fail";
import { dataDirectory } from "./paths";
import { startDatabase } from "./site/mariadb";

/** npm run check:projections: folds the database of CRAVIX_DATA and compares it with the projections. Changes nothing. */
await runTask(async () => {
  const running = await startDatabase(dataDirectory());
  const database = openDatabase(running.options);
  const { differences, ...counted } = await checkProjections(database.db);
  console.log(JSON.stringify(counted));
  for (const difference of differences) console.log(JSON.stringify(difference));
  console.log(
    differences.length === 0
      ? "All rows match a fresh replay of their events."
      : `${differences.length} rows differ from their events.`,
  );
  await database.close();
  if (!running.adopted) await running.stop();
  process.exit(differences.length === 0 ? 0 : 1);
});

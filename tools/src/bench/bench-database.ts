import { join } from "node:path";
import { ROOT } from "../paths";
import { type RunningDatabase, startDatabase } from "../site/mariadb";

let running: Promise<RunningDatabase> | undefined;
let users = 0;

/** The benchmark's database, stopped by its last user. */
export async function benchDatabase(): Promise<Pick<RunningDatabase, "options" | "stop">> {
  users++;
  running ??= startDatabase(join(ROOT, ".cravix", "bench"));
  const { options, stop } = await running;
  return {
    options,
    stop: async () => {
      users--;
      if (users > 0) return;
      running = undefined;
      await stop();
    },
  };
}

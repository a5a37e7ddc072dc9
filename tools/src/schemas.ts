import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { runTask } from "./fail";
import { schemaFiles } from "./schema-files";

/** Writes the published JSON Schemas from the validation schemas. */
await runTask(async () => {
  for (const { path, text } of schemaFiles()) {
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, text);
    console.log(path);
  }
});

import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { runTask } from "./fail";
import { schemaFiles } from "./schema-files";

/** Writes the published JSON Schemas of the file formats anew from the schemas that check the files. */
await runTask(async () => {
  for (const { path, text } of schemaFiles()) {
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, text);
    console.log(path);
  }
});

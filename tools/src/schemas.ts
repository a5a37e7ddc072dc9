import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { runTask } from "./fail";
import { libraryIndex } from "./library-index";
import { schemaFiles } from "./schema-files";

/** Writes the published JSON Schemas from the validation schemas, and the index of the library. */
await runTask(async () => {
  for (const { path, text } of [...schemaFiles(), libraryIndex()]) {
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, text);
    console.log(path);
  }
});

import { join } from "node:path";
import { FILE_FORMATS, jsonSchema } from "@cravix/contract/files";
import { ROOT } from "./paths";

/** Published JSON Schemas: path in docs/formats, and text. */
export function schemaFiles(): { format: string; path: string; text: string }[] {
  return Object.entries(FILE_FORMATS).map(([format, { schema, what }]) => {
    const name = format.replace("cravix.", "").replace("/", "-");
    return {
      format,
      path: join(ROOT, "docs", "formats", `${name}.schema.json`),
      text: `${JSON.stringify(jsonSchema(schema, name, what), null, 2)}\n`,
    };
  });
}

import { readdirSync } from "node:fs";
import { join } from "node:path";
import { ROOT } from "./paths";

/** The file that lists the library's part sheets as imports, so that every loader finds them: path and text. */
export function libraryIndex(): { path: string; text: string } {
  const names = readdirSync(join(ROOT, "library", "parts"))
    .filter((name) => name.endsWith(".json"))
    .map((name) => name.replace(/\.json$/, ""))
    .sort();
  const variable = (name: string) => name.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
  return {
    path: join(ROOT, "library", "src", "sheets.ts"),
    text: [
      ...names.map((name) => `import ${variable(name)} from "../parts/${name}.json";`),
      "",
      "/** Every part sheet by file name. Written by `npm run schemas`. */",
      "export const SHEETS: Readonly<Record<string, unknown>> = {",
      ...names.map((name) => (variable(name) === name ? `  ${name},` : `  "${name}": ${variable(name)},`)),
      "};",
      "",
    ].join("\n"),
  };
}

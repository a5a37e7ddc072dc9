import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { ROOT } from "./paths";
import { bannedIn } from "./words/banned-words";
import { type FoundText, textsOfJson, textsOfMarkdown, textsOfSource } from "./words/find-texts";

const LOOKED_AT = ["app", "core/src", "contract/src", "server/src", "demo", "tools/src", "docs", "README.md"];
/** Tests, benchmarks, readers of older words, the vocabulary and the list itself quote banned words. */
const EXEMPT =
  /\.test\.tsx?$|\/testing\/|\/legacy-vocabulary\/|\/bench\/|\/words\/|^docs\/words\.md$|\.schema\.json$|\/node_modules\//;

/** Stored ids and keys that contain an old word. */
const IDS: ReadonlySet<string> = new Set([
  "lap search",
  "aboard draft:…",
  "asked anew",
  "to the place of the work",
]);

function textsOf(file: string): FoundText[] {
  const content = readFileSync(join(ROOT, file), "utf8");
  if (/\.tsx?$/.test(file)) return textsOfSource(file, content);
  if (file.endsWith(".md")) return textsOfMarkdown(content);
  return textsOfJson(content);
}

const files = execFileSync("git", ["ls-files", "--cached", "--others", "--exclude-standard", ...LOOKED_AT], {
  cwd: ROOT,
  encoding: "utf8",
})
  .split("\n")
  .filter((file) => /\.(tsx?|md|json)$/.test(file) && !EXEMPT.test(file));
const complaints = files.flatMap((file) =>
  textsOf(file).flatMap(({ line, text }) =>
    (IDS.has(text) ? [] : bannedIn(text)).map(
      ({ word, better }) => `${file}:${line}: “${word}”, better: ${better}. In: ${text.trim()}`,
    ),
  ),
);
for (const complaint of complaints) console.error(complaint);
if (complaints.length > 0) process.exitCode = 1;

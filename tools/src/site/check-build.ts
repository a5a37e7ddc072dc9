import { existsSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";
import { SetupError } from "../fail";
import { ROOT } from "../paths";

const require = createRequire(import.meta.url);

/**
 * Icon sizes browsers require for installing. Source: W3C Web Application Manifest, and common practice of browsers (192 and 512
 * pixels).
 */
const SIZES = ["192x192", "512x512"];

interface Manifest {
  name?: string;
  short_name?: string;
  start_url?: string;
  display?: string;
  icons?: { src: string; sizes: string; type: string; purpose?: string }[];
}

/** Faults of a built page's manifest and icons, as sentences; empty if it can be installed. */
export function manifestFaults(root: string): string[] {
  const faults: string[] = [];
  const page = readIf(join(root, "index.html")) ?? "";
  const href = /<link rel="manifest" href="([^"]+)"/.exec(page)?.[1];
  if (!href) return ["index.html has no link to a manifest"];
  const text = readIf(join(root, href));
  if (text === undefined) return [`the manifest ${href} is missing`];
  let manifest: Manifest;
  try {
    manifest = JSON.parse(text) as Manifest;
  } catch {
    return [`the manifest ${href} is not JSON`];
  }
  for (const field of ["name", "short_name", "start_url"] as const)
    if (!manifest[field]) faults.push(`the manifest has no ${field}`);
  if (manifest.display !== "standalone") faults.push("the manifest is not set to display: standalone");
  const icons = manifest.icons ?? [];
  for (const size of SIZES)
    for (const purpose of [undefined, "maskable"])
      if (!icons.some((icon) => icon.sizes === size && icon.purpose === purpose))
        faults.push(`the manifest has no ${purpose ?? "plain"} icon of size ${size}`);
  const named = [
    ...icons.map(({ src, sizes, type }) => ({ src, sizes, type })),
    ...[...page.matchAll(/<link rel="(?:icon|apple-touch-icon)" href="([^"]+)"/g)].map(([, src = ""]) => ({
      src,
      sizes: "",
      type: "",
    })),
  ];
  for (const { src, sizes, type } of named) {
    const file = join(root, src);
    if (!existsSync(file)) faults.push(`the icon ${src} is missing`);
    else if (type === "image/png" && pngSize(file) !== sizes)
      faults.push(`the icon ${src} is ${pngSize(file)}, but the manifest says ${sizes}`);
  }
  return faults;
}

function readIf(file: string): string | undefined {
  return existsSync(file) ? readFileSync(file, "utf8") : undefined;
}

/** Width and height from the file header. Source: PNG specification, IHDR (from memory). */
function pngSize(file: string): string {
  const bytes = readFileSync(file);
  if (bytes.length < 24 || bytes.toString("latin1", 1, 4) !== "PNG") return "not a PNG";
  return `${bytes.readUInt32BE(16)}x${bytes.readUInt32BE(20)}`;
}

interface SourceMap {
  sources: string[];
  sourcesContent?: (string | null)[];
}

/** Names a source imports from react-native as a whole, in the forms the stack's packages use. */
export function requestedNames(source: string): string[] {
  const whole = /(?:const|var|let) (\w+) = (?:__importStar\()?require\(["']react-native(?:-web)?["']\)/.exec(
    source,
  )?.[1];
  const byMember = whole
    ? [...source.matchAll(new RegExp(`\\b${whole}\\.([A-Za-z_]+\\w*)`, "g"))].map(([, name = ""]) => name)
    : [];
  const byImport = [
    ...source.matchAll(/import\s*\{([^}]*)\}\s*from\s*["']react-native(?:-web)?["']/g),
  ].flatMap(([, list = ""]) =>
    list
      .replace(/\/\/.*$/gm, "")
      .split(",")
      .map((part) => part.trim().split(/\s+as\s+/)[0] ?? "")
      .filter((name) => name !== "" && !name.startsWith("type ")),
  );
  return [...byMember, ...byImport];
}

/** Names that exist only as types, or are used only outside browsers. */
const NOT_IN_THE_BROWSER = new Set(["ErrorHandlerCallback", "PlatformOSType", "default"]);

/** Faults of replaced parts of the stack: one bundled anyway, or a package that needs a react-native export the replacement lacks. */
export function aliasFaults(
  maps: readonly SourceMap[],
  swapped: readonly string[],
  offered: ReadonlySet<string>,
): string[] {
  const faults = new Set<string>();
  for (const { sources, sourcesContent } of maps)
    sources.forEach((source, i) => {
      const path = source.replace(/^\/?/, "/");
      const missed = swapped.find((file) => path.endsWith(file));
      if (missed) faults.add(`${missed} is bundled although an alias replaces it`);
      // Babel resolves Cravix's own imports.
      if (!path.includes("/node_modules/")) return;
      for (const name of requestedNames(sourcesContent?.[i] ?? ""))
        if (!offered.has(name) && !NOT_IN_THE_BROWSER.has(name))
          faults.add(
            `${path.split("/node_modules/").at(-1)} imports ${name} from react-native, but app/aliases/react-native.js does not export it`,
          );
    });
  return [...faults];
}

/** Rejects a build that cannot be installed, or whose replaced parts are inconsistent. Deletes the source maps used for this. */
export function checkBuild(root: string): void {
  const js = join(root, "_expo", "static", "js", "web");
  const mapFiles = readdirSync(js).filter((name) => name.endsWith(".js.map"));
  const maps = mapFiles.map((name) => JSON.parse(readFileSync(join(js, name), "utf8")) as SourceMap);
  const { ALIASES } = require(join(ROOT, "app", "metro.aliases.js")) as { ALIASES: Map<string, string> };
  const swapped = [...ALIASES.keys()].map((file) => file.replace(/^.*(?=\/node_modules\/)/, ""));
  const offered = new Set(
    [
      ...readFileSync(join(ROOT, "app", "aliases", "react-native.js"), "utf8").matchAll(/default as (\w+)/g),
    ].map(([, name = ""]) => name),
  );
  const faults = [...manifestFaults(root), ...aliasFaults(maps, swapped, offered)];
  if (maps.length === 0) faults.push("there are no source maps, so the build cannot be checked");
  if (faults.length > 0) throw new SetupError(`the interface build is not usable:\n${faults.join("\n")}`);
  for (const name of mapFiles) rmSync(join(js, name));
}

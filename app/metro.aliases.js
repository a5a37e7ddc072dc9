const { existsSync } = require("node:fs");
const { dirname, join, sep } = require("node:path");

const NOTHING = join(__dirname, "aliases", "nothing.js");
const ROUTER = join(dirname(require.resolve("expo-router/package.json")), "build");
const INTEROP = join(dirname(require.resolve("react-native-css-interop/package.json")), "dist", "runtime");
const REACT_NATIVE = join(dirname(require.resolve("react-native-web/package.json")), "dist");
const OWN = join(__dirname, "aliases");

/**
 * Replacements for files of the stack the browser never needs. Tied to the pinned versions: a missing file stops the build
 * (`checkAliases`), and so does a replaced file that is bundled anyway (tools/src/site/check-build.ts).
 */
const ALIASES = new Map([
  // Without these, files that nobody opens ask the index below for what it leaves out.
  ...[
    "views/Sitemap.js",
    "views/Unmatched.js",
    "views/Toast.js",
    "head/index.js",
    "layouts/stack-utils/index.js",
    "fork/native-stack/createNativeStackNavigator.js",
    "native-tabs/NativeTabTrigger.js",
    "screensFeatureFlags.js",
  ].map((file) => [join(ROUTER, ...file.split("/")), NOTHING]),
  [join(INTEROP, "components.js"), join(OWN, "interop-components.js")],
  // 43.7 kB gzipped less in the first load (440.1 instead of 396.4): only the components that the interface uses.
  [join(REACT_NATIVE, "index.js"), join(OWN, "react-native.js")],
]);

/** Whole packages, by name. */
const PACKAGES = [
  {
    name: "expo-router",
    from: (path) => !path.includes(`${sep}node_modules${sep}`),
    to: join(OWN, "expo-router.js"),
  },
];

/** Throws if a file to replace is missing. */
function checkAliases() {
  const missing = [...ALIASES.keys()].filter((file) => !existsSync(file));
  if (missing.length > 0)
    throw new Error(`metro.aliases.js names files that are not there: ${missing.join(", ")}`);
}

/** Replacement for a resolved file; undefined if there is none. */
function aliasFor(context, name, resolve) {
  const whole = PACKAGES.find((one) => one.name === name && one.from(context.originModulePath));
  if (whole && !context.originModulePath.startsWith(OWN)) return { type: "sourceFile", filePath: whole.to };
  const found = resolve();
  const filePath = found.type === "sourceFile" ? ALIASES.get(found.filePath) : undefined;
  return filePath ? { type: "sourceFile", filePath } : found;
}

module.exports = { ALIASES, aliasFor, checkAliases };

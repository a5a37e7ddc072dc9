const { existsSync } = require("node:fs");
const { dirname, join, sep } = require("node:path");

const NOTHING = join(__dirname, "aliases", "nothing.js");
const ROUTER = join(dirname(require.resolve("expo-router/package.json")), "build");
const INTEROP = join(dirname(require.resolve("react-native-css-interop/package.json")), "dist", "runtime");
const REACT_NATIVE = join(dirname(require.resolve("react-native-web/package.json")), "dist");
const UUID = join(dirname(require.resolve("uuid/package.json")), "dist", "esm-browser");
const OWN = join(__dirname, "aliases");

/**
 * Parts of the stack that the browser never needs, by the exact file that would be taken, and what is taken in its place. Tied to the pinned versions:
 * a file that is no longer there stops the build (`checkAliases`), and so does one that is bundled all the same (tools/src/site/check-build.ts).
 */
const ALIASES = new Map([
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
  [join(REACT_NATIVE, "index.js"), join(OWN, "react-native.js")],
  [join(UUID, "index.js"), join(OWN, "uuid.js")],
]);

/** Whole packages: what the code of Cravix, and what the stack, asks for by name. */
const PACKAGES = [
  {
    name: "expo-router",
    from: (path) => !path.includes(`${sep}node_modules${sep}`),
    to: join(OWN, "expo-router.js"),
  },
];

/** Throws where a file that is to be swapped is not where it was. */
function checkAliases() {
  const missing = [...ALIASES.keys()].filter((file) => !existsSync(file));
  if (missing.length > 0)
    throw new Error(`metro.aliases.js names files that are not there: ${missing.join(", ")}`);
}

/** The file in whose place another is taken; undefined where nothing is swapped. */
function aliasFor(context, name, resolve) {
  const whole = PACKAGES.find((one) => one.name === name && one.from(context.originModulePath));
  if (whole && !context.originModulePath.startsWith(OWN)) return { type: "sourceFile", filePath: whole.to };
  const found = resolve();
  const filePath = found.type === "sourceFile" ? ALIASES.get(found.filePath) : undefined;
  return filePath ? { type: "sourceFile", filePath } : found;
}

module.exports = { ALIASES, aliasFor, checkAliases };

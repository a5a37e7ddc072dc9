import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ROOT } from "../paths";
import { aliasFaults, manifestFaults, requestedNames } from "./check-build";

const PUBLIC = join(ROOT, "app", "public");
const PAGE = '<link rel="manifest" href="/manifest.webmanifest">';
let root: string;

beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), "cravix-build-"));
  mkdirSync(join(root, "icons"));
  writeFileSync(join(root, "index.html"), readFileSync(join(PUBLIC, "index.html")));
  writeFileSync(join(root, "manifest.webmanifest"), readFileSync(join(PUBLIC, "manifest.webmanifest")));
  for (const name of ["icon-32.png", "icon-192.png", "icon-512.png", "maskable-192.png", "maskable-512.png"])
    writeFileSync(join(root, "icons", name), readFileSync(join(PUBLIC, "icons", name)));
  for (const name of ["apple-touch-180.png", "cravix.svg"])
    writeFileSync(join(root, "icons", name), readFileSync(join(PUBLIC, "icons", name)));
});
afterEach(() => rmSync(root, { recursive: true, force: true }));

describe("what is needed to be installed", () => {
  test("is all there in what we ship", () => {
    expect(manifestFaults(root)).toEqual([]);
  });

  test("is rejected by name where it is missing, empty or not what it says", () => {
    rmSync(join(root, "icons", "maskable-512.png"));
    writeFileSync(join(root, "icons", "icon-192.png"), readFileSync(join(PUBLIC, "icons", "icon-512.png")));
    expect(manifestFaults(root)).toEqual([
      "the icon /icons/icon-192.png is 512x512, but the manifest says 192x192",
      "the icon /icons/maskable-512.png is missing",
    ]);
    writeFileSync(join(root, "icons", "icon-192.png"), "");
    expect(manifestFaults(root)[0]).toBe(
      "the icon /icons/icon-192.png is not a PNG, but the manifest says 192x192",
    );
  });

  test("a page without a manifest, and a manifest that is none", () => {
    writeFileSync(join(root, "manifest.webmanifest"), "{");
    expect(manifestFaults(root)).toEqual(["the manifest /manifest.webmanifest is not JSON"]);
    rmSync(join(root, "manifest.webmanifest"));
    expect(manifestFaults(root)).toEqual(["the manifest /manifest.webmanifest is missing"]);
    writeFileSync(join(root, "index.html"), "<html></html>");
    expect(manifestFaults(root)).toEqual(["index.html has no link to a manifest"]);
    writeFileSync(join(root, "index.html"), PAGE);
    writeFileSync(join(root, "manifest.webmanifest"), "{}");
    expect(manifestFaults(root)).toContain("the manifest has no start_url");
    expect(manifestFaults(root)).toContain("the manifest has no maskable icon of size 512x512");
  });
});

describe("the swapped parts of the stack", () => {
  const map = (source: string, text = "") => ({ sources: [source], sourcesContent: [text] });
  const swapped = ["/node_modules/expo-router/build/views/Sitemap.js"];

  test("are swapped, or the build says which is not", () => {
    expect(aliasFaults([map("/app/features/x.tsx")], swapped, new Set())).toEqual([]);
    expect(
      aliasFaults([map("/anywhere/node_modules/expo-router/build/views/Sitemap.js")], swapped, new Set()),
    ).toEqual(["/node_modules/expo-router/build/views/Sitemap.js is bundled although an alias replaces it"]);
  });

  test("a package that asks for more than there is is named", () => {
    const asks = map(
      "/anywhere/node_modules/some/index.js",
      'const react_native_1 = require("react-native");\nreact_native_1.View; react_native_1.Animated.timing();',
    );
    expect(aliasFaults([asks], swapped, new Set(["View"]))).toEqual([
      "some/index.js imports Animated from react-native, but app/aliases/react-native.js does not export it",
    ]);
  });

  test.each([
    ['var rn = require("react-native-web"); rn.Platform.OS', ["Platform"]],
    ['import { View, type ViewProps, Text as T } from "react-native";', ["View", "Text"]],
    ['import React from "react";', []],
  ])("%s", (source, names) => {
    expect(requestedNames(source)).toEqual(names);
  });

  test("name files that are there, in the versions that are pinned", () => {
    const { checkAliases, ALIASES } = createRequire(__filename)(join(ROOT, "app", "metro.aliases.js"));
    expect(() => checkAliases()).not.toThrow();
    expect(ALIASES.size).toBeGreaterThan(8);
  });
});

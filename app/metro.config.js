const { createHash } = require("node:crypto");
const { readFileSync } = require("node:fs");
const { getDefaultConfig } = require("expo/metro-config");
const { withNativeWind } = require("nativewind/metro");
const { filesByName } = require("./babel.core-by-file");
const { aliasFor, checkAliases } = require("./metro.aliases");

const config = getDefaultConfig(__dirname);

// The resolver takes this one from its folder's own package.json, which names a build for browsers of ten years ago: half as large again.
const SMALLER = {
  "@reduxjs/toolkit/query": "query/rtk-query.browser.mjs",
};
checkAliases();
config.transformer.minifierPath = require.resolve("./metro.minifier.js");
// What was made of a file before counts only as long as every name of core is in the file that it was in, and it is made small in the same way.
config.cacheVersion = createHash("sha256")
  .update(JSON.stringify([...filesByName()]))
  .update(readFileSync(config.transformer.minifierPath))
  .digest("hex");
const resolve = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  const usual = () => (resolve ?? context.resolveRequest)(context, name, platform);
  if (platform !== "web") return usual();
  const file = SMALLER[name];
  if (file) {
    const filePath = require
      .resolve("@reduxjs/toolkit/package.json")
      .replace(/package\.json$/, `dist/${file}`);
    return { type: "sourceFile", filePath };
  }
  return aliasFor(context, name, usual);
};

module.exports = withNativeWind(config, { input: "./global.css" });

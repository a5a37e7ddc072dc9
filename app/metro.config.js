const { createHash } = require("node:crypto");
const { readFileSync } = require("node:fs");
const { getDefaultConfig } = require("expo/metro-config");
const { withNativeWind } = require("nativewind/metro");
const { aliasFor, checkAliases } = require("./metro.aliases");

const config = getDefaultConfig(__dirname);

checkAliases();
config.transformer.minifierPath = require.resolve("./metro.minifier.js");
// Invalidate cached transforms when the minifier changes.
config.cacheVersion = createHash("sha256")
  .update(readFileSync(config.transformer.minifierPath))
  .digest("hex");
const resolve = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  const usual = () => (resolve ?? context.resolveRequest)(context, name, platform);
  if (platform !== "web") return usual();
  return aliasFor(context, name, usual);
};

module.exports = withNativeWind(config, { input: "./global.css" });

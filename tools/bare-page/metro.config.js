const { getDefaultConfig } = require("expo/metro-config");
const { withNativeWind } = require("nativewind/metro");

const config = getDefaultConfig(__dirname);
// Same minifier as Cravix, so that only the content differs.
config.transformer.minifierPath = require.resolve("../../app/metro.minifier.js");

module.exports = withNativeWind(config, { input: "./global.css" });

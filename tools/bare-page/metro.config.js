const { getDefaultConfig } = require("expo/metro-config");
const { withNativeWind } = require("nativewind/metro");

const config = getDefaultConfig(__dirname);
// Made small as Cravix is: what differs is what stands on the page.
config.transformer.minifierPath = require.resolve("../../app/metro.minifier.js");

module.exports = withNativeWind(config, { input: "./global.css" });

const { transform } = require("jest-expo/jest-preset");

// What loads on demand in the browser is a plain require under Jest.
const [babelJest, babelOptions] = transform["\\.[jt]sx?$"];
const onDemand = [require.resolve("@babel/plugin-transform-dynamic-import")];

module.exports = {
  displayName: "app",
  preset: "jest-expo",
  rootDir: __dirname,
  testMatch: ["<rootDir>/**/*.test.{ts,tsx}"],
  transform: {
    // Code without an interface does not need the React Native transform.
    "/(core|contract|demo)/src/.+\\.ts$": "<rootDir>/../tools/testing/swc-with-globals.cjs",
    "\\.mjs$": "<rootDir>/../tools/testing/swc-with-globals.cjs",
    "\\.[jt]sx?$": [babelJest, { ...babelOptions, plugins: onDemand }],
  },
  setupFiles: ["fake-indexeddb/auto"],
  moduleNameMapper: {
    "^d3-(shape|path)$": "<rootDir>/../node_modules/d3-$1/dist/d3-$1.js",
    "\\.css$": "<rootDir>/ui/testing/no-css.cjs",
  },
  transformIgnorePatterns: [
    "/node_modules/(?!(react-native[^/]*|@react-native[^/]*|expo[^/]*|@expo[^/]*|@react-navigation|nativewind|uuid|canonicalize|@noble|idb|d3-shape|d3-path|immer|@reduxjs|react-redux|date-fns|standard-navigation|lucide-react-native|tailwind-merge)/)",
  ],
};

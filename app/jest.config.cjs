module.exports = {
  displayName: "app",
  preset: "jest-expo",
  rootDir: __dirname,
  testMatch: ["<rootDir>/**/*.test.{ts,tsx}"],
  setupFiles: ["fake-indexeddb/auto"],
  moduleNameMapper: { "\\.css$": "<rootDir>/ui/testing/no-css.cjs" },
  transformIgnorePatterns: [
    "/node_modules/(?!(.pnpm|react-native|@react-native|@react-native-community|expo|@expo|@expo-google-fonts|react-navigation|@react-navigation|nativewind|react-native-css-interop|uuid|canonicalize|@noble|idb|d3-shape|d3-path|immer|@reduxjs|react-redux|date-fns)/)",
  ],
};

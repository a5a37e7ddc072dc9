const plain = (name, extra = {}) => ({
  displayName: name,
  rootDir: `${__dirname}/${name}`,
  testEnvironment: "node",
  testMatch: ["<rootDir>/**/*.test.ts"],
  testPathIgnorePatterns: ["/node_modules/", "/dist/"],
  transform: {
    "^.+\\.[cm]?[jt]s$": `${__dirname}/tools/testing/swc-with-globals.cjs`,
  },
  // Packages that ship ES modules only.
  transformIgnorePatterns: [
    "/node_modules/(?!(uuid|p-queue|p-timeout|eventemitter3|metar-taf-parser|suncalc|canonicalize|@noble|fast-check|pure-rand|@hono|simple-statistics|ml-[^/]*|is-any-array)/)",
  ],
  ...extra,
});

module.exports = {
  // A slow machine must not fail tests.
  testTimeout: 60_000,
  projects: [
    plain("core"),
    plain("contract"),
    plain("library"),
    plain("demo"),
    plain("tools"),
    plain("server", {
      globalSetup: `${__dirname}/tools/testing/start-database.cjs`,
      globalTeardown: `${__dirname}/tools/testing/stop-database.cjs`,
    }),
    `${__dirname}/app/jest.config.cjs`,
  ],
};

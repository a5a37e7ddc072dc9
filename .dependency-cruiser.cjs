/** Imports point one way: app, server → contract → core. Core knows no interface, server, database or Node module. */
const only = (name, from, allowed, comment) => ({
  name,
  comment,
  severity: "error",
  from: { path: `^${from}/`, pathNot: "(\\.test\\.tsx?$|/testing/)" },
  to: { path: "^(core|contract|library|server|app|demo|tools|e2e)/", pathNot: `^(${allowed.join("|")})/` },
});

/**
 * Layers of core, lowest first: a folder imports only from lower layers. Judgements of a whole preflight are above the checklist,
 * not in their subject.
 */
const FLOORS = [["units", "trend"], ["readings"], ["judgement"]];

/**
 * Rooms of the interface, lowest first: a room imports only lower ones, and only by their door (`index.ts`). The routes, and the
 * room that bundles the pages of a preflight, compose screens and open any file.
 */
const ROOMS = [
  ["photographs", "shell"],
  ["aircraft-frame", "open-preflight", "this-device", "aircraft", "past-preflights"],
  [
    ...["due", "fuel", "own-items", "loading", "verdict", "electrical", "pace", "pair", "run-up", "line-up"],
    ...["route", "after", "debrief", "ledger", "list", "preferences"],
  ],
  ["discrepancies", "fluid-logs", "technical-log", "person-due", "maintenance"],
  ["departure", "fluids", "people"],
  ["checklist"],
  ["preflight-routes"],
  ["start"],
];

module.exports = {
  forbidden: [
    ...ROOMS.map((rooms, at) => ({
      name: `rooms-${at + 1}-of-the-interface`,
      comment: `${rooms.join(", ")} know only lower rooms`,
      severity: "error",
      from: { path: `^app/features/(${rooms.join("|")})/` },
      to: {
        path: "^app/features/",
        pathNot: `^app/features/($1|${ROOMS.slice(0, at).flat().join("|") || "none"})/`,
      },
    })),
    {
      name: "rooms-have-one-door",
      comment: "what others may use of a room is in its index",
      severity: "error",
      from: { path: "^app/features/([^/]+)/", pathNot: "^app/features/preflight-routes/" },
      to: { path: "^app/features/", pathNot: "^app/features/($1/|[^/]+/index\\.ts$)" },
    },
    {
      name: "rooms-are-named",
      comment: "a new room gets its place in the order",
      severity: "error",
      from: { path: "^app/features/", pathNot: `^app/features/(${ROOMS.flat().join("|")})/` },
      to: {},
    },
    ...FLOORS.map((floor, at) => ({
      name: `floor-${at + 1}-of-core`,
      comment: `${floor.join(" and ")} know nothing above them`,
      severity: "error",
      from: { path: `^core/src/(${floor.join("|")})/`, pathNot: "\\.test\\.ts$" },
      to: {
        path: "^core/src/",
        pathNot: `^core/src/(${FLOORS.slice(0, at + 1)
          .flat()
          .join("|")})/`,
      },
    })),
    {
      name: "verdict-alone-at-the-top",
      comment: "nothing else in core knows the verdict",
      severity: "error",
      from: {
        path: "^core/src/",
        pathNot: "(^core/src/verdict/|\\.test\\.ts$|/testing/)",
      },
      to: { path: "^core/src/verdict/" },
    },
    {
      name: "no-schemas-in-the-first-load",
      comment:
        "what the device opens with, and the tables beside it, do not bring the whole library of schemas along",
      severity: "error",
      from: { path: "^contract/src/(client\\.ts|logs/)", pathNot: "\\.test\\.ts$" },
      to: { path: "^contract/src/bounds/fields\\.ts$", reachable: true },
    },
    only("core-stands-alone", "core", ["core"], "core imports nothing of the project"),
    only("contract-to-core", "contract", ["contract", "core"], "contract may only know core"),
    only(
      "library-one-way",
      "library",
      ["library", "contract", "core"],
      "the library is data in the open formats",
    ),
    only(
      "server-one-way",
      "server",
      ["server", "library", "contract", "core"],
      "the server never knows the interface or the demo",
    ),
    {
      ...only(
        "app-one-way",
        "app",
        ["app", "contract", "core"],
        "the interface talks to the server through the contract",
      ),
      // The API client uses only the type of the API.
      from: { path: "^app/", pathNot: "(\\.test\\.tsx?$|/testing/|^app/device/api\\.ts$)" },
    },
    {
      name: "app-knows-the-api-by-its-type",
      comment: "no line of the server runs in the interface",
      severity: "error",
      from: { path: "^app/device/api\\.ts$" },
      to: { path: "^(server|library|demo|tools|e2e)/", dependencyTypesNot: ["type-only"] },
    },
    only(
      "demo-one-way",
      "demo",
      ["demo", "library", "contract", "core"],
      "the demo is data in the open formats",
    ),
    {
      name: "core-is-pure",
      comment: "computation without interface, server, database, clock or Node modules",
      severity: "error",
      from: { path: "^core/src/", pathNot: "\\.test\\.ts$" },
      to: {
        dependencyTypes: ["core", "npm", "npm-dev", "npm-optional", "npm-peer", "npm-no-pkg", "npm-unknown"],
      },
    },
    {
      name: "model-knows-no-judge",
      comment: "the engine that makes the cases shares nothing with the library that judges them",
      severity: "error",
      from: { path: "^core/src/engine-model/", pathNot: "\\.test\\.ts$" },
      to: { path: "^core/src/", pathNot: "^core/src/(engine-model/|units/seeded-random)" },
    },
    {
      name: "judge-knows-no-model",
      comment: "and the other way round",
      severity: "error",
      from: { path: "^core/src/", pathNot: "(^core/src/engine-model/|\\.test\\.ts$|/testing/)" },
      to: { path: "^core/src/engine-model/" },
    },
    { name: "no-circular", severity: "error", from: {}, to: { circular: true } },
    {
      name: "resolvable",
      severity: "error",
      from: {},
      to: { couldNotResolve: true, pathNot: "^(expo-router|react-native)" },
    },
    {
      name: "routes-are-leaves",
      comment: "route files compose a screen and nothing imports them",
      severity: "error",
      // The entry file names the first page's routes.
      from: { path: "^app/", pathNot: "^app/(app/|index\\.js$)" },
      to: { path: "^app/app/" },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "((node_modules|dist|\\.expo)/|nativewind-env\\.d\\.ts$)" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default", "types"],
      extensions: [".ts", ".tsx", ".mjs", ".cjs", ".js", ".json"],
    },
  },
};

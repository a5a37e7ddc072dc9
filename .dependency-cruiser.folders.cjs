const { options } = require("./.dependency-cruiser.cjs");

/** Folders must not import each other in a circle. Tests are exempt. */
const PATH = "^(core/src|contract/src|server/src|app/(features|store|device|ui))/";

module.exports = {
  forbidden: [
    {
      name: "no-circle-among-folders",
      severity: "error",
      scope: "folder",
      from: { path: PATH },
      to: { circular: true },
    },
  ],
  options: { ...options, exclude: { path: `${options.exclude.path}|\\.test\\.tsx?$|/testing/` } },
};

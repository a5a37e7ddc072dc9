const { options } = require("./.dependency-cruiser.cjs");

/** Folders must not import each other in a circle. Tests are exempt. */
module.exports = {
  forbidden: [
    {
      name: "no-circle-among-folders",
      severity: "error",
      scope: "folder",
      from: { path: "^core/src/" },
      to: { circular: true },
    },
  ],
  options: { ...options, exclude: { path: `${options.exclude.path}|\\.test\\.tsx?$|/testing/` } },
};

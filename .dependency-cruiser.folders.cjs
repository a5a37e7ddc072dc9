const { options } = require("./.dependency-cruiser.cjs");

/** Rooms that know each other in a circle are one room. What only tests know counts for nothing here. */
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

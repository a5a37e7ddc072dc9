const { minify } = require("@swc/core");

/**
 * Makes a module small. Metro itself does it with Terser, which took as long as all the rest of a build and came out larger.
 * It hands on no map: the maps of a build are read for which files are in it, by tools/src/site/check-build.ts, and taken away.
 */
module.exports = async ({ code, reserved }) => ({
  code: (await minify(code, { compress: { passes: 2 }, mangle: { reserved }, module: false })).code,
});

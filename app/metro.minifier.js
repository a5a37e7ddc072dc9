const { minify } = require("@swc/core");

/**
 * Minifies a module. Metro's default, Terser, took as long as the rest of the build and gave larger output. It returns no source
 * map: maps are only used by tools/src/site/check-build.ts to list bundled files, then deleted.
 */
module.exports = async ({ code, reserved }) => ({
  code: (await minify(code, { compress: { passes: 2 }, mangle: { reserved }, module: false })).code,
});

const swc = require("@swc/jest");
const { withGlobals } = require("./with-globals.cjs");

module.exports = { createTransformer: (options) => withGlobals(swc.createTransformer(options)) };

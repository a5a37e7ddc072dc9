const swc = require("@swc/jest");
const { withGlobals } = require("./with-globals.cjs");

const OPTIONS = {
  jsc: { parser: { syntax: "typescript" }, target: "es2022" },
  module: { type: "commonjs" },
};

/** For all that has no interface: TypeScript as it is, but for its types and its imports. */
module.exports = { createTransformer: () => withGlobals(swc.createTransformer(OPTIONS)) };

const swc = require("@swc/jest");
const { withGlobals } = require("./with-globals.cjs");

const OPTIONS = {
  jsc: { parser: { syntax: "typescript" }, target: "es2022" },
  module: { type: "commonjs" },
};

/** Transform for code without an interface: removes types and converts imports. */
module.exports = { createTransformer: () => withGlobals(swc.createTransformer(OPTIONS)) };

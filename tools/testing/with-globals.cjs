/**
 * In Jest every module runs in a context in which access to `Math` or `Number` goes through an interceptor, which slows
 * calculations several times. Constants at the top of a module avoid that. Globals that tests replace (`Date`, timers, `fetch`)
 * are left alone.
 */
const NAMES = [
  "Math",
  "Number",
  "String",
  "Boolean",
  "Object",
  "Array",
  "Map",
  "Set",
  "WeakMap",
  "Float64Array",
  "Uint8Array",
  "JSON",
  "Symbol",
  "NaN",
  "Infinity",
];

function withGlobals({ code, ...rest }) {
  // A module that declares one keeps its own.
  const free = NAMES.filter(
    (name) => !new RegExp(`\\b(const|let|var|class|function)\\s+${name}\\b`).test(code),
  );
  // On the existing first line, to keep line numbers.
  return { ...rest, code: code.replace(/^("use strict";)?/, `$1const {${free.join(",")}}=globalThis;`) };
}

/** Wraps a transformer so that modules have frequently used globals as constants. */
exports.withGlobals = (transformer) => ({
  ...transformer,
  process: (...args) => withGlobals(transformer.process(...args)),
  processAsync:
    transformer.processAsync && (async (...args) => withGlobals(await transformer.processAsync(...args))),
  getCacheKey: (...args) => `${transformer.getCacheKey(...args)} with ${NAMES}`,
});

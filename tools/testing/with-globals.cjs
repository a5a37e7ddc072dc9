/**
 * In Jest every module lives in a context of its own, in which each look at `Math` or `Number` asks an interceptor: a computation runs several times slower than it does anywhere else. Named once at
 * the top of a module they are its own. What tests put something else in the place of (`Date`, timers, `fetch`) is left alone.
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
  // A module that has one of them for itself keeps its own.
  const free = NAMES.filter(
    (name) => !new RegExp(`\\b(const|let|var|class|function)\\s+${name}\\b`).test(code),
  );
  // On the line that is there: every other line keeps its number.
  return { ...rest, code: code.replace(/^("use strict";)?/, `$1const {${free.join(",")}}=globalThis;`) };
}

/** The same transformer, whose modules have the globals that a computation asks for again and again as their own. */
exports.withGlobals = (transformer) => ({
  ...transformer,
  process: (...args) => withGlobals(transformer.process(...args)),
  processAsync:
    transformer.processAsync && (async (...args) => withGlobals(await transformer.processAsync(...args))),
  getCacheKey: (...args) => `${transformer.getCacheKey(...args)} with ${NAMES}`,
});

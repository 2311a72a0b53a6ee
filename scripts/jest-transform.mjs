/**
 * TypeScript for Jest. A test runs in a context of its own, in which every mention of a global goes through an interceptor: code that
 * counts a lot runs several times slower there. So each module is handed the globals it mentions once, as constants of its own.
 */
import swc from "@swc/jest";

const GLOBALS = [
  "Array",
  "ArrayBuffer",
  "Error",
  "Float32Array",
  "Float64Array",
  "Infinity",
  "Int32Array",
  "JSON",
  "Map",
  "Math",
  "NaN",
  "Number",
  "Object",
  "Promise",
  "Set",
  "String",
  "Uint8Array",
  "WeakMap",
  "isFinite",
  "parseFloat",
];
const inner = swc.createTransformer({
  jsc: {
    target: "es2022",
    parser: { syntax: "typescript", tsx: true, decorators: true },
    transform: {
      legacyDecorator: true,
      decoratorMetadata: false,
      useDefineForClassFields: false,
      react: { runtime: "automatic" },
    },
  },
  module: { type: "es6" },
});

/** Ahead of the first line, on that line, so that lines stay what they are. */
function handed(result) {
  const { code } = result;
  const names = GLOBALS.filter(
    (n) =>
      new RegExp(`\\b${n}\\b`).test(code) &&
      !new RegExp(`\\b(const|let|var|class|function|import)\\b[^;=(]*\\b${n}\\b`).test(code),
  );
  return names.length ? { ...result, code: `const {${names.join(",")}}=globalThis;${code}` } : result;
}

export default {
  ...inner,
  process: (...a) => handed(inner.process(...a)),
  processAsync: async (...a) => handed(await inner.processAsync(...a)),
  getCacheKey: (...a) => `handed-1-${inner.getCacheKey(...a)}`,
};

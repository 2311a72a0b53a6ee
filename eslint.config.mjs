import tseslint from "typescript-eslint";
import hooks from "eslint-plugin-react-hooks";
import style from "@stylistic/eslint-plugin";

const clock = { object: "Date", property: "now", message: "only app/clock.ts reads the clock" };
const now = [
  { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: "only app/clock.ts reads the clock" },
  { selector: "CallExpression[callee.name='Date']", message: "only app/clock.ts reads the clock" },
];
const SURROUNDINGS = ["window", "document", "navigator", "performance", "crypto", "process", "self", "localStorage"];

export default tseslint.config(
  { ignores: ["build", "node_modules", ".react-router", "docs"] },
  ...tseslint.configs.recommended,
  {
    plugins: { "@stylistic": style },
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_$" }],
      // code, comments and strings alike: what is longer hides something, and long prose is put together or kept as data
      "@stylistic/max-len": ["error", { code: 140, tabWidth: 2 }],
    },
  },
  {
    files: ["app/**/*.tsx"],
    plugins: { "react-hooks": hooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
  },
  // Only app/clock.ts reads the clock. The whole app is told so first; the core is told again together with what it may not do besides.
  {
    files: ["app/**/*.{ts,tsx}"],
    ignores: ["app/clock.ts", "**/*.test.ts"],
    rules: {
      "no-restricted-properties": ["error", clock],
      "no-restricted-syntax": ["error", ...now],
    },
  },
  {
    files: ["app/core/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-properties": [
        "error",
        clock,
        { object: "Math", property: "random", message: "seeds are passed in" },
        { object: "globalThis", message: "the core knows no surroundings" },
      ],
      "no-restricted-syntax": ["error", ...now],
      "no-restricted-globals": ["error", ...SURROUNDINGS],
    },
  },
);

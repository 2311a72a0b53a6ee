import tseslint from "typescript-eslint";
import hooks from "eslint-plugin-react-hooks";
import style from "@stylistic/eslint-plugin";

const clock = { object: "Date", property: "now", message: "only app/clock.ts reads the clock" };
const now = [
  { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: "only app/clock.ts reads the clock" },
  { selector: "CallExpression[callee.name='Date']", message: "only app/clock.ts reads the clock" },
];
/** Colours and sizes of type have names: tokens of app.css, and ui/inks.ts for things that are drawn. */
const NAMED = "has a name in app.css or ui/inks.ts, or gets one";
const bare = [
  { selector: "Literal[value=/^#([0-9a-f]{3}|[0-9a-f]{6})$/i]", message: `a colour ${NAMED}` },
  { selector: "Literal[value=/(text|border|bg|fill|stroke)-\\[#/]", message: `a colour ${NAMED}` },
  { selector: "TemplateElement[value.raw=/-\\[#|text-\\[[0-9.]/]", message: `a colour or size ${NAMED}` },
  { selector: "Literal[value=/text-\\[[0-9.]/]", message: `a size of type ${NAMED}` },
  {
    selector: "Literal[value=/(?<!text)-\\[[^\\]]*[0-9]px/]",
    message: "sizes are steps of spacing, or have a name in app.css",
  },
  {
    selector: "TemplateElement[value.raw=/(?<!text)-\\[[^\\]]*[0-9]px/]",
    message: "sizes are steps of spacing, or have a name in app.css",
  },
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
    files: ["app/ui/**/*.{ts,tsx}", "app/routes/**/*.{ts,tsx}"],
    ignores: ["app/ui/inks.ts", "**/*.test.ts"],
    rules: { "no-restricted-syntax": ["error", ...now, ...bare] },
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

import tseslint from "typescript-eslint";
import hooks from "eslint-plugin-react-hooks";

export default tseslint.config(
  { ignores: ["build", "node_modules", ".react-router", "docs"] },
  ...tseslint.configs.recommended,
  { rules: { "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_" }] } },
  {
    files: ["app/**/*.tsx"],
    plugins: { "react-hooks": hooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
  },
  {
    files: ["app/core/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-properties": [
        "error",
        { object: "Date", property: "now", message: "time is passed in" },
        { object: "Math", property: "random", message: "seeds are passed in" },
      ],
      "no-restricted-globals": ["error", "window", "document", "navigator", "performance"],
    },
  },
  {
    files: ["app/**/*.{ts,tsx}"],
    ignores: ["app/clock.ts", "**/*.test.ts"],
    rules: {
      "no-restricted-properties": [
        "error",
        { object: "Date", property: "now", message: "only app/clock.ts reads the clock" },
      ],
    },
  },
);

import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

export default ts.config(
  { ignores: ["dist", "src/api/schema.d.ts", "public/sw.js"] },
  js.configs.recommended,
  {
    files: ["src/**/*.{ts,tsx}"],
    extends: [...ts.configs.strictTypeChecked],
    rules: {
      // A number in a template is what it says, and an arrow that returns nothing needs no braces.
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
      "@typescript-eslint/no-confusing-void-expression": ["error", { ignoreArrowShorthand: true }],
    },
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
  },
  {
    files: ["src/**/*.ts", "src/**/*.tsx"],
    rules: {
      // Who reads a store says what is in it.
      "@typescript-eslint/no-unnecessary-type-parameters": "off",
      // Half of the whole check's time, for what tsc and the rules beside them say already.
      "@typescript-eslint/no-deprecated": "off",
      "@typescript-eslint/no-unsafe-class-instance-assignment": "off",
      "@typescript-eslint/no-unsafe-enum-assignment": "off",
    },
  },
  {
    // Stand-ins for the network answer as promises and take whatever they are given.
    files: ["src/**/*.test.ts"],
    rules: {
      "@typescript-eslint/require-await": "off",
      "@typescript-eslint/no-unsafe-member-access": "off",
    },
  },
  {
    // What the compiler would do with a component takes a third of the check: only where there are any.
    ...hooks.configs.flat.recommended,
    files: ["src/**/*.{ts,tsx}"],
    ignores: ["src/**/*.test.{ts,tsx}", "src/test/**"],
  },
);

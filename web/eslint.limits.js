import tseslint from "typescript-eslint";
export default tseslint.config(
  { ignores: ["dist", "src/**/*.generated.ts"] },
  { files: ["src/**/*.{ts,tsx}"], languageOptions: { parser: tseslint.parser },
    linterOptions: { reportUnusedDisableDirectives: "off" },
    rules: { complexity: ["error", 15],
      "max-lines-per-function": ["error", { max: 80, skipBlankLines: true, skipComments: true }], },
  });

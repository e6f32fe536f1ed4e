// What the interface's code is held to, beside the types: npm run lint.
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import config from './ui/svelte.config.js';

export default ts.config(
  { ignores: ['ui/dist/', 'ui/src/api/schema.d.ts', 'node_modules/', 'e2e/.out/', 'bin/'] },
  ...ts.configs.strict,
  ...svelte.configs.recommended,
  { languageOptions: { globals: { ...globals.browser, ...globals.node } } },
  // Records are filled and emptied by key, and what noUncheckedIndexedAccess cannot see is asserted.
  { rules: { '@typescript-eslint/no-dynamic-delete': 'off', '@typescript-eslint/no-non-null-assertion': 'off' } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, svelteConfig: config } },
  },
);

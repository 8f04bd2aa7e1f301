import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';
import { noVacuousLoop } from './scripts/lint/noVacuousLoop.mjs';

const NODE_ONLY = ['node:*', 'fs', 'path', 'os', 'crypto', 'child_process', 'http', 'stream'];
const OUTSIDE = ['react', 'react-*', '@mantine/*', 'express', 'sequelize', '@yonder/server', '@yonder/web'];

/** What the core must not know: other workspaces, interface, server, clock and randomness. */
const pureCore = {
  'no-restricted-imports': [
    'error',
    {
      patterns: [
        { group: NODE_ONLY, message: 'core runs in browsers too' },
        { group: OUTSIDE, message: 'core imports nothing from the others' },
        {
          group: ['**/server/**', '**/web/**', '**/e2e/**'],
          message: 'core imports nothing from the others',
        },
      ],
    },
  ],
  'no-restricted-globals': [
    'error',
    ...['window', 'document', 'process', 'performance', 'setTimeout', 'setInterval', 'fetch', 'crypto'].map(
      (name) => ({
        name,
        message: 'core has no interface, clock or machine of its own',
      }),
    ),
  ],
  'no-restricted-properties': [
    'error',
    { object: 'Date', property: 'now', message: 'pass the day in' },
    { object: 'Math', property: 'random', message: 'pass the randomness in' },
  ],
  'no-restricted-syntax': [
    'error',
    { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'pass the day in' },
    { selector: 'ExportAllDeclaration', message: 'name what is exported' },
  ],
};

export default tseslint.config(
  { ignores: ['**/node_modules/**', '**/dist/**', '.data/**', '.tmp/**', '**/*.d.ts'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    languageOptions: { globals: { ...globals.node } },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportAllDeclaration', message: 'name what is exported' },
      ],
      eqeqeq: 'error',
      'no-unexpected-multiline': 'off', // the formatter breaks long member chains itself
      'no-console': 'error',
      '@typescript-eslint/no-invalid-void-type': 'off', // RTK Query names endpoints without an argument `void`
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/*.deep.ts', 'core/src/testing/**'],
    rules: pureCore,
  },
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    languageOptions: { globals: { ...globals.browser } },
    rules: {
      ...reactHooks.configs.recommended.rules,
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: ['@yonder/server', ...NODE_ONLY], message: 'web talks to the server by HTTP alone' },
          ],
        },
      ],
    },
  },
  {
    files: ['**/*.test.{ts,tsx}', '**/*.deep.ts'],
    plugins: { house: { rules: { 'no-vacuous-loop': noVacuousLoop } } },
    rules: {
      'house/no-vacuous-loop': 'error',
      'no-restricted-properties': [
        'error',
        { object: 'fc', property: 'assert', message: 'forAll gives it the seed and the time' },
      ],
    },
  },
  // Scripts talk to the terminal; what they hand to a page runs in the browser.
  {
    files: ['scripts/**/*.mjs', 'core/bench/**'],
    languageOptions: { globals: { ...globals.browser } },
    rules: { 'no-console': 'off' },
  },
);

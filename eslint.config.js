import reactHooks from 'eslint-plugin-react-hooks';
import regexp from 'eslint-plugin-regexp';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['build/', 'node_modules/', '.ebbet/', 'test-results/'] },
  ...tseslint.configs.recommended,
  {
    plugins: { regexp },
    rules: {
      // no pattern that a hostile text can make slow
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
      'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'Date', 'process', 'fetch', 'setTimeout', 'crypto', 'localStorage'],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random' }],
    },
  },
  // what an API answers is looked at, not typed, in its tests
  { files: ['**/*.test.ts', 'test/**/*.ts'], rules: { '@typescript-eslint/no-explicit-any': 'off' } },
  { files: ['core/numbers/{isoDate,localDate}.ts'], rules: { 'no-restricted-globals': 'off' } },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    // that rule warns of what the React compiler would skip; it is not used here
    rules: { ...reactHooks.configs.recommended.rules, 'react-hooks/incompatible-library': 'off' },
  },
);

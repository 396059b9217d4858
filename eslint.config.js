import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';
import rooms from './eslint.rooms.js';

export default tseslint.config(
  { ignores: ['**/dist/**', 'data/**', 'test-results/**', 'playwright-report/**'] },
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      // Leaving a field out of a rest is a use of it.
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      // Typed arrays read at a computed index are known to be in range; elsewhere each use says why.
      '@typescript-eslint/no-non-null-assertion': 'off',
      // The draft of a document is a map by id, and its entries are deleted.
      '@typescript-eslint/no-dynamic-delete': 'off',
      'no-console': ['error', { allow: ['log', 'error'] }],
      eqeqeq: 'error',
    },
  },
  { files: ['**/*.{ts,tsx}'], rules: { '@typescript-eslint/no-explicit-any': 'error' } },
  { files: ['apps/web/**/*.{ts,tsx}'], ...hooks.configs.flat['recommended-latest'] },
  ...rooms,
  { files: ['scripts/**/*.mjs'], languageOptions: { globals: { process: 'readonly', console: 'readonly' } } },
);

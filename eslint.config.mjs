import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const never = (...names) => ({
  'no-restricted-imports': [
    'error',
    {
      patterns: names.map((n) => ({
        group: [`@ledgerline/${n}/*`, `@ledgerline/${n}`, `**/../${n}/**`],
        message: `Imports go only downwards: not from ${n} here.`,
      })),
    },
  ],
});
const tests = ['**/*.test.ts', 'server/testing/**'];

export default tseslint.config(
  { ignores: ['**/dist/**', 'node_modules/**', '.data/**', 'server/db/migrations/**', 'test-results/**'] },
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-console': 'off',
      eqeqeq: 'error',
      'no-empty': ['error', { allowEmptyCatch: false }],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: tests,
    rules: {
      ...never('contract', 'server', 'web', 'demo', 'documents'),
      'no-console': 'error',
      'no-restricted-globals': ['error', 'fetch', 'process', 'window', 'document'],
    },
  },
  { files: ['contract/**/*.ts'], ignores: tests, rules: never('server', 'web', 'demo', 'documents') },
  { files: ['server/**/*.ts'], ignores: tests, rules: never('web', 'demo', 'documents') },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { ...never('server', 'demo', 'documents'), 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
);

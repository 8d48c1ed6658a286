import { configDefaults, defineConfig } from 'vitest/config';

const common = { environment: 'node' as const, testTimeout: 90_000, hookTimeout: 60_000 };
export default defineConfig({
  test: {
    projects: [
      {
        test: {
          ...common,
          name: 'core',
          // Pure functions: each file need not load everything anew.
          isolate: false,
          include: ['core/**/*.test.ts', 'contract/**/*.test.ts', 'documents/**/*.test.ts', 'bench/**/*.test.ts', 'web/**/*.test.ts'],
        },
      },
      {
        test: {
          ...common,
          name: 'server',
          include: ['server/**/*.test.ts', 'scripts/**/*.test.ts'],
          exclude: [...configDefaults.exclude, 'server/auth/passwords.test.ts'],
          globalSetup: 'server/testing/cluster.ts',
          pool: 'forks',
          // One process for many files: each test makes a database of its own anyway.
          isolate: false,
        },
      },
      {
        // Counts what is worked out by replacing a module: alone in its process.
        test: {
          ...common,
          name: 'passwords',
          include: ['server/auth/passwords.test.ts'],
          globalSetup: 'server/testing/cluster.ts',
          pool: 'forks',
        },
      },
    ],
    maxWorkers: 3,
  },
});

import { defineConfig } from 'vitest/config';

const CORE = ['packages/core/src/**/*.test.ts', 'packages/core/reference/**/*.test.ts'];

export default defineConfig({
  test: {
    setupFiles: ['packages/core/src/testing/fixSeed.ts'],
    // However slow the machine is: what fails is seen, not timed.
    testTimeout: 300_000,
    hookTimeout: 300_000,
    // The default leaves one core idle for the watcher, which is half of a machine with two.
    maxWorkers: '100%',
    projects: [
      // The core keeps no state but caches by its arguments, so that its files need not be loaded anew for every test file.
      { extends: true, test: { name: 'core', include: CORE, isolate: false } },
      {
        extends: true,
        test: {
          name: 'others',
          include: ['packages/*.test.ts', 'packages/*/src/**/*.test.ts', 'demo/**/*.test.ts'],
          exclude: CORE,
        },
      },
    ],
  },
});

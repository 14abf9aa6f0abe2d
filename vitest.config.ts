import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: [
      'packages/*.test.ts',
      'packages/*/src/**/*.test.ts',
      'packages/*/reference/**/*.test.ts',
      'demo/**/*.test.ts',
    ],
    setupFiles: ['packages/core/src/testing/fixSeed.ts'],
    // However slow the machine is: what fails is seen, not timed.
    testTimeout: 300_000,
    hookTimeout: 300_000,
    // The default leaves one core idle for the watcher, which is half of a machine with two.
    maxWorkers: '100%',
  },
});

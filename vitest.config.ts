import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['packages/*/src/**/*.test.ts', 'packages/*/reference/**/*.test.ts', 'demo/**/*.test.ts'],
    testTimeout: 60_000,
  },
});

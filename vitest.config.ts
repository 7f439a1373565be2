import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: [
      'core/src/**/*.test.ts',
      'server/src/**/*.test.ts',
      'web/src/**/*.test.{ts,tsx}',
      'demo/src/**/*.test.ts',
      'standins/src/**/*.test.ts',
      'docs/*.test.ts',
    ],
    testTimeout: 60_000,
    hookTimeout: 120_000,
  },
});

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
    // One core less than there are, which is usual, would leave one idle where there are two.
    maxWorkers: 2,
    // Modules are read once for many files: none of them keeps anything that another one would meet.
    isolate: false,
    // Nothing is tested by its time. A machine with ten times as much to do as it has cores meets these.
    testTimeout: 600_000,
    hookTimeout: 600_000,
  },
});

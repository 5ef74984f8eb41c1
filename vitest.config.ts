import { defineConfig } from 'vitest/config';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: ['src/**/*.test.ts'],
    setupFiles: ['vitest.setup.ts'],
    // One core is left for whoever watches otherwise; here nobody does.
    maxWorkers: availableParallelism(),
    testTimeout: 120_000,
    hookTimeout: 120_000,
    // `npm test` asks for it: vitest run --coverage.
    coverage: {
      provider: 'v8',
      include: ['src/**'],
      exclude: ['**/*.test.ts', '**/*.d.ts', 'src/core/testing/**', 'src/core/render/*/assembly/**'],
      reporter: ['json'],
      reportsDirectory: 'tmp/coverage',
    },
  },
});

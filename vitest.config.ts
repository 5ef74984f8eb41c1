import { defineConfig } from 'vitest/config';
import { fileURLToPath } from 'node:url';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: ['src/**/*.test.ts'],
    setupFiles: ['vitest.setup.ts'],
    testTimeout: 120_000,
    hookTimeout: 120_000,
    // `npm test` asks for it: vitest run --coverage.
    coverage: {
      provider: 'v8',
      include: ['src/**'],
      exclude: ['**/*.test.ts', '**/*.d.ts', 'src/core/testing/**', 'src/core/render/kernel/assembly/**'],
      reporter: ['json'],
      reportsDirectory: 'tmp/coverage',
    },
  },
});

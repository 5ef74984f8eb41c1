import { defineConfig } from 'vitest/config';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    // Files share what they have imported, which is a third of their time; those of the studio stand in for modules, and each has its own.
    projects: [
      { extends: true, test: { name: 'core', include: ['src/**/*.test.ts', 'bench/**/*.test.ts'], exclude: ['src/studio/**'], isolate: false } },
      { extends: true, test: { name: 'studio', include: ['src/studio/**/*.test.ts'] } },
    ],
    setupFiles: ['vitest.setup.ts'],
    // One core is left for whoever watches otherwise; here nobody does.
    maxWorkers: availableParallelism(),
    testTimeout: 300_000,
    hookTimeout: 300_000,
    // `npm run coverage` asks for it.
    coverage: {
      provider: 'v8',
      include: ['src/**'],
      exclude: ['**/*.test.ts', '**/*.d.ts', 'src/core/testing/**', 'src/core/render/*/assembly/**'],
      reporter: ['json'],
      reportsDirectory: 'tmp/coverage',
    },
  },
});

import { defineConfig } from '@playwright/test';

const PORT = 3217;

/** The interface in Chromium, against the production build with a database of its own. */
export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  fullyParallel: false,
  workers: 1,
  // A machine shared with others may stall once; what fails twice has failed.
  retries: process.env.CI ? 1 : 0,
  timeout: 240_000,
  expect: { timeout: 30_000 },
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    // Pages are drawn by the processor: a quarter of the pixels takes a quarter of the time, and with fewer the pointer goes in steps too
    // wide. Pictures to look at are taken in full.
    deviceScaleFactor: process.env.LOOK ? 1 : 0.5,
    screenshot: 'only-on-failure',
    actionTimeout: 30_000,
    navigationTimeout: 60_000,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        '--ignore-gpu-blocklist',
        // The page itself is put together without the imitated card, which is for the model alone.
        '--disable-gpu-compositing',
        // Smooth edges take the processor twice the time.
        ...(process.env.LOOK ? [] : ['--webgl-antialiasing-mode=none']),
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        '--disable-quic',
      ],
    },
  },
  webServer: {
    command: `rm -rf tmp/e2e-data && mkdir -p tmp/e2e-data && npx tsx src/cli/main.ts seed && exec node --import tsx src/server/main.ts`,
    url: `http://127.0.0.1:${PORT}`,
    env: { ENSTEGON_DATA: 'tmp/e2e-data', PORT: String(PORT), NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' },
    timeout: 120_000,
    reuseExistingServer: false,
  },
});

import { defineConfig } from '@playwright/test';

/** Options for a headless Chromium from Debian's packages, with WebGL 2 in software. */
export const chromiumLaunch = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    '--ignore-gpu-blocklist',
    '--disable-background-networking',
  ],
};

export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  workers: 2,
  fullyParallel: true,
  // However slow the machine is: what fails is seen, not timed.
  timeout: 300_000,
  expect: { timeout: 300_000 },
  reporter: 'list',
  use: {
    baseURL: 'http://127.0.0.1:4190',
    viewport: { width: 1280, height: 800 },
    launchOptions: chromiumLaunch,
    acceptDownloads: true,
    // Menus that are still closing answer no click; on a slow machine that is long.
    contextOptions: { reducedMotion: 'reduce' },
    // Every test but those about it loads the build from the server, as a first visit does.
    serviceWorkers: 'block',
  },
  webServer: {
    command: 'npm run --silent serve',
    env: { PORT: '4190' },
    url: 'http://127.0.0.1:4190/',
    reuseExistingServer: false,
  },
});

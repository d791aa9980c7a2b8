import { defineConfig, devices } from '@playwright/test';
import { LAUNCH } from './browser.mjs';

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  testIgnore: 'empty/**',
  outputDir: '../var/test/e2e',
  workers: 1,
  fullyParallel: false,
  timeout: 240_000,
  expect: { timeout: 30_000 },
  reporter: 'list',
  use: {
    baseURL: process.env.BASE_URL ?? 'http://127.0.0.1:9700',
    actionTimeout: 30_000,
    viewport: { width: 1280, height: 800 },
    // a browser without a window says so, and pages that report by it are nobody's
    userAgent: devices['Desktop Chrome'].userAgent,
    launchOptions: LAUNCH,
    colorScheme: 'light',
    screenshot: 'only-on-failure',
  },
});

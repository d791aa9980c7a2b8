import { defineConfig } from '@playwright/test';
import { LAUNCH } from './browser.mjs';

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  testIgnore: 'empty/**',
  outputDir: '../var/test/e2e',
  workers: 1,
  fullyParallel: false,
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: 'list',
  use: {
    baseURL: process.env.BASE_URL ?? 'http://127.0.0.1:9700',
    actionTimeout: 20_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: LAUNCH,
    colorScheme: 'light',
    screenshot: 'only-on-failure',
  },
});

import { chromium } from '@playwright/test';

/** Debian's Chromium, quiet on a closed network. */
export const LAUNCH = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--headless',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

export async function open(options = {}) {
  const browser = await chromium.launch(LAUNCH);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options });
  return { browser, context, page: await context.newPage() };
}

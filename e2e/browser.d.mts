import type { Browser, BrowserContext, LaunchOptions, Page } from '@playwright/test';

export const LAUNCH: LaunchOptions;
export function open(options?: object): Promise<{ browser: Browser; context: BrowserContext; page: Page }>;

import type { Page } from '@playwright/test';

type Row = { id: number; externalId: string; name: string };

export function workAtTheDesk(page: Page, port: string): Promise<{ group: Row; ad: Row; campaign: Row }>;

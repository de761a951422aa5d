import type { Page } from '@playwright/test';

/** The job that a page shows, by its address. */
export const jobIdOf = (page: Page): string => /job\/([0-9a-f-]{36})/.exec(page.url())![1]!;

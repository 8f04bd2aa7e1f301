import type { Browser } from 'puppeteer-core';
export function launchBrowser(): Promise<{ browser: Browser; close: () => Promise<void> }>;

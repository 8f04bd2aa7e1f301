import type { Page } from 'puppeteer-core';
import { launchBrowser } from '../../scripts/lib/browser.mjs';

export interface OpenPage {
  readonly page: Page;
  /** Hosts the page asked, other than this machine. */
  readonly strangers: Set<string>;
  /** Errors the page threw or logged. */
  readonly errors: string[];
  readonly close: () => Promise<void>;
}

interface Options {
  readonly width?: number;
  readonly height?: number;
  readonly theme?: 'light' | 'dark';
  /** Makes the page's own clock run this many times faster, so that a run of minutes takes seconds. @default 1 */
  readonly speed?: number;
}

/** A fresh browser with one page that notes every request and error. */
export async function openPage(options: Options = {}): Promise<OpenPage> {
  const { width = 1280, height = 800, theme = 'light', speed = 1 } = options;
  const { browser, close } = await launchBrowser();
  const page = await browser.newPage();
  await page.setViewport({ width, height });
  await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: theme }]);
  const strangers = new Set<string>();
  const errors: string[] = [];
  page.on('request', (request) => {
    const { hostname } = new URL(request.url());
    if (!['127.0.0.1', ''].includes(hostname)) strangers.add(hostname);
  });
  page.on('pageerror', (error) => errors.push(error instanceof Error ? error.message : String(error)));
  page.on('console', (message) => {
    // Refused requests are part of the walk and asserted where they happen.
    if (message.type() === 'error' && !message.text().includes('status of 4')) errors.push(message.text());
  });
  if (speed !== 1) {
    await page.evaluateOnNewDocument((factor: number) => {
      const real = performance.now.bind(performance);
      performance.now = () => real() * factor;
    }, speed);
  }
  return { page, strangers, errors, close };
}

import type { Page } from 'puppeteer-core';
import puppeteer from 'puppeteer-core';
import { inject } from 'vitest';

/** A window of its own with one page that notes every request and error. */
export interface OpenPage {
  readonly page: Page;
  /** Hosts the page asked, other than this machine. */
  readonly strangers: Set<string>;
  /** Errors the page threw or logged. */
  readonly errors: string[];
  readonly close: () => Promise<void>;
}

/** How a window looks, and how its clocks run. */
export interface PageOptions {
  readonly width?: number;
  readonly height?: number;
  /** Whether the system asks for less motion; still pictures leave the processor to what is tested. @default true */
  readonly still?: boolean;
  /** Makes the page's own clock run this many times faster, so that a run of minutes takes seconds. @default 1 */
  readonly speed?: number;
  /** Makes what the page does seconds later come this many times sooner, so that a minute of retries takes a second. @default 1 */
  readonly haste?: number;
}

/** The browser of this worker, shared by its files one after the other. */
function browserOfWorker() {
  const all = inject('browsers');
  const browserWSEndpoint = all[(Number(process.env.VITEST_POOL_ID ?? 1) - 1) % all.length];
  return puppeteer.connect({ browserWSEndpoint: browserWSEndpoint ?? '', defaultViewport: null });
}

/** Sets what the page's system prefers. */
export function emulates(page: Page, theme: 'light' | 'dark', still = true): Promise<void> {
  return page.emulateMediaFeatures([
    { name: 'prefers-color-scheme', value: theme },
    { name: 'prefers-reduced-motion', value: still ? 'reduce' : 'no-preference' },
  ]);
}

/** What is waited for is looked for twenty times a second, not at every frame: reading a whole page costs a frame. */
function looksForThingsByTheClock(page: Page): void {
  const everyFrame = page.waitForFunction.bind(page);
  page.waitForFunction = (look, options, ...args) => everyFrame(look, { polling: 50, ...options }, ...args);
}

/** Opens a window that shares nothing with others: no cookies, no storage, no cache. */
export async function openPage(options: PageOptions = {}): Promise<OpenPage> {
  const { width = 1280, height = 800, still = true, speed = 1, haste = 1 } = options;
  const browser = await browserOfWorker();
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  await page.setViewport({ width, height });
  looksForThingsByTheClock(page);
  await emulates(page, 'light', still);
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
  await page.evaluateOnNewDocument(
    (clock: number, sooner: number) => {
      const now = performance.now.bind(performance);
      if (clock !== 1) performance.now = () => now() * clock;
      const later = window.setTimeout.bind(window);
      if (sooner !== 1)
        window.setTimeout = ((work: TimerHandler, ms = 0, ...rest: unknown[]) =>
          later(work, ms < 2000 ? ms : ms / sooner, ...rest)) as typeof window.setTimeout;
    },
    speed,
    haste,
  );
  const close = async () => {
    await context.close();
    await browser.disconnect();
  };
  return { page, strangers, errors, close };
}

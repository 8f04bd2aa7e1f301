import type { TestProject } from 'vitest/node';
import { launchBrowser } from '../scripts/lib/browser.mjs';
import { throwawayProduct } from '../scripts/lib/throwaway.mjs';
import { copiedDatabase, startProduct } from './driver/product.ts';

declare module 'vitest' {
  export interface ProvidedContext {
    /** The product every file shares. */
    product: { readonly base: string; readonly databaseUrl: string };
    /** What a server is told, on the demo data as it was laid: nothing is connected to it, so it can be copied. */
    laid: Record<string, string>;
    /** Where to reach the browsers, one for each worker. */
    browsers: string[];
  }
}

/** As many files as run beside each other, and browsers they run in. */
const BROWSERS = 2;

/**
 * One product on one copy of the demo data, and two browsers, for all files that leave them running. The demo data may
 * have been laid already (`YONDER_LAID`, by scripts/test.mjs, while the static checks ran).
 */
export default async function setup(project: TestProject) {
  const laid = process.env.YONDER_LAID;
  const { environment, end } = laid
    ? { environment: JSON.parse(laid) as Record<string, string>, end: async () => undefined }
    : await throwawayProduct('e2e');
  const { url, drop } = await copiedDatabase(environment);
  const [product, ...browsers] = await Promise.all([
    startProduct({ ...environment, DATABASE_URL: url }),
    ...Array.from({ length: BROWSERS }, () => launchBrowser()),
  ]);
  project.provide('laid', environment);
  project.provide('product', { base: product.base, databaseUrl: url });
  project.provide(
    'browsers',
    browsers.map(({ browser }) => browser.wsEndpoint()),
  );
  return async () => {
    await Promise.all([product.stop(), ...browsers.map(({ close }) => close())]);
    await drop();
    await end();
  };
}

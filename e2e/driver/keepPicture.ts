import { mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import type { Page } from 'puppeteer-core';

const FOLDER = resolve(import.meta.dirname, '../../.tmp');

/** After a failed test: what the page showed, in .tmp/ (not in git). */
export async function keepPicture(
  page: Page,
  task: { name: string; result?: { state?: string } },
): Promise<void> {
  if (task.result?.state !== 'fail') return;
  mkdirSync(FOLDER, { recursive: true });
  const name = task.name.replace(/[^a-z0-9]+/gi, '-').slice(0, 40);
  await page.screenshot({ path: `${FOLDER}/${name}.png` as `${string}.png` });
}

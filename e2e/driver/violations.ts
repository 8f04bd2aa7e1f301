import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type axe from 'axe-core';
import type { Page } from 'puppeteer-core';
import { emulates } from './openPage.ts';
import type { OpenPage } from './openPage.ts';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What axe looks for; in the other theme, what colours alone can break. */
const LIGHT: axe.RunOnly = {
  type: 'tag',
  values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
};
const DARK: axe.RunOnly = { type: 'rule', values: ['color-contrast', 'link-in-text-block'] };

async function look(page: Page, runOnly: axe.RunOnly): Promise<string[]> {
  return page.evaluate(async (only) => {
    const { axe: tool } = window as unknown as { axe: typeof axe };
    const { violations: found } = await tool.run(document, { runOnly: only, resultTypes: ['violations'] });
    return found.flatMap((v) =>
      v.nodes.map((node) => `${v.id}: ${node.target.join(' ')} ${node.failureSummary ?? ''}`),
    );
  }, runOnly);
}

/** Turns the system's theme, and waits until the page is drawn in it. */
async function turnsTheme(page: Page, theme: 'light' | 'dark'): Promise<void> {
  await emulates(page, theme);
  await page.waitForFunction(
    (wanted: string) => document.documentElement.dataset.mantineColorScheme === wanted,
    {},
    theme,
  );
}

/** What axe finds on the page as it stands, in the light and in the dark: rule and element, nothing when all is well. */
export async function violations({ page }: OpenPage): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axeSource);
  // High enough that nothing that stays in sight lies over the end of a list.
  const before = page.viewport();
  if (before) await page.setViewport({ ...before, height: Math.max(before.height, 1800) });
  const inTheLight = await look(page, LIGHT);
  await turnsTheme(page, 'dark');
  const inTheDark = await look(page, DARK);
  await turnsTheme(page, 'light');
  if (before) await page.setViewport(before);
  return [...inTheLight, ...inTheDark.map((fault) => `in the dark: ${fault}`)];
}

import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type axe from 'axe-core';
import type { OpenPage } from './openPage.ts';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Rules that the other theme can break by itself. */
const OF_COLOUR = ['color-contrast', 'link-in-text-block'];

/** What axe finds on the page as it stands: rule and element, nothing when all is well. In the dark, what colours can break. */
export async function violations({ page }: OpenPage, theme: 'light' | 'dark' = 'light'): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axeSource);
  // High enough that nothing that stays in sight lies over the end of a list.
  const before = page.viewport();
  if (before) await page.setViewport({ ...before, height: Math.max(before.height, 1800) });
  const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
  const only = theme === 'light' ? { type: 'tag', values: tags } : { type: 'rule', values: OF_COLOUR };
  const found = await page.evaluate(async (runOnly) => {
    const { axe: tool } = window as unknown as { axe: typeof axe };
    const { violations: found } = await tool.run(document, {
      runOnly: runOnly as axe.RunOnly,
      resultTypes: ['violations'],
    });
    return found.flatMap((v) =>
      v.nodes.map((node) => `${v.id}: ${node.target.join(' ')} ${node.failureSummary ?? ''}`),
    );
  }, only);
  if (before) await page.setViewport(before);
  return found;
}

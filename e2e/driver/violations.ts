import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type axe from 'axe-core';
import type { OpenPage } from './openPage.ts';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What axe finds on the page as it stands: rule and element, nothing when all is well. */
export async function violations({ page }: OpenPage): Promise<string[]> {
  await page.evaluate(axeSource);
  // High enough that nothing that stays in sight lies over the end of a list.
  const before = page.viewport();
  if (before) await page.setViewport({ ...before, height: Math.max(before.height, 1800) });
  const found = await page.evaluate(async () => {
    const { axe: tool } = window as unknown as { axe: typeof axe };
    const { violations: found } = await tool.run(document, {
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
    });
    return found.flatMap((v) =>
      v.nodes.map((node) => `${v.id}: ${node.target.join(' ')} ${node.failureSummary ?? ''}`),
    );
  });
  if (before) await page.setViewport(before);
  return found;
}

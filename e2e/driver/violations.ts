import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type axe from 'axe-core';
import type { OpenPage } from './openPage.ts';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What axe finds on the page as it stands: rule and element, nothing when all is well. */
export async function violations({ page }: OpenPage): Promise<string[]> {
  await page.evaluate(axeSource);
  return page.evaluate(async () => {
    const { axe: tool } = window as unknown as { axe: typeof axe };
    const { violations: found } = await tool.run(document, {
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
    });
    return found.flatMap((v) =>
      v.nodes.map((node) => `${v.id}: ${node.target.join(' ')} ${node.failureSummary ?? ''}`),
    );
  });
}

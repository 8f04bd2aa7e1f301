import type { Finding } from '../findings/index.ts';
import { number } from './figures.ts';

/** How a priority came about: its factors, the cap where it bites, and that a finding set aside has none. */
export function priorityText({ factors, priority, judgement }: Finding): string {
  const { severity, relevance, injury } = factors;
  const product = severity * relevance * injury;
  const factorsText = `${number(severity, 2)} × ${relevance} × ${injury} = ${number(product, 2)}`;
  if (judgement?.verdict === 'dismissed') return `${factorsText}; set aside: 0`;
  return product > priority + 0.005 ? `${factorsText}; at most ${number(priority, 2)}` : factorsText;
}

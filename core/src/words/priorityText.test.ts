import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { stiffAnkle } from '../testing/cases.ts';
import { priorityText, reasonText, sourceText } from './index.ts';
import { eachOf } from '../testing/eachOf.ts';

const finding = (over: object) =>
  ({
    factors: { severity: 0.96, relevance: 1, injury: 1.25 },
    priority: 1,
    judgement: null,
    ...over,
  }) as unknown as Parameters<typeof priorityText>[0];

describe('a priority', () => {
  it('multiplies out in sight', () => {
    const factors = { severity: 0.45, relevance: 1, injury: 1 };
    expect(priorityText(finding({ factors, priority: 0.45 }))).toBe('0.45 × 1 × 1 = 0.45');
  });
  it('names the cap where it bites', () => {
    expect(priorityText(finding({}))).toBe('0.96 × 1 × 1.25 = 1.20; at most 1.00');
  });
  it('says that one set aside has none', () => {
    const text = priorityText(finding({ priority: 0, judgement: { verdict: 'dismissed' } }));
    expect(text).toMatch(/; set aside: 0$/);
  });
  it('is for every finding the product of what is shown, or its cap', () => {
    for (const one of eachOf(assessCase(bundledReference, stiffAnkle()).report.findings)) {
      const [, a, b, c, product, most] =
        /^([\d.]+) × ([\d.]+) × ([\d.]+) = ([\d.]+)(?:; at most ([\d.]+))?$/.exec(priorityText(one)) ?? [];
      expect(Number(product)).toBeCloseTo(Number(a) * Number(b) * Number(c), 1);
      expect(Number(most ?? product)).toBeCloseTo(one.priority, 1);
    }
  });
});

describe('days in sentences', () => {
  it('are written the one way all days are', () => {
    const text = reasonText(bundledReference, { rule: 'confirmed', by: 'R. Halloran', date: '2027-03-01' });
    expect(text).toBe('Confirmed by R. Halloran on 1 Mar 2027.');
    expect(sourceText(bundledReference, { kind: 'trend', id: '2027-02-09' })).toBe('the visit of 9 Feb 2027');
  });
});

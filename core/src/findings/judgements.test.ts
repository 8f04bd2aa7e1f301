import { describe, expect, it } from 'vitest';
import { restrictionWeights } from '../builder/weights.ts';
import type { Judgement } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { reasonText } from '../words/index.ts';
import { ankleResults, stiffAnkle } from '../testing/cases.ts';
import { SEEN_SEVERITY } from './index.ts';
import { assessCase } from '../assess/index.ts';
import { judgeCase } from '../testing/prepared.ts';

const DORSIFLEXION = { restriction: 'ankle-dorsiflexion-limit', side: 'left' as const };
const judgement = (over: Partial<Judgement> = {}): Judgement => ({
  ...DORSIFLEXION,
  verdict: 'dismissed',
  degree: 'clear',
  reason: 'old fracture, bony block',
  by: 'R. Halloran',
  date: '2027-02-28',
  ...over,
});
const judge = (judgements: Judgement[], screenings = stiffAnkle().screenings) => {
  const input = stiffAnkle({ judgements, screenings });
  const report = judgeCase(bundledReference, input);
  const find = (restriction: string, side: string) =>
    report.findings.find((f) => f.restriction === restriction && f.side === side);
  const { weights } = restrictionWeights(assessCase(bundledReference, input), input.request, [], [], null);
  return { report, weights: weights.map((w) => `${w.restriction}/${w.side}`), find };
};
const own = 'ankle-dorsiflexion-limit/left';

describe('a dismissed finding', () => {
  it('keeps its figures, loses its priority, comes last and brings in no drill', () => {
    const before = judge([]).find(DORSIFLEXION.restriction, 'left');
    const { report, find, weights } = judge([judgement()]);
    const after = find(DORSIFLEXION.restriction, 'left');
    expect(after).toMatchObject({ severity: before?.severity, margin: before?.margin, priority: 0 });
    expect(report.findings.findIndex((f) => f === after)).toBeGreaterThan(
      report.findings.findLastIndex((f) => f.priority > 0),
    );
    expect(judge([]).weights).toContain(own);
    expect(weights).not.toContain(own);
    const said = after?.reasons.map((r) => reasonText(bundledReference, r)).join(' ');
    expect(said).toContain('old fracture, bony block');
  });

  it('counts again once it is measured after the dismissal', () => {
    const again = { date: '2027-03-01', results: ankleResults() };
    const { find } = judge([judgement()], [...stiffAnkle().screenings, again]);
    expect(find(DORSIFLEXION.restriction, 'left')).toMatchObject({ judgement: null });
    expect(find(DORSIFLEXION.restriction, 'left')?.priority).toBeGreaterThan(0);
  });

  it('is back when the newest word is another one', () => {
    const { find } = judge([judgement(), judgement({ verdict: 'confirmed', date: '2027-03-01' })]);
    expect(find(DORSIFLEXION.restriction, 'left')).toMatchObject({ judgement: { verdict: 'confirmed' } });
    expect(find(DORSIFLEXION.restriction, 'left')?.priority).toBeGreaterThan(0);
  });
});

describe('a restriction seen by eye', () => {
  it('joins the ranking with the severity of its degree, and the builder serves it', () => {
    const seen = {
      restriction: 'knee-valgus-control-deficit',
      side: 'right' as const,
      verdict: 'seen' as const,
    };
    for (const degree of ['slight', 'clear', 'marked'] as const) {
      const { find, weights } = judge([judgement({ ...seen, degree })]);
      const finding = find(seen.restriction, 'right');
      expect(finding).toMatchObject({ severity: SEEN_SEVERITY[degree], state: 'short', evidence: [] });
      expect(weights).toContain('knee-valgus-control-deficit/right');
    }
  });

  it('never lowers what was measured', () => {
    const measured = judge([]).find(DORSIFLEXION.restriction, 'left');
    const { find } = judge([judgement({ verdict: 'seen', degree: 'slight' })]);
    expect(find(DORSIFLEXION.restriction, 'left')?.severity).toBe(measured?.severity);
  });
});

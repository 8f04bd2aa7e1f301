import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Case, Judgement, Side } from '../domain/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { arbitraryCase, mirrored } from '../testing/arbitraries.ts';
import { compareDates, painPatterns } from './index.ts';
import type { Finding } from './index.ts';
import { judgeCase, standingOf } from '../testing/prepared.ts';
import { forAll } from '../testing/forAll.ts';

const judge = (input: Case) => judgeCase(bundledReference, input);
const keyOf = (f: { restriction: string; side: string }) => `${f.restriction}/${f.side}`;
const verdict = fc.constantFrom('confirmed' as const, 'dismissed' as const, 'seen' as const);
const degree = fc.constantFrom('slight' as const, 'clear' as const, 'marked' as const);
const restriction = fc.constantFrom(...bundledReference.data.restrictions);
const spoken = fc.record({ verdict, degree, restriction, left: fc.boolean() }).map((drawn): Judgement => ({
  restriction: drawn.restriction.id,
  side: drawn.restriction.laterality === 'central' ? 'central' : drawn.left ? 'left' : 'right',
  verdict: drawn.verdict,
  degree: drawn.degree,
  reason: 'because',
  by: 'R. Halloran',
  date: '2027-03-01',
}));
const said = fc.array(spoken, { maxLength: 4 });
const other = (side: Side): Side => (side === 'left' ? 'right' : side === 'right' ? 'left' : side);

describe('what is said of findings, over any case', () => {
  it('never lowers a measured severity, never adds a priority by setting aside, and stays ranked', () => {
    forAll(
      fc.property(arbitraryCase(false), said, (input, judgements) => {
        const before = new Map(judge(input).findings.map((f) => [keyOf(f), f]));
        const after = judge({ ...input, judgements }).findings;
        for (const finding of after) {
          const was = before.get(keyOf(finding));
          if (was) expect(finding.severity).toBeGreaterThanOrEqual(was.severity);
          if (finding.judgement?.verdict === 'dismissed') expect(finding.priority).toBe(0);
        }
        const priorities = after.map((f) => f.priority);
        expect(priorities).toEqual([...priorities].sort((a, b) => b - a));
        expect(new Set(after.map(keyOf)).size).toBe(after.length);
      }),
      40,
    );
  });

  it('touches only what it names', () => {
    forAll(
      fc.property(arbitraryCase(false), said, (input, judgements) => {
        const named = new Set(judgements.map(keyOf));
        const untouched = (findings: readonly Finding[]) => findings.filter((f) => !named.has(keyOf(f)));
        expect(untouched(judge({ ...input, judgements }).findings)).toEqual(untouched(judge(input).findings));
      }),
      60,
    );
  });

  it('a confirmation changes no figure', () => {
    forAll(
      fc.property(arbitraryCase(false), spoken, (input, judgement) => {
        const confirmed = judge({ ...input, judgements: [{ ...judgement, verdict: 'confirmed' }] }).findings;
        const figures = (list: readonly Finding[]) =>
          list.map((f) => [keyOf(f), f.severity, f.priority, f.margin, f.pShort]);
        expect(figures(confirmed)).toEqual(figures(judge(input).findings));
      }),
      60,
    );
  });

  it('swapping the sides of what is said swaps it in the findings', () => {
    forAll(
      fc.property(arbitraryCase(false), said, (input, judgements) => {
        const swapped = judgements.map((j) => ({ ...j, side: other(j.side) }));
        const straight = judge({ ...input, judgements }).findings;
        const crossed = judge({ ...mirrored(input), judgements: swapped }).findings;
        const figures = (list: readonly Finding[], side: (s: Side) => Side) =>
          list
            .map((f) => `${f.restriction}/${side(f.side)} ${f.severity.toFixed(9)} ${f.priority.toFixed(9)}`)
            .sort();
        expect(figures(crossed, (s) => s)).toEqual(figures(straight, other));
      }),
      60,
    );
  });
});

describe('pain patterns and compared dates, over any case', () => {
  const pain = fc.record({
    nrs: fc.integer({ min: 0, max: 10 }),
    aspect: fc.constantFrom(
      'front' as const,
      'back' as const,
      'inner' as const,
      'outer' as const,
      'deep' as const,
    ),
    feel: fc.constantFrom('stretch' as const, 'pinch' as const, 'ache' as const, 'numb' as const),
  });
  const hurting = fc.tuple(arbitraryCase(false), pain).map(([input, felt]) => ({
    ...input,
    screenings: input.screenings.map((s) => ({
      ...s,
      results: s.results.map((r) => ({ ...r, pain: felt })),
    })),
  }));

  it('a suggestion is of the region and side that hurt, and swaps with the sides', () => {
    forAll(
      fc.property(hurting, (input) => {
        const hits = painPatterns(bundledReference, standingOf(input));
        for (const hit of hits) {
          const tested = bundledReference.tests.get(hit.test ?? '');
          expect(hit.region).toBe(tested?.region);
          expect(hit.refer).toBe(hit.restriction === null);
        }
        const crossed = painPatterns(bundledReference, standingOf(mirrored(input)));
        const list = (all: typeof hits, side: (s: Side) => Side) =>
          all.map((h) => `${h.pattern}/${h.test}/${side(h.side)}`).sort();
        expect(list(crossed, (s) => s)).toEqual(list(hits, other));
      }),
      60,
    );
  });

  it('without pain there is no suggestion, whatever the place', () => {
    forAll(
      fc.property(hurting, (input) => {
        const free = {
          ...input,
          screenings: input.screenings.map((s) => ({
            ...s,
            results: s.results.map((r) => ({ ...r, pain: { ...r.pain, nrs: 0 } })),
          })),
        };
        expect(painPatterns(bundledReference, standingOf(free as Case))).toEqual([]);
      }),
      40,
    );
  });

  it('a date compared with itself shows nothing', () => {
    forAll(
      fc.property(arbitraryCase(false), (input) => {
        expect(compareDates(bundledReference, standingOf(input), '2027-02-20', '2027-02-20')).toEqual([]);
      }),
      30,
    );
  });
});

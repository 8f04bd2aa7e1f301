import fc from 'fast-check';
import { describe, expect, expectTypeOf, it } from 'vitest';
import { bundledReference } from '../reference/bundled.ts';
import { arbitraryCase } from '../testing/arbitraries.ts';
import { buildCase, decideCase, judgeCase, prepareCase } from '../testing/prepared.ts';
import { checkRoutine } from '../checks/index.ts';
import { item, stiffAnkle } from '../testing/cases.ts';
import { testSolver } from '../testing/solver.ts';
import { REASON_FIGURES } from './figures.ts';
import { reasonSchema } from './schema.ts';
import type { Reason, ReasonOf } from './index.ts';
import { forAll } from '../testing/forAll.ts';

const solver = await testSolver();

/** What is stored and read back is the very reason that was given. */
function expectStorable(reasons: readonly Reason[]): void {
  expect(reasons.map((reason) => reasonSchema.parse(JSON.parse(JSON.stringify(reason))))).toEqual(reasons);
}

describe('reasons as data', () => {
  it('survive being stored, whatever case they are given for', () => {
    const seen = new Set<string>();
    const note = (reasons: readonly Reason[]) => {
      expectStorable(reasons);
      reasons.forEach((r) => seen.add(r.rule));
    };
    forAll(
      fc.property(arbitraryCase(true), (input) => {
        note(judgeCase(bundledReference, input).findings.flatMap((f) => f.reasons));
        const built = buildCase(bundledReference, input, solver);
        note([...(built.routine?.items.flatMap((i) => i.reasons) ?? []), ...built.warnings]);
        note(built.unserved.map((u) => u.because));
        const checks = checkRoutine(prepareCase(bundledReference, input), built.routine?.items ?? []);
        note(checks.flatMap((c) => (c.repair ? [c.reason, c.repair.does] : [c.reason])));
      }),
      8,
    );
    note(
      decideCase(
        bundledReference,
        stiffAnkle({ routine: { issued: '2027-02-15', mode: 'prepare', items: [item('cat-camel')] } }),
      ).decisions.flatMap((d) => d.reasons),
    );
    expect(seen.size).toBeGreaterThan(18);
  });
  it('refuse a rule nobody knows, a figure too many and a figure too few', () => {
    const whole: ReasonOf<'long-break'> = { rule: 'long-break', days: 30, steps: 1 };
    expect(reasonSchema.safeParse(whole).success).toBe(true);
    expect(reasonSchema.safeParse({ ...whole, rule: 'short-break' }).success).toBe(false);
    expect(reasonSchema.safeParse({ ...whole, weeks: 4 }).success).toBe(false);
    expect(reasonSchema.safeParse({ rule: 'long-break' }).success).toBe(false);
    expect(Object.keys(REASON_FIGURES).length).toBeGreaterThan(90);
  });
  it('do not compile with a missing or misspelt figure', () => {
    // @ts-expect-error a figure is missing
    const missing: Reason = { rule: 'long-break' };
    // @ts-expect-error the figure is called days
    const misspelt: Reason = { rule: 'long-break', day: 3 };
    expect([missing, misspelt]).toHaveLength(2);
    expectTypeOf<ReasonOf<'guard-test'>['probability']>().toEqualTypeOf<number | null>();
  });
});

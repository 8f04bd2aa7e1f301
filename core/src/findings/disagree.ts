import type { Estimate } from '../estimate/index.ts';
import type { Reference, Restriction, Test } from '../reference/index.ts';
import type { ReasonOf } from '../reasons/index.ts';
import type { Evidence } from './types.ts';

/** 95 % of single readings lie within so many standard errors of what they measure. */
export const READING_95 = 1.96;

/** Does the latest reading lie further from the estimate than a single reading errs? Then both are said. */
export function isApart(test: Test, { mean, sd, last }: Estimate): boolean {
  return sd !== null && Math.abs(last.value - mean) > READING_95 * test.sem.value;
}

/** How far below a need the worst plausible reading lies, in the unit of the test. */
export function possibleShortfall(test: Test | undefined, need: number): number {
  if (!test) return Infinity;
  return test.better === 'lower' ? test.plausible.max - need : need - test.plausible.min;
}

/** Sources whose rows say by themselves whether a side has what it needs. */
const OWN_NEED: readonly Evidence['needSource']['kind'][] = ['task', 'floor', 'override'];

/** What measures a restriction itself; for other kinds nothing ranks above what is seen. */
const DIRECT: Partial<Record<Restriction['kind'], readonly Test['quantity'][]>> = {
  'range-limit': ['range'],
  'strength-deficit': ['strength', 'endurance-reps', 'endurance-hold'],
};

const isShort = ({ state }: Evidence) => state === 'short' || state === 'likely-short';

/** Is a test a direct measure of a restriction, or a sign of it? */
function isDirect({ tests }: Reference, { kind }: Restriction, id: string): boolean {
  const test = tests.get(id);
  return test !== undefined && (DIRECT[kind]?.includes(test.quantity) ?? false);
}

/**
 * Two tests of one restriction and side of which one says that it is short and another that it is enough, with the test
 * that would settle it: a direct one not yet done, else the one done, again. Null when nothing contradicts.
 */
export function disagreement(
  reference: Reference,
  restriction: Restriction,
  rows: readonly Evidence[],
): ReasonOf<'tests-disagree'> | null {
  const own = rows.filter(
    ({ needSource, painLimited }) => OWN_NEED.includes(needSource.kind) && !painLimited,
  );
  const direct = (test: string) => isDirect(reference, restriction, test);
  const pick = (tests: readonly string[]) => tests.find(direct) ?? tests[0];
  const short = own.filter((row) => isShort(row)).map(({ test }) => test);
  const enough = own
    .map(({ test }) => test)
    .filter((test) => own.every((row) => row.test !== test || row.state === 'enough'));
  const [says, but] = [pick(short), pick(enough)];
  if (says === undefined || but === undefined) return null;
  const done = new Set(rows.map(({ test }) => test));
  const another = restriction.tests.find(
    (id) => !done.has(id) && direct(id) && !reference.tests.get(id)?.derivedFrom,
  );
  return {
    rule: 'tests-disagree',
    short: says,
    enough: but,
    measured: direct(says) === direct(but) ? null : direct(says) ? says : but,
    settle: another ?? pick([says, but]) ?? says,
    again: another === undefined,
  };
}

/** Rows in which a sign that a direct measure contradicts counts half. */
export function outweighed(
  reference: Reference,
  restriction: Restriction,
  rows: readonly Evidence[],
  clash: ReasonOf<'tests-disagree'> | null,
): Evidence[] {
  if (!clash || clash.measured !== clash.enough) return [...rows];
  return rows.map((row) =>
    isShort(row) && !isDirect(reference, restriction, row.test)
      ? { ...row, severity: row.severity / 2 }
      : row,
  );
}

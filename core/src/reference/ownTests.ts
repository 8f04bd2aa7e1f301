import type { OwnTest } from '../domain/index.ts';
import { MDC95_PER_SEM } from './figures.ts';
import type { Restriction, Test } from './types.ts';

const BY_PRACTICE = 'set by the practice';
/** Share of a test's error that an athlete's true value may wander in a week; as for the shipped planning values. */
const DRIFT_PER_WEEK = 0.4;

/** A test of a practice's own in the form of a shipped one: what was not said has the plainest value. */
function testOf(own: OwnTest): Test {
  const { sem, cutOff, unit, plausible, ...rest } = own;
  const lower = own.better === 'lower';
  return {
    ...rest,
    unit,
    plausible,
    movement: own.id,
    equipment: '',
    trials: { count: 1, aggregate: 'best' },
    sem: { value: sem, unit, basis: BY_PRACTICE },
    mdc95: { value: MDC95_PER_SEM * sem, unit, derivation: 'computed 2.77 × SEM' },
    reference: { low: plausible.min, high: plausible.max, population: BY_PRACTICE, note: '' },
    flag: {
      deficit: cutOff === null ? null : { ...(lower ? { above: cutOff } : { below: cutOff }), unit },
      asymmetry: null,
    },
    cautions: '',
    youthNote: null,
    timeSeconds: 60,
    position: 'standing',
    youthOk: true,
    trialsInSem: 1,
    processSdPerWeek: { value: DRIFT_PER_WEEK * sem, unit, confidence: 'low', basis: BY_PRACTICE },
    cvLimitPercent: null,
    spreadLimit: null,
    retrial: 'single value: no spread rule',
    source: 'convention',
    sourceStatus: BY_PRACTICE,
    confidence: 'low',
    confidenceBy: { error: 'low', reference: 'low', flag: 'low' },
  };
}

/** Tests and restrictions with a practice's own tests in place; one of the same id is replaced. */
export function withOwnTests(
  data: { readonly tests: readonly Test[]; readonly restrictions: readonly Restriction[] },
  own: readonly OwnTest[],
): { tests: Test[]; restrictions: Restriction[] } {
  const ids = new Set(own.map(({ id }) => id));
  return {
    tests: [...data.tests.filter(({ id }) => !ids.has(id)), ...own.map(testOf)],
    restrictions: data.restrictions.map((restriction) => ({
      ...restriction,
      tests: [
        ...restriction.tests.filter((id) => !ids.has(id)),
        ...own.filter(({ informs }) => informs.includes(restriction.id)).map(({ id }) => id),
      ],
    })),
  };
}

import type { Reference } from './createReference.ts';
import type { Drill, Test } from './types.ts';

/** Units of tests in which a measure of a dose is counted. */
const COUNTED_IN: Partial<Record<Drill['dose']['measure'], Test['unit']>> = {
  reps: 'reps',
  'hold-seconds': 's',
  seconds: 's',
};

/** The test whose maximum a drill's dose is a share of; null where there is none, or it counts something else than the dose. */
export function doseTestOf(reference: Pick<Reference, 'tests'>, { doseTest, dose }: Drill): Test | null {
  const test = reference.tests.get(doseTest ?? '');
  return test && test.unit === COUNTED_IN[dose.measure] ? test : null;
}

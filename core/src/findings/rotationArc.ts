import type { Standing, Side } from '../domain/index.ts';
import type { TestSide } from './capacities.ts';
import { testSideKey } from './visits.ts';

/** Tasks whose lead arm is a throwing shoulder. */
const THROWING_TASKS = new Set(['overhead-throw', 'tennis-serve', 'volleyball-jump']);
/** The two tests whose sum is the total arc of a shoulder. */
export const ROTATION_TESTS = { internal: 'shoulder-ir-range', external: 'shoulder-er-range' } as const;

/** Total rotation arc of one shoulder in degrees with its SEM-based MDC95 (FORMULAS 4). */
export function rotationArc(
  estimates: ReadonlyMap<string, TestSide>,
  side: Side,
): { arc: number; mdc95: number } | null {
  const ir = estimates.get(testSideKey(ROTATION_TESTS.internal, side));
  const er = estimates.get(testSideKey(ROTATION_TESTS.external, side));
  if (!ir || !er) return null;
  const sem = Math.sqrt(ir.test.sem.value ** 2 + er.test.sem.value ** 2);
  return { arc: ir.estimate.mean + er.estimate.mean, mdc95: 1.96 * Math.SQRT2 * sem };
}

function isThrowingShoulder(athlete: Standing['athlete'], side: Side): boolean {
  return athlete.tasks.some(
    (task) => THROWING_TASKS.has(task.id) && (task.lead === side || task.lead === 'either'),
  );
}

/**
 * School `by-arc`: may low internal rotation of this shoulder count? Only if its total arc is below the other side's
 * by at least the arc's own MDC95; for shoulders that do not throw it always counts.
 */
export function internalRotationCounts(
  estimates: ReadonlyMap<string, TestSide>,
  athlete: Standing['athlete'],
  side: Side,
  option: string,
): boolean {
  if (option !== 'by-arc' || !isThrowingShoulder(athlete, side)) return true;
  const own = rotationArc(estimates, side);
  const other = rotationArc(estimates, side === 'left' ? 'right' : 'left');
  return own !== null && other !== null && other.arc - own.arc >= own.mdc95;
}

/** Total rotation arcs of both shoulders in degrees, their difference and whether it is beyond the arc's own error. */
export interface RotationArcs {
  readonly left: number;
  readonly right: number;
  /** Left minus right. */
  readonly difference: number;
  readonly mdc95: number;
  readonly beyondError: boolean;
}

/** Both arcs, once both rotations of both shoulders were measured; else null. */
export function compareArcs(estimates: ReadonlyMap<string, TestSide>): RotationArcs | null {
  const left = rotationArc(estimates, 'left');
  const right = rotationArc(estimates, 'right');
  if (!left || !right) return null;
  const difference = left.arc - right.arc;
  const { mdc95 } = left;
  return { left: left.arc, right: right.arc, difference, mdc95, beyondError: Math.abs(difference) >= mdc95 };
}

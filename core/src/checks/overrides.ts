import type { Barrier, Rule } from '../reasons/index.ts';
import type { Check } from './types.ts';

/** Rules that a version may only go against with a reason that is stored with it. */
const WITH_REASON: ReadonlySet<Rule> = new Set([
  'not-at-hand',
  'beyond-range',
  'too-many-sets',
  'too-close-to-failure',
  'drill-repeated',
  'too-hard',
] satisfies Rule[]);

/** What kind of day and school a drill is meant for is advice; it needs no reason. */
const ADVICE: ReadonlySet<Barrier> = new Set(['school', 'timing', 'mode'] satisfies Barrier[]);

/** The checks of a routine that need a practitioner's reason before it may be issued. */
export function needReason(checks: readonly Check[]): Check[] {
  return checks.filter(
    ({ level, reason }) =>
      level === 'warn' &&
      WITH_REASON.has(reason.rule) &&
      !(reason.rule === 'not-at-hand' && ADVICE.has(reason.because)),
  );
}

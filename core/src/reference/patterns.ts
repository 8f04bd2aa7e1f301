import type { Reference } from './createReference.ts';
import type { Drill } from './types.ts';

/** Categories that prepare an action without ever being it: they open a range or calm, whatever their ladder. */
const NEVER_THE_ACTION: readonly Drill['category'][] = ['mobilise', 'stretch', 'release'];

/**
 * How near a drill comes to a pattern, 0 (not at all) to 1 (the action itself): its own tag, else its ladder's. Puts
 * drills in order; for what rehearses the action see `rehearsalTag`.
 */
export function patternTag(reference: Reference, drill: Drill, pattern: string): number {
  return drill.patterns?.[pattern] ?? reference.patterns.get(pattern)?.ladders[drill.ladder] ?? 0;
}

/** How nearly a drill rehearses a pattern: as `patternTag`, but mobility never counts as rehearsal. */
export function rehearsalTag(reference: Reference, drill: Drill, pattern: string): number {
  return NEVER_THE_ACTION.includes(drill.category) ? 0 : patternTag(reference, drill, pattern);
}

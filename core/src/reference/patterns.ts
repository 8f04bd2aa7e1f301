import type { Reference } from './createReference.ts';
import type { Drill } from './types.ts';

/** How nearly a drill rehearses a pattern, 0 (not at all) to 1 (the action itself): its own tag, else its ladder's. */
export function patternTag(reference: Reference, drill: Drill, pattern: string): number {
  return drill.patterns?.[pattern] ?? reference.patterns.get(pattern)?.ladders[drill.ladder] ?? 0;
}

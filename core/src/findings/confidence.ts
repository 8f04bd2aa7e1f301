import type { Reference } from '../reference/index.ts';
import type { Evidence } from './types.ts';

/** How far a need can be relied on: that of the figure itself, not of the test; null for what was set by hand. */
export function needConfidence(
  { tests, demands }: Reference,
  { test: id, needSource }: Pick<Evidence, 'test' | 'needSource'>,
): 'high' | 'medium' | 'low' | null {
  const by = tests.get(id)?.confidenceBy;
  switch (needSource.kind) {
    case 'task':
      return demands.get(needSource.id)?.demands.find(({ test }) => test === id)?.confidence ?? 'low';
    case 'floor':
    case 'symmetry':
      return by?.flag ?? 'low';
    case 'trend':
      return by?.error ?? 'low';
    case 'ratio':
      return 'low';
    case 'override':
      return null;
  }
}

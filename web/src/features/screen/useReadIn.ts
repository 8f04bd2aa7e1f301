import { useLocalStorage } from '@mantine/hooks';
import type { ScreeningRow } from '@yonder/core/contracts';
import type { Side } from '@yonder/core/domain';
import type { Test } from '@yonder/core/reference';
import { forget, keep, keptAt } from '../../app/kept/store.ts';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { conversionOf, needsLever } from './convert.ts';
import type { Measured } from './convert.ts';
import { entryOf } from './entry.ts';

/** How the fields of a test start: as measured where the story has what that takes, or as chosen on this device last. */
export function useReadIn(test: Test, earlier: readonly ScreeningRow[]) {
  const { athlete, case: input } = useWorkspace();
  const [typedIn, remember] = useLocalStorage<'measured' | 'test'>({
    key: `typed-in/${test.unit}`,
    defaultValue: 'measured',
    getInitialValueInEffect: false,
  });
  const key = `lever/${athlete.id}/${test.id}`;
  /** The lever arm typed on this device, or that of the athlete's last visit with this test. */
  const lastLever = (side: Side) => {
    const typed = keptAt<number>(key);
    if (typed) return typed;
    for (const visit of earlier) {
      const row = visit.results.find((r) => r.test === test.id && r.side === side);
      const lever = entryOf(row).measured?.lever;
      if (lever) return lever;
    }
    return null;
  };
  const wayOf = (side: Side): Measured | null => {
    const way = conversionOf(test, input.athlete, side);
    if (!way || 'missing' in way) return null;
    return needsLever(test) ? { ...way.measured, lever: lastLever(side) } : way.measured;
  };
  return {
    /** How a side that holds nothing yet is read. */
    fresh: (side: Side) => (typedIn === 'measured' ? wayOf(side) : null),
    /** How a side is read as measured. */
    wayOf,
    /** Keeps a lever arm typed before any trial: a reload finds it again. */
    keepLever: (lever: number | null) => (lever ? keep(key, lever) : forget(key)),
    remember: (asMeasured: boolean) => remember(asMeasured ? 'measured' : 'test'),
  };
}

import type { Region } from '@yonder/core/domain';
import { assess } from '@yonder/core/assess';
import { proposeBattery } from '@yonder/core/findings';
import type { Battery } from '@yonder/core/findings';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { useReference } from '../../app/reference.tsx';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';

export const BATTERY_MINUTES = { default: 15, min: 3, max: 120 } as const;

export interface BatteryScope {
  /** The region of the rail, or the battery proposed for the visit. */
  readonly scope: 'region' | 'battery';
  readonly minutes: number;
  readonly battery: Battery;
  /** Regions that the battery tests. */
  readonly regions: readonly Region[];
  readonly setScope: (scope: 'region' | 'battery') => void;
  readonly setMinutes: (minutes: number) => void;
}

/** What the visit holds; kept in the address. The battery follows from earlier visits alone, so that it stays as it is while results come in. */
export function useBattery(): BatteryScope {
  const reference = useReference();
  const { assessment, on } = useWorkspace();
  const [search, setSearch] = useSearchParams();
  const scope = search.get('scope') === 'battery' ? 'battery' : 'region';
  const typed = Number(search.get('minutes'));
  const { default: usual, min, max } = BATTERY_MINUTES;
  const minutes = typed >= min && typed <= max ? typed : usual;
  const battery = useMemo(() => {
    const { standing } = assessment;
    const screenings = standing.screenings.filter((s) => s.date < on);
    const before = screenings.length === standing.screenings.length;
    return proposeBattery(
      before
        ? assessment
        : assess({ ...standing, reference: assessment.reference }, { ...standing, screenings }, on),
      minutes,
    );
  }, [assessment, on, minutes]);
  const regions = battery.tests.flatMap(({ test }) => {
    const region = reference.tests.get(test)?.region;
    return region && region !== 'whole-body' ? [region] : [];
  });
  const set = (key: string, value: string) =>
    setSearch(
      (current) => {
        current.set(key, value);
        return current;
      },
      { replace: true },
    );
  return {
    scope,
    minutes,
    battery,
    regions: [...new Set(regions)],
    setScope: (next) => set('scope', next),
    setMinutes: (next) => set('minutes', String(next)),
  };
}

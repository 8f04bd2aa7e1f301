import type { RoutineRow } from '@yonder/core/contracts';
import { useMemo } from 'react';
import { useWorkspace } from '../athletes/WorkspaceContext.tsx';
import { useRoutinesQuery } from './routineEndpoints.ts';

/** The versions of the occasion at hand, newest first; undefined while they load. */
export function useVersions(): readonly RoutineRow[] | undefined {
  const { athlete, occasion } = useWorkspace();
  const { data } = useRoutinesQuery(athlete.id);
  return useMemo(() => data?.filter((routine) => routine.occasion === occasion), [data, occasion]);
}

import { looserTraits, requiredPrecautions, sourceOf } from '@yonder/core/reference';
import type { Drill, OwnDrill } from '@yonder/core/reference';
import { useCallback } from 'react';
import { useBundledReference } from '../../../app/reference.tsx';
import { useFiguresQuery } from '../../figures/figureEndpoints.ts';

/** Tells what a drill as it is typed is looser in than what it comes from: ids or words; none when it is as tight. */
export function useLooser(): (values: OwnDrill) => { source: Drill | null; traits: string[] } {
  const { drills: shipped, data } = useBundledReference();
  const { data: figures } = useFiguresQuery();
  return useCallback(
    (values) => {
      const own = new Map((figures?.drills ?? []).map(({ drill }) => [drill.id, drill]));
      const source = sourceOf(shipped, own, values);
      const contraindications = [
        ...values.contraindications,
        ...requiredPrecautions(values, data.precautions),
      ];
      return { source, traits: looserTraits({ ...values, contraindications }, source) };
    },
    [shipped, data, figures],
  );
}

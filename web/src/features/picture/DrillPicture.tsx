import type { ItemSide } from '@yonder/core/domain';
import type { Drill } from '@yonder/core/reference';
import { useMemo } from 'react';
import { MovingPicture } from './MovingPicture.tsx';
import { usePicture } from './usePicture.ts';

interface Props {
  /** The drill shown. */
  drill: Drill;
  /** Which side works at first; the one it is drawn with where left out. */
  side?: ItemSide | undefined;
}

/** A drill as a large picture that moves on press; nothing where it has none. */
export function DrillPicture({ drill, side }: Props) {
  const figure = usePicture(drill);
  const { tempo, secondsPerRep, holdSeconds } = drill.dose;
  const rhythm = useMemo(() => ({ tempo, secondsPerRep, holdSeconds }), [tempo, secondsPerRep, holdSeconds]);
  if (!figure) return null;
  return (
    <MovingPicture
      key={drill.id}
      figure={figure}
      label={drill.athleteText}
      rhythm={rhythm}
      side={side === 'left' || side === 'right' ? side : undefined}
      sided={drill.unilateral || drill.alternating}
    />
  );
}

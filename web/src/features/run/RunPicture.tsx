import { useReducedMotion } from '@mantine/hooks';
import type { RoutineItem } from '@yonder/core/domain';
import type { Segment } from '@yonder/core/dose';
import { cycleSeconds, movesOf, poseAt, turnedFor } from '@yonder/core/figure';
import type { SolvedFigure } from '@yonder/core/figure';
import type { Drill } from '@yonder/core/reference';
import { Picture } from '../picture/Picture.tsx';
import { usePicture } from '../picture/usePicture.ts';
import classes from './Run.module.css';

/** The pose at this second, in step with the count; undefined = the position that stands for the drill. */
function poseNow(figure: SolvedFigure, drill: Drill, item: RoutineItem, segment: Segment, elapsed: number) {
  if (segment.kind !== 'work' || drill.dose.measure === 'hold-seconds') return undefined;
  const each = segment.secondsPerRep;
  const moves = movesOf(figure, {
    tempo: item.tempo ?? drill.dose.tempo,
    secondsPerRep: each,
    holdSeconds: item.holdSeconds,
  });
  const seconds = each ? ((elapsed % each) / each) * cycleSeconds(moves) : elapsed;
  return poseAt(figure, moves, seconds);
}

interface Props {
  /** The drill of this second. */
  drill: Drill;
  /** Its line. */
  item: RoutineItem;
  /** What is done. */
  segment: Segment;
  /** Seconds of it that are over. */
  elapsed: number;
}

/** The drill as a picture beside the count: out and back with each repetition, still while something is held. */
export function RunPicture({ drill, item, segment, elapsed }: Props) {
  const figure = usePicture(drill);
  const still = useReducedMotion();
  if (!figure) return null;
  const pose = still ? undefined : poseNow(figure, drill, item, segment, elapsed);
  return (
    <div className={classes.shown}>
      <Picture
        figure={figure}
        label={drill.athleteText}
        pose={pose}
        plain={pose !== undefined}
        mirrored={turnedFor(figure, segment.side)}
      />
    </div>
  );
}

import { ActionIcon } from '@mantine/core';
import { useReducedMotion } from '@mantine/hooks';
import { IconFlipVertical, IconPlayerPause, IconPlayerPlay } from '@tabler/icons-react';
import { movesOf, ownSide, poseAt, turnedFor } from '@yonder/core/figure';
import type { Rhythm, SolvedFigure } from '@yonder/core/figure';
import { useMemo, useState } from 'react';
import { Picture } from './Picture.tsx';
import classes from './Picture.module.css';
import { useSeconds } from './useSeconds.ts';

interface Props {
  /** What is drawn. */
  figure: SolvedFigure;
  /** What is done, in words. */
  label: string;
  /** How fast, and what is held. */
  rhythm: Rhythm;
  /** Which side works at first; the one it is drawn with where left out. */
  side?: 'left' | 'right' | undefined;
  /** Both sides can be looked at. */
  sided: boolean;
}

/** A large picture of a drill, which moves on press: out, held, back, at its tempo. Who wants no motion steps from position to position. */
export function MovingPicture({ figure, label, rhythm, side, sided }: Props) {
  const still = useReducedMotion();
  const [playing, setPlaying] = useState(false);
  const [step, setStep] = useState<number | null>(null);
  const [turned, setTurned] = useState(false);
  const meant = side ?? ownSide(figure);
  const other = meant === 'left' ? 'right' : 'left';
  const [shown, hidden] = turned ? [other, meant] : [meant, other];
  const moves = useMemo(() => movesOf(figure, rhythm), [figure, rhythm]);
  const seconds = useSeconds(playing && !still);
  const pose =
    playing && !still ? poseAt(figure, moves, seconds) : step === null ? undefined : figure.poses[step];
  const press = () => {
    if (still) setStep(((step ?? figure.shown) + 1) % figure.poses.length);
    else setPlaying(!playing);
  };
  const named = still ? 'Next position' : playing ? 'Stop the picture' : 'Play the picture';
  return (
    <div className={classes.moving}>
      <Picture
        figure={figure}
        label={label}
        pose={pose}
        plain={playing && !still}
        mirrored={turnedFor(figure, shown)}
      />
      <div className={classes.tools}>
        {sided ? (
          <ActionIcon
            variant="default"
            aria-label={`Show the ${hidden} side`}
            title={`Show the ${hidden} side`}
            onClick={() => setTurned(!turned)}
          >
            <IconFlipVertical size={17} />
          </ActionIcon>
        ) : null}
        {moves.length > 0 ? (
          <ActionIcon variant="filled" aria-label={named} title={named} onClick={press}>
            {playing && !still ? <IconPlayerPause size={17} /> : <IconPlayerPlay size={17} />}
          </ActionIcon>
        ) : null}
      </div>
    </div>
  );
}

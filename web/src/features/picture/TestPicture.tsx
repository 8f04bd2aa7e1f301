import { ActionIcon } from '@mantine/core';
import { useReducedMotion } from '@mantine/hooks';
import { IconPlayerPause, IconPlayerPlay } from '@tabler/icons-react';
import { movesOf, ownSide, poseAt } from '@yonder/core/figure';
import type { Test } from '@yonder/core/reference';
import { useState } from 'react';
import { Picture } from './Picture.tsx';
import classes from './Picture.module.css';
import { useTestPicture } from './usePicture.ts';
import { useSeconds } from './useSeconds.ts';

/** How a test is shown: out and back in four seconds, whatever it is. */
const RHYTHM = { tempo: null, secondsPerRep: 4, holdSeconds: null };

/** Where a test begins and where it ends, with the tape or sensor where it goes; the end moves on press. Nothing where it has no picture. */
export function TestPicture({ test }: { test: Test }) {
  const figure = useTestPicture(test.id);
  const still = useReducedMotion();
  const [playing, setPlaying] = useState(false);
  const seconds = useSeconds(playing);
  if (!figure) return null;
  const moves = movesOf(figure, RHYTHM);
  const moving = playing ? poseAt(figure, moves, seconds) : undefined;
  const { kit, poses, shown } = figure;
  const measured = [
    kit.some(({ type }) => type === 'tape') ? 'the tape' : '',
    kit.some(({ type }) => type === 'sensor') ? 'the sensor' : '',
  ].filter((one) => one !== '');
  const sided = test.flag.asymmetry !== null;
  const views =
    poses.length === 1
      ? [{ name: 'Position', pose: undefined }]
      : [
          { name: 'Start', pose: poses[0] },
          { name: 'End', pose: shown === 0 ? poses.at(-1) : poses[shown] },
        ];
  return (
    <figure className={classes.test}>
      <div>
        {views.map(({ name, pose }) => (
          <div key={name}>
            <Picture
              small
              figure={figure}
              label={`${test.name}: ${name.toLowerCase()}`}
              pose={name === 'End' ? (moving ?? pose) : pose}
              plain={name === 'Start' || playing}
            />
            <span>{name}</span>
            {name === 'End' && !still ? (
              <ActionIcon
                size="sm"
                variant="filled"
                aria-label={playing ? 'Stop the picture' : 'Play the picture'}
                onClick={() => setPlaying(!playing)}
              >
                {playing ? <IconPlayerPause size={13} /> : <IconPlayerPlay size={13} />}
              </ActionIcon>
            ) : null}
          </div>
        ))}
      </div>
      {measured.length > 0 || sided ? (
        <figcaption>
          {measured.length > 0 ? `In gold: ${measured.join(' and ')}.` : ''}{' '}
          {sided ? `The ${ownSide(figure)} side is shown.` : ''}
        </figcaption>
      ) : null}
    </figure>
  );
}

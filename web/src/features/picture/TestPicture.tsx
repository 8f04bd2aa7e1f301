import { ownSide } from '@yonder/core/figure';
import type { Test } from '@yonder/core/reference';
import { Picture } from './Picture.tsx';
import classes from './Picture.module.css';
import { useTestPicture } from './usePicture.ts';

/** Where a test begins and where it ends, with the tape or sensor where it goes; nothing where it has no picture. */
export function TestPicture({ test }: { test: Test }) {
  const figure = useTestPicture(test.id);
  if (!figure) return null;
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
              pose={pose}
              plain={name === 'Start'}
            />
            <span>{name}</span>
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

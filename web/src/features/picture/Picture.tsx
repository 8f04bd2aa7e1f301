import { drawFigure } from '@yonder/core/figure';
import type { DrawOptions, SolvedFigure, Tone } from '@yonder/core/figure';
import { useMemo } from 'react';
import classes from './Picture.module.css';

const tone = (name: Tone | undefined) => (name ? `var(--fig-${name})` : 'none');

interface Props extends Pick<DrawOptions, 'pose' | 'small' | 'mirrored' | 'plain' | 'framedAs'> {
  /** What is drawn. */
  figure: SolvedFigure;
  /** What is to be seen, for those who do not see it; left out where the words stand beside it. */
  label?: string | undefined;
}

/** A figure, drawn from its solved numbers in the colours of the page. */
export function Picture({
  figure,
  label,
  pose,
  small = false,
  mirrored = false,
  plain = false,
  framedAs,
}: Props) {
  const { size, shapes } = useMemo(
    () => drawFigure(figure, { pose, small, mirrored, plain, framedAs }),
    [figure, pose, small, mirrored, plain, framedAs],
  );
  return (
    <svg
      className={classes.picture}
      viewBox={`0 0 ${size} ${size}`}
      {...(label ? { role: 'img', 'aria-label': label } : { 'aria-hidden': true })}
    >
      {shapes.map(({ d, fill, line, width, faint }, i) => (
        <path
          key={i}
          d={d}
          fill={tone(fill)}
          {...(line ? { stroke: tone(line), strokeWidth: width } : {})}
          {...(faint ? { opacity: 0.55 } : {})}
        />
      ))}
    </svg>
  );
}

import type { ItemSide } from '@yonder/core/domain';
import { turnedFor } from '@yonder/core/figure';
import type { Drill } from '@yonder/core/reference';
import { Picture } from './Picture.tsx';
import classes from './Picture.module.css';
import { usePicture } from './usePicture.ts';

interface Props {
  /** The drill shown; its name stands beside it. */
  drill: Drill | undefined;
  /** Which side works; the left where both do. */
  side?: ItemSide | undefined;
  /** Pixels on each side. @default 44 */
  px?: number;
}

/** A small picture of a drill beside its name. */
export function Thumb({ drill, side = 'both', px = 44 }: Props) {
  const figure = usePicture(drill);
  return (
    <span className={classes.thumb} style={{ '--thumb': `${px}px` } as React.CSSProperties} aria-hidden>
      {figure ? <Picture figure={figure} small mirrored={turnedFor(figure, side)} /> : null}
    </span>
  );
}

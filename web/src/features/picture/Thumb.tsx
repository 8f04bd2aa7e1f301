import type { ItemSide } from '@yonder/core/domain';
import { drawFigure, markupOf, PAPER, PICTURE, turnedFor } from '@yonder/core/figure';
import type { SolvedFigure, Tone } from '@yonder/core/figure';
import type { Drill } from '@yonder/core/reference';
import { memo, useDeferredValue } from 'react';
import classes from './Picture.module.css';
import { usePicture } from './usePicture.ts';

/** The colours of the page, by tone. */
const PAGE = Object.fromEntries(Object.keys(PAPER).map((tone) => [tone, `var(--fig-${tone})`])) as Record<
  Tone,
  string
>;

/** Small pictures that were drawn, straight and turned round: a list that is scrolled shows the same ones again and again. */
const drawn = new WeakMap<SolvedFigure, Partial<Record<'straight' | 'turned', string>>>();
function smallMarkup(figure: SolvedFigure, mirrored: boolean): string {
  const known = drawn.get(figure) ?? {};
  const way = mirrored ? 'turned' : 'straight';
  const markup = known[way] ?? markupOf(drawFigure(figure, { small: true, mirrored }), PAGE);
  drawn.set(figure, { ...known, [way]: markup });
  return markup;
}

interface Props {
  /** The drill shown; its name stands beside it. */
  drill: Drill | undefined;
  /** Which side works; the left where both do. */
  side?: ItemSide | undefined;
  /** Pixels on each side. @default 44 */
  px?: number;
}

/** A small picture of a drill beside its name. */
export const Thumb = memo(function Thumb({ drill, side = 'both', px = 44 }: Props) {
  // Drawn when the page has nothing more urgent to do: a row is there at once, its picture a moment later.
  const figure = useDeferredValue(usePicture(drill), null);
  return (
    <span className={classes.thumb} style={{ '--thumb': `${px}px` } as React.CSSProperties} aria-hidden>
      {figure ? (
        <svg
          className={classes.picture}
          viewBox={`0 0 ${PICTURE} ${PICTURE}`}
          // Made of numbers and of our own words alone.
          dangerouslySetInnerHTML={{ __html: smallMarkup(figure, turnedFor(figure, side)) }}
        />
      ) : null}
    </span>
  );
});

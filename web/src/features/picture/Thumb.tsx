import type { ItemSide } from '@yonder/core/domain';
import { drawFigure, markupOf, PAPER, PICTURE, turnedFor } from '@yonder/core/figure';
import type { SolvedFigure, Tone } from '@yonder/core/figure';
import type { Drill } from '@yonder/core/reference';
import { memo, useEffect, useReducer } from 'react';
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

const waiting: (() => void)[] = [];
/** Works through what waits, one in each idle moment. */
function work(): void {
  waiting.shift()?.();
  if (waiting.length > 0) idle(work);
}
const idle = (next: () => void) =>
  'requestIdleCallback' in window ? window.requestIdleCallback(next, { timeout: 200 }) : setTimeout(next, 0);
/** Does something when the page has nothing more urgent to do; gives back what calls it off. */
function whenIdle(next: () => void): () => void {
  waiting.push(next);
  if (waiting.length === 1) idle(work);
  return () => {
    const at = waiting.indexOf(next);
    if (at >= 0) waiting.splice(at, 1);
  };
}

interface Props {
  /** The drill shown; its name stands beside it. */
  drill: Drill | undefined;
  /** Which side works; the left where both do. */
  side?: ItemSide | undefined;
  /** Pixels on each side. @default 44 */
  px?: number;
}

/** The markup of a small picture: at once where it was drawn before, else when the page has nothing more urgent to do. */
function useSmallMarkup(figure: SolvedFigure | null, mirrored: boolean): string | null {
  const known = figure ? (drawn.get(figure)?.[mirrored ? 'turned' : 'straight'] ?? null) : null;
  const [, redraw] = useReducer((n: number) => n + 1, 0);
  useEffect(() => {
    if (!figure || known !== null) return undefined;
    return whenIdle(() => {
      smallMarkup(figure, mirrored);
      redraw();
    });
  }, [figure, known, mirrored]);
  return known;
}

/** A small picture of a drill beside its name. */
export const Thumb = memo(function Thumb({ drill, side = 'both', px = 44 }: Props) {
  const figure = usePicture(drill);
  const markup = useSmallMarkup(figure, figure !== null && turnedFor(figure, side));
  return (
    <span className={classes.thumb} style={{ '--thumb': `${px}px` } as React.CSSProperties} aria-hidden>
      {markup ? (
        <svg
          className={classes.picture}
          viewBox={`0 0 ${PICTURE} ${PICTURE}`}
          // Made of numbers and of our own words alone.
          dangerouslySetInnerHTML={{ __html: markup }}
        />
      ) : null}
    </span>
  );
});

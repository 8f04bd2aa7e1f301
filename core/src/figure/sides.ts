import type { SolvedFigure } from './schema.ts';

/** The side that works in a figure as it is drawn: the left, but where only the right one does. */
export function ownSide({ accent }: Pick<SolvedFigure, 'accent'>): 'left' | 'right' {
  const works = (side: 'L' | 'R') => accent.some((part) => part.endsWith(side));
  return works('R') && !works('L') ? 'right' : 'left';
}

/** Does a figure have to be turned round to show a side? Not where both, or none, is meant. */
export function turnedFor(figure: Pick<SolvedFigure, 'accent'>, side: string | undefined): boolean {
  return (side === 'left' || side === 'right') && side !== ownSide(figure);
}

import solved from './data/solved.json' with { type: 'json' };
import type { SolvedFigure } from './schema.ts';
import type { FigureStore, KeptFigure } from './store.ts';

/** All figures that ship. Kept out of the main entry of this folder, because they are large: a browser fetches them by ladder. */
export const bundledFigures = solved as unknown as FigureStore; // a test parses every one

function plain({ of: _of, ...figure }: KeptFigure): SolvedFigure {
  return figure;
}

/** The figure that shows a drill, or a test by `test-` and its id; null where there is none. */
export function figureOf(id: string): SolvedFigure | null {
  const kept = bundledFigures.figures[bundledFigures.drills[id] ?? id];
  return kept ? plain(kept) : null;
}

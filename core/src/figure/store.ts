import type { SolvedFigure } from './schema.ts';

/** A solved figure as it is kept: with the hash of what it was solved from. */
export type KeptFigure = SolvedFigure & { readonly of: string };

/** All solved figures, and which one shows each drill. */
export interface FigureStore {
  readonly engine: string;
  readonly drills: Readonly<Record<string, string>>;
  readonly figures: Record<string, KeptFigure>;
}

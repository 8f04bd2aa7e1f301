import type { Drill } from '../reference/index.ts';
import { BUILDER } from './settings.ts';

/** What of a drill or an option decides whether it is what was chosen. */
type Kind = Pick<Drill, 'category' | 'intensityClass'> & { readonly filler?: boolean };

/** An option of a method that, chosen for a preparation, shows as a drill of it. */
export interface Promised {
  readonly school: string;
  readonly option: string;
  readonly shows: (kind: Kind) => boolean;
  /** Only in the last part. */
  readonly last: boolean;
  /** So many seconds of it are wanted; one drill where none are named. */
  readonly seconds?: number;
}

export const HARD_FINISH: Promised = {
  school: 'breathless-or-conversational',
  option: 'hard-finish',
  shows: ({ intensityClass }) => intensityClass === 'high',
  last: true,
  seconds: BUILDER.hardFinishSeconds,
};
export const RELEASE_FIRST: Promised = {
  school: 'release-first',
  option: 'first',
  shows: ({ category }) => category === 'release',
  last: false,
};

/** Every promise that a method can make of a preparation. */
export const PROMISES: readonly Promised[] = [
  RELEASE_FIRST,
  {
    school: 'sequence-before-strength',
    option: 'small-dose',
    shows: ({ category, filler }) => category === 'strengthen' && filler !== true,
    last: false,
  },
  {
    school: 'static-stretch-before',
    option: 'last-step',
    shows: ({ category }) => category === 'stretch',
    last: true,
  },
  HARD_FINISH,
];

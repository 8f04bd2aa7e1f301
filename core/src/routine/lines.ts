import type { RoutineItem } from '../domain/index.ts';
import { OWN_WORDS, ownWordsId, PAUSE } from '../reference/index.ts';
import type { OwnMeasure } from '../reference/index.ts';

const PLAIN = {
  side: 'both',
  phase: null,
  sets: 1,
  measure: 'seconds',
  holdSeconds: null,
  restSeconds: 0,
  tempo: null,
  setup: {},
} as const;

/** A line that only rests. */
export function restLine(seconds: number): RoutineItem {
  return { ...PLAIN, drill: PAUSE, amount: seconds };
}

/** A line in own words; 0 seconds where it takes no time. */
export function wordsLine(words: string, seconds: number): RoutineItem {
  return { ...PLAIN, drill: OWN_WORDS, amount: seconds, words };
}

/** Own words that are done like a drill: so many sets of so much, a side at a time or not. */
export function ownDrill(
  words: string,
  measure: OwnMeasure,
  sided: boolean,
  dose: Partial<Omit<RoutineItem, 'drill' | 'measure' | 'words'>> & Pick<RoutineItem, 'sets' | 'amount'>,
): RoutineItem {
  return { ...PLAIN, ...dose, drill: ownWordsId(measure, sided), measure, words };
}

/** A caution of the routine: read before it and beside it, never done. */
export function cautionLine(words: string): RoutineItem {
  return { ...wordsLine(words, 0), caution: true };
}

/** What is left of a line that safety keeps out: it is read that it is not for now, and nothing is done. */
export function notNow(words: string): RoutineItem {
  return wordsLine(`Not now: ${words}`, 0);
}

export {
  advance,
  AT_THE_START,
  back,
  repetition,
  secondsLeft,
  skip,
  skipItem,
  skipRest,
} from './position.ts';
export type { Position } from './position.ts';
export type { ItemEntry } from './entries.ts';
export { eventFaults } from './bounds.ts';
export { inOrder, reduceSession } from './reduce.ts';
export type { SessionState } from './reduce.ts';
export type { EventOf, EventType, Happening, SessionEvent } from './types.ts';

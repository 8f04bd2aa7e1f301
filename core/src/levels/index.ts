export { guardProbability, hurtSince, levelState, tooHard } from './levels.ts';
export { GUARD_PROBABILITY, START_RULE } from './settings.ts';
export type { LevelContext } from './context.ts';
export type { LevelState, OpenedBy } from './levels.ts';

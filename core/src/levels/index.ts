export { guardProbability, levelState, tooHard } from './levels.ts';
export { START_RULE } from './settings.ts';
export type { LevelContext } from './context.ts';
export type { LevelState, OpenedBy } from './levels.ts';

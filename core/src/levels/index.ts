export { guardProbability, levelState, tooHard } from './levels.ts';
export { START_RULE } from './settings.ts';
export type { LevelContext, LevelState, OpenedBy } from './levels.ts';

export { guardProbability, levelState, tooHard } from './levels.ts';
export type { LevelContext, LevelState, OpenedBy } from './levels.ts';

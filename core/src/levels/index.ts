export { guardProbability, levelState } from './levels.ts';
export type { LevelContext, LevelState, OpenedBy } from './levels.ts';

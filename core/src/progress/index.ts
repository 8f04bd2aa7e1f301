export { decideProgress, DECISIONS } from './decide.ts';
export type { Decision, DecisionKind, ProgressReport } from './decide.ts';
export { PROGRESS } from './settings.ts';

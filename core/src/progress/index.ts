export { decideProgress, DECISIONS } from './decide.ts';
export { hardenedIn } from './hardened.ts';
export { levelItem } from './steps.ts';
export type { Decision, DecisionKind, ProgressReport } from './decide.ts';
export { isFirm, waitingItems } from './waiting.ts';
export { PROGRESS } from './settings.ts';
export { applyVerdicts } from './verdicts.ts';
export type { Verdict } from './verdicts.ts';

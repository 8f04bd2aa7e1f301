export type { Barrier, Reason, ReasonOf, Rule } from './types.ts';

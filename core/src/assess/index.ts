export {
  asInForce,
  assess,
  assessCase,
  assessedAt,
  practiceOfCase,
  recordOfCase,
  safetyOn,
  withSchools,
} from './assess.ts';
export type { Assessment, Practice } from './assess.ts';

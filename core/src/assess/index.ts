export { assess, assessCase, practiceOfCase, recordOfCase, safetyOn } from './assess.ts';
export type { Assessment, Practice } from './assess.ts';

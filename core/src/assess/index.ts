export { assess, assessCase, practiceOfCase, recordOfCase } from './assess.ts';
export type { Assessment, Practice } from './assess.ts';

export { caseFaults, caseWarnings, jsonPath, kitWords, schemaFaults } from './caseFaults.ts';
export type { CaseFault } from './caseFaults.ts';

export {
  caseFaults,
  caseWarnings,
  itemsFaults,
  jsonPath,
  kitWords,
  referenceEditFaults,
  resultFaults,
  schemaFaults,
  taskFaults,
} from './caseFaults.ts';
export type { CaseFault } from './caseFaults.ts';

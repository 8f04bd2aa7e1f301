export {
  caseFaults,
  caseWarnings,
  itemsFaults,
  jsonPath,
  kitWords,
  resultFaults,
  schemaFaults,
} from './caseFaults.ts';
export type { CaseFault } from './caseFaults.ts';

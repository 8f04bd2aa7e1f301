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
export {
  CSV_FIELDS,
  guessMapping,
  missingFields,
  readScreeningRows,
  screeningCsvRow,
} from './screeningCsv.ts';
export type { CsvField, CsvMapping, ImportRow, RowFault } from './screeningCsv.ts';

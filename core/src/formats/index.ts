export {
  caseFaults,
  caseWarnings,
  itemsFaults,
  painPatternsFaults,
  kitWords,
  referenceEditFaults,
  resultFaults,
  schoolFaults,
  schemaFaults,
  testFaults,
  taskFaults,
} from './caseFaults.ts';
export { jsonPath } from './faultList.ts';
export type { CaseFault } from './faultList.ts';
export {
  DRILL_FILE_FORMAT,
  ownDrillOf,
  ownDrillsFaults,
  readDocument,
  readDrillFile,
  writeDrillFile,
} from './ownDrills.ts';
export {
  CSV_FIELDS,
  guessMapping,
  missingFields,
  readScreeningRows,
  screeningCsvRow,
} from './screeningCsv.ts';
export type { CsvField, CsvMapping, ImportRow, RowFault } from './screeningCsv.ts';
export { renewedCase, renewedItem } from './renewed.ts';

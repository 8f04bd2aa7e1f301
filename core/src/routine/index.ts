export { routineChanges } from './changes.ts';
export { identified } from './identify.ts';
export type { IdentifiedItem } from './identify.ts';
export { cautionLine, notNow, ownDrill, restLine, wordsLine } from './lines.ts';
export { predecessorOf, withOrigins } from './lineage.ts';

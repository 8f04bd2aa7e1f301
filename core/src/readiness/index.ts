export { FIT, fitOf, wantedElements } from './wanted.ts';
export type { ReadinessFor, WantedElement } from './wanted.ts';

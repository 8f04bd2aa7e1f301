export { FIT, fitOf, GAMES_UNDER, wantedElements } from './wanted.ts';
export type { ReadinessFor, WantedElement } from './wanted.ts';

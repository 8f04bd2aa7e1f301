import type { Capacity, Judged } from '../findings/index.ts';

/** What the level of a ladder is chosen on. */
export interface LevelContext extends Pick<Judged, 'reference' | 'standing' | 'safety' | 'painLimits'> {
  readonly capacities: ReadonlyMap<string, Capacity>;
}

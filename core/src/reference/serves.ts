import type { ItemSide, Side } from '../domain/index.ts';
import type { Drill } from './types.ts';

/** From this match on a drill covers a restriction (rulings: cover means match ≥ 0.4); below it is a side benefit. */
export const COVER_MATCH = 0.4;

/** Does a drill cover a restriction? */
export function coversRestriction({ serves }: Pick<Drill, 'serves'>, restriction: string): boolean {
  return serves.some((s) => s.restriction === restriction && s.match >= COVER_MATCH);
}

/** Does a drill done on a side reach what is needed on one? One that works both sides at once reaches either. */
export function reachesSide({ unilateral }: Pick<Drill, 'unilateral'>, side: ItemSide, need: Side): boolean {
  return !unilateral || side === 'both' || side === need || need === 'central';
}

import type { Position } from '../reference/index.ts';

/** Seconds that a session spends between work (rulings, "Seconds"), and one easy breath; editable conventions. */
export const TIMING = { sideSwitch: 5, changeover: 10, floorChange: 10, breath: 4 } as const;

/** Positions down on the floor: lying, on all fours, tall-kneeling. */
export const POSITIONS_ON_THE_FLOOR: readonly Position[] = [
  'supine',
  'prone',
  'side-lying',
  'quadruped',
  'tall-kneeling',
];
const FLOOR = new Set(POSITIONS_ON_THE_FLOOR);

/** Lying, on all fours or tall-kneeling; everything else is upright. */
export function isFloor(position: Position): boolean {
  return FLOOR.has(position);
}

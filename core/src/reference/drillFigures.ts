import type { Drill } from './types.ts';

const LOAD_POINTS = { unloaded: 0, partial: 1, full: 2, impact: 3 } as const;

/** Load class (0–3) + fatigue + skill + 1 if ballistic: how much a drill asks, whatever it is for. */
export function demandIndexOf(drill: Pick<Drill, 'loadClass' | 'fatigue' | 'skill' | 'contraction'>): number {
  return (
    LOAD_POINTS[drill.loadClass] + drill.fatigue + drill.skill + (drill.contraction === 'ballistic' ? 1 : 0)
  );
}

/** FORMULAS 14 with the drill's own figures: seconds of a dose of sets and amount, both sides where it has two. */
export function drillSeconds(
  drill: Pick<Drill, 'dose' | 'unilateral' | 'setupSeconds'>,
  which: 'default' | 'min' | 'max',
): number {
  const { sets, amount, secondsPerRep, restSeconds } = drill.dose;
  const sides = drill.unilateral ? 2 : 1;
  return Math.ceil(
    sets[which] * amount[which] * secondsPerRep * sides +
      (sets[which] - 1) * restSeconds.default +
      drill.setupSeconds,
  );
}

import type { Case, Side } from '@yonder/core/domain';
import { forcePerMass, normalisedReach, torquePerMass } from '@yonder/core/measure';
import type { Test } from '@yonder/core/reference';

/** How readings of one side are typed as they are read, and what turns them into the unit of the test. */
export interface Measured {
  /** Unit of the readings. */
  readonly unit: 'cm' | 'N';
  /** Limb length in cm, or body mass in kg. */
  readonly per: number;
  /** Lever arm in cm; null where none is needed or it is not typed yet. */
  readonly lever: number | null;
}

/** Whether readings of a test need a lever arm. */
export const needsLever = (test: Test): boolean => test.unit === 'Nm/kg';

/** A reading in the unit of its test, rounded as figures are typed; null while the lever arm is missing. */
export function inTestUnit(test: Test, { per, lever }: Measured, reading: number): number | null {
  const round = (value: number, decimals: number) => Number(value.toFixed(decimals));
  if (test.unit === '%limb-length') return round(normalisedReach(reading, per), 1);
  if (!needsLever(test)) return round(forcePerMass(reading, per), 2);
  return lever === null || lever <= 0 ? null : round(torquePerMass(reading, lever / 100, per), 2);
}

interface Conversion {
  /** For this side, the lever arm still to be typed. */
  readonly measured: Measured;
  /** What the reading is divided by, in words: "leg length 86 cm". */
  readonly by: string;
}

/** How readings of a test can be typed for one athlete and side, or what is missing for it; null where the unit is direct. */
export function conversionOf(
  test: Test,
  athlete: Pick<Case['athlete'], 'bodyMassKg' | 'limbLengthCm'>,
  side: Side,
): Conversion | { missing: string } | null {
  if (test.unit === '%limb-length') {
    const limb =
      test.region === 'shoulder' || test.region === 'elbow' || test.region === 'wrist-hand' ? 'arm' : 'leg';
    const pair = athlete.limbLengthCm[limb];
    const length = side === 'right' ? pair?.right : pair?.left;
    if (length === undefined) return { missing: `${limb} length` };
    return { measured: { unit: 'cm', per: length, lever: null }, by: `${limb} length ${length} cm` };
  }
  if (test.unit !== 'N/kg' && test.unit !== 'Nm/kg') return null;
  const mass = athlete.bodyMassKg;
  if (mass === null) return { missing: 'body mass' };
  return { measured: { unit: 'N', per: mass, lever: null }, by: `body mass ${mass} kg` };
}

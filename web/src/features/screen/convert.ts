import type { Case, Side } from '@yonder/core/domain';
import { forcePerMass, normalisedReach, torquePerMass } from '@yonder/core/measure';
import type { Test } from '@yonder/core/reference';

/** How a raw reading becomes the unit of a test for one athlete and side. */
export interface Conversion {
  /** Unit of the raw reading. */
  readonly from: 'cm' | 'N';
  /** True when a lever arm in cm is needed as well. */
  readonly lever: boolean;
  /** What the reading is divided by, in words: "leg length 86 cm". */
  readonly by: string;
  readonly convert: (raw: number, leverCm: number) => number;
}

/** What is missing before a raw reading can be converted, or how it is converted; null where nothing needs to be. */
export function conversionOf(
  test: Test,
  athlete: Pick<Case['athlete'], 'bodyMassKg' | 'limbLengthCm'>,
  side: Side,
): Conversion | { missing: string } | null {
  const round = (value: number, decimals: number) => Number(value.toFixed(decimals));
  if (test.unit === '%limb-length') {
    const limb =
      test.region === 'shoulder' || test.region === 'elbow' || test.region === 'wrist-hand' ? 'arm' : 'leg';
    const pair = athlete.limbLengthCm[limb];
    const length = side === 'right' ? pair?.right : pair?.left;
    if (length === undefined) return { missing: `${limb} length` };
    return {
      from: 'cm',
      lever: false,
      by: `${limb} length ${length} cm`,
      convert: (raw) => round(normalisedReach(raw, length), 1),
    };
  }
  if (test.unit !== 'N/kg' && test.unit !== 'Nm/kg') return null;
  const mass = athlete.bodyMassKg;
  if (mass === null) return { missing: 'body mass' };
  return {
    from: 'N',
    lever: test.unit === 'Nm/kg',
    by: `body mass ${mass} kg`,
    convert: (raw, leverCm) =>
      round(test.unit === 'N/kg' ? forcePerMass(raw, mass) : torquePerMass(raw, leverCm / 100, mass), 2),
  };
}

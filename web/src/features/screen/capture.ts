import { analyseForce, analyseMat, steadyAngle } from '@yonder/core/devices';
import type { DeviceKind } from '@yonder/core/devices';
import type { Test } from '@yonder/core/reference';
import { number } from '@yonder/core/words';
import type { Recording } from './useDevice.ts';

/** The device that measures a test; null where none does. */
export function deviceOf(test: Test): DeviceKind | null {
  if (test.unit === 'N' || test.unit === 'N/kg' || test.unit === 'Nm/kg') return 'dynamometer';
  if (test.unit === 'deg') return 'inclinometer';
  return test.unit === 'reps' && test.quantity === 'power' ? 'contact-mat' : null;
}

export type Taken = 'peak' | 'best-second';

export interface Captured {
  /** In the device's unit (N, °) or hops; null while there is none yet. */
  readonly value: number | null;
  /** What the trace says, in words. */
  readonly text: string;
  /** Worth another attempt, and why. */
  readonly warnings: readonly string[];
}

const ARTEFACT = {
  jerk: 'the pull began with a jerk: build up over a second',
  'missed-hold': 'the hold was let go before a second was over',
} as const;

/** What a recording comes to; force by its peak or by the mean of its best second. */
export function captured(kind: DeviceKind, recording: Recording, hz: number, taken: Taken): Captured {
  if (kind === 'contact-mat') {
    const mat = analyseMat(recording.contacts);
    const ratio = mat.reactiveRatio === null ? '' : `, flight ÷ contact ${number(mat.reactiveRatio, 2)}`;
    const height = mat.heightCm === null ? '' : `, mean height ${number(mat.heightCm, 1)} cm`;
    return { value: mat.hops > 0 ? mat.hops : null, text: `${mat.hops} hops${height}${ratio}`, warnings: [] };
  }
  if (kind === 'inclinometer') {
    const angle = steadyAngle(recording.samples, hz);
    const now = recording.samples.at(-1);
    const text =
      angle === null
        ? now === undefined
          ? ''
          : `${number(now, 1)}°, moving`
        : `${number(angle, 1)}°, steady`;
    return { value: angle, text, warnings: [] };
  }
  const force = analyseForce(recording.samples, hz);
  if (!force || force.peak < 5) return { value: null, text: '', warnings: [] };
  return {
    value: taken === 'peak' ? force.peak : force.bestSecond,
    text: `peak ${number(force.peak, 0)} N, best second ${number(force.bestSecond, 0)} N`,
    warnings: force.artefacts.map((artefact) => ARTEFACT[artefact]),
  };
}

import type { UseFormReturnType } from '@mantine/form';
import type { OwnDrill } from '@yonder/core/reference';
import { ownDrillSchema } from '@yonder/core/schemas';
import type { ReactNode } from 'react';

export type DrillForm = UseFormReturnType<OwnDrill>;

/** The ladder of a drill that starts one of its own. */
export const NEW_LADDER = 'own-new-ladder';

/** An option of a list, its id read as words. */
export const plain = (value: string) => ({ value, label: value.replaceAll('-', ' ') });

/** What a number field needs of the form: an emptied field is null, and the schema then asks for a number. */
export function numberProps(
  form: DrillForm,
  path: string,
): { value: number | null; error: ReactNode; onChange: (value: number | null) => void } {
  const { value, error, onChange } = form.getInputProps(path) as ReturnType<typeof numberProps>;
  return { value, error, onChange };
}

/** A blank drill: a gentle one that stands, needs nothing and is counted in repetitions. */
export function blankDrill(): OwnDrill {
  return ownDrillSchema.parse({
    id: 'own-new',
    name: 'New drill',
    ladder: NEW_LADDER,
    ladderName: 'New ladder',
    level: 1,
    category: 'activate',
    regions: { primary: ['ankle-foot'] },
    serves: [{ restriction: 'ankle-balance-deficit', match: 0.7 }],
    contraction: 'dynamic',
    position: 'standing',
    loadClass: 'partial',
    intensityClass: 'low',
    dose: {
      measure: 'reps',
      sets: { default: 2, min: 1, max: 3 },
      amount: { default: 10, min: 6, max: 15 },
      restSeconds: { default: 20 },
      secondsPerRep: 3,
      intensity: 'stop well before failure',
    },
    fatigue: 1,
    skill: 1,
    cues: ['Quiet and controlled'],
    feelsLike: 'Light work, no pain',
    athleteText: 'Say in one sentence what to do.',
    timing: ['before-activity', 'standalone'],
  });
}

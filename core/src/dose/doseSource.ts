import type { Drill } from '../reference/index.ts';

/** Which test's maximum sets the dose of a drill; judgement, low confidence, editable (docs/methods.md). */
const BY_DRILL: Readonly<Record<string, string>> = {
  'single-leg-heel-raise': 'heel-raise-reps',
  'single-leg-heel-raise-step': 'heel-raise-reps',
  'single-leg-balance': 'single-leg-balance-eo',
  'single-leg-balance-eyes-closed': 'single-leg-balance-ec',
  'side-plank': 'side-bridge-hold',
  'side-plank-leg-lift': 'side-bridge-hold',
  'forearm-plank': 'front-plank-hold',
  'long-lever-plank': 'front-plank-hold',
  'single-leg-bridge-hold': 'single-leg-bridge-hold',
  'dead-hang': 'bar-hang-hold',
  'active-hang': 'bar-hang-hold',
  'straight-arm-support-hold': 'straight-arm-support-hold',
};

/** Id of the test whose maximum counts for a drill, or null when none is like it. */
export function doseTestOf(drill: Drill): string | null {
  return BY_DRILL[drill.id] ?? null;
}

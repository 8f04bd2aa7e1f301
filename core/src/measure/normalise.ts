/** Newtons per kilogram of body mass (FORMULAS 2). */
export function forcePerMass(newtons: number, bodyMassKg: number): number {
  return newtons / bodyMassKg;
}

/** Torque per body mass in Nm/kg from force (N) at a lever arm (m) (FORMULAS 2). */
export function torquePerMass(newtons: number, leverMetres: number, bodyMassKg: number): number {
  return (newtons * leverMetres) / bodyMassKg;
}

/** Reach in percent of limb length, both in cm (FORMULAS 2). */
export function normalisedReach(reachCm: number, limbLengthCm: number): number {
  return (reachCm / limbLengthCm) * 100;
}

/** Factor on floors and demands in raw newtons: body mass over the 75 kg they were written for. */
export const NEWTON_REFERENCE_MASS_KG = 75;

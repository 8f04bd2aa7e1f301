import type { Athlete, IsoDay } from '../domain/index.ts';
import type { Drill, Precaution, Reference } from '../reference/index.ts';
import { boneStressOpen } from './redFlags.ts';

type PrecautionSeverity = Precaution['severity'];

/** A precaution that binds today, with its review state. */
export interface ActivePrecaution {
  readonly id: string;
  readonly until: IsoDay | null;
  /** Past its review date; it still binds until a named person ends it. */
  readonly reviewDue: boolean;
  readonly cleared: boolean;
  readonly setBy: string | null;
  readonly reason: string | null;
}

/** Precautions that bind today. An elapsed review date never ends one; an open bone-stress sign adds one. */
export function activePrecautions(athlete: Athlete, today: IsoDay): ActivePrecaution[] {
  const active = athlete.precautions
    .filter((p) => !(p.ended && p.ended.date <= today))
    .map((p) => ({
      id: p.id,
      until: p.until,
      reviewDue: p.until !== null && p.until < today,
      cleared: p.clearance !== null && p.clearance.date <= today,
      setBy: p.setBy ?? null,
      reason: p.reason ?? null,
    }));
  if (boneStressOpen(athlete, today) && !active.some((p) => p.id === 'bone-stress-suspected')) {
    active.push({
      id: 'bone-stress-suspected',
      until: null,
      reviewDue: false,
      cleared: false,
      setBy: null,
      reason: 'an open bone-stress sign',
    });
  }
  return active;
}

/** What the active precautions say about one drill. */
export interface DrillPrecautions {
  /** Precaution ids that forbid it (exclude), or hide it until a clearance note (clearance). */
  readonly forbidden: readonly { precaution: string; severity: PrecautionSeverity }[];
  /** Handling texts under which it may be offered (modify, or a listed override). */
  readonly handling: readonly { precaution: string; text: string }[];
}

/**
 * Applies each active precaution to a drill; only the drill's own listed overrides soften an exclusion, and a drill that
 * is what the handling forbids is out, however mild the precaution.
 */
export function precautionsOfDrill(
  reference: Reference,
  drill: Drill,
  active: readonly ActivePrecaution[],
): DrillPrecautions {
  const forbidden: { precaution: string; severity: PrecautionSeverity }[] = [];
  const handling: { precaution: string; text: string }[] = [];
  for (const { id, cleared } of active) {
    if (!drill.contraindications.includes(id)) continue;
    const precaution = reference.precautions.get(id);
    if (!precaution) continue;
    const override = drill.precautionOverrides.find((o) => o.precaution === id);
    if (drill.precautionExcludes?.includes(id)) forbidden.push({ precaution: id, severity: 'exclude' });
    else if (override) handling.push({ precaution: id, text: override.handling });
    else if (precaution.severity === 'modify') handling.push({ precaution: id, text: precaution.handling });
    else if (precaution.severity === 'clearance' && cleared)
      handling.push({ precaution: id, text: precaution.handling });
    else forbidden.push({ precaution: id, severity: precaution.severity });
  }
  return { forbidden, handling };
}

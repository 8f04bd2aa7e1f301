import type { ActivePrecaution } from './active.ts';
import type { Drill, Precaution, Reference } from '../reference/index.ts';
import { handlingForbids, loadOn } from '../reference/index.ts';
import { limitsShutOut, limitsText } from './limits.ts';

type PrecautionSeverity = Precaution['severity'];

/** What the active precautions say about one drill. */
export interface DrillPrecautions {
  /** Precaution ids that forbid it (exclude), or hide it until a clearance note (clearance). */
  readonly forbidden: readonly { precaution: string; severity: PrecautionSeverity }[];
  /** Handling texts under which it may be offered (modify, or a listed override). */
  readonly handling: readonly { precaution: string; text: string }[];
  /** The precaution that closes one side of a drill done one side at a time. */
  readonly closed: { readonly left: string | null; readonly right: string | null };
}

/** A region is concerned from this share of a drill's load on. */
const CONCERNED = 0.3;

function concerns(precaution: ActivePrecaution, drill: Drill): boolean {
  const { region } = precaution;
  return region === null || drill.regions.primary.includes(region) || loadOn(drill, region) >= CONCERNED;
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
  const closed: { left: string | null; right: string | null } = { left: null, right: null };
  for (const one of active) {
    const { id, cleared, side } = one;
    const precaution = reference.precautions.get(id);
    if (!precaution || !concerns(one, drill)) continue;
    const override = drill.precautionOverrides.find((o) => o.precaution === id);
    // What its handling forbids by nature is out, listed or not.
    const byNature = !override && handlingForbids(precaution, drill);
    if (!drill.contraindications.includes(id) && !byNature) continue;
    const limits = limitsText(reference, drill, one);
    const text = [override?.handling ?? precaution.handling, limits].filter(Boolean).join(' ');
    const withCare =
      override || precaution.severity === 'modify' || (precaution.severity === 'clearance' && cleared);
    const out =
      drill.precautionExcludes?.includes(id) ||
      (byNature && precaution.severity === 'modify') ||
      // Of which no step or hold keeps to the handling.
      (withCare && limitsShutOut(reference, drill, [one]) === id);
    if (out) forbidden.push({ precaution: id, severity: 'exclude' });
    else if (withCare) handling.push({ precaution: id, text });
    else if (drill.unilateral && (side === 'left' || side === 'right')) closed[side] = id;
    else forbidden.push({ precaution: id, severity: precaution.severity });
  }
  return { forbidden, handling, closed };
}

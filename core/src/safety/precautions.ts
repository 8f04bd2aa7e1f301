import type { Athlete, IsoDay, Region, Side } from '../domain/index.ts';
import type { Drill, Precaution, Reference } from '../reference/index.ts';
import { handlingForbids, loadOn } from '../reference/index.ts';
import { limitsShutOut } from './limits.ts';
import { boneStressOpen } from './redFlags.ts';

type PrecautionSeverity = Precaution['severity'];

/** A precaution that binds today, with its review state. */
export interface ActivePrecaution {
  readonly id: string;
  readonly until: IsoDay | null;
  /** Past its review date; it still binds until a named person ends it. */
  readonly reviewDue: boolean;
  readonly cleared: boolean;
  /** The region and side it binds; null = wherever a drill lists it. */
  readonly region: Region | null;
  readonly side: Side | null;
  readonly setBy: string | null;
  readonly reason: string | null;
}

/** What the words of a clearance leave closed, as the precaution that says the same. Read strictly: any "no" or "not" before it. */
const KEPT: readonly (readonly [words: RegExp, precaution: string])[] = [
  [
    /\b(?:no|not|nothing|without|nor)\b[^.;,]*\b(?:cut|cutting|pivot|pivoting|twist|twisting|turning|change of direction)/,
    'no-pivoting',
  ],
  [
    /\b(?:no|not|nothing|without|nor)\b[^.;,]*\b(?:jump|jumping|hop|hopping|impact|running|plyometric)/,
    'no-impact',
  ],
  [/\b(?:no|not|nothing|without|nor)\b[^.;,]*\b(?:overhead|above shoulder)/, 'no-overhead'],
  [/\b(?:no|not|nothing|without|nor)\b[^.;,]*\b(?:hang|hanging)/, 'no-hanging'],
  [/\b(?:no|not|nothing|without|nor)\b[^.;,]*\bkneel/, 'no-kneeling-pressure'],
  [/\b(?:no|not|nothing|without|nor)\b[^.;,]*\bdeep/, 'no-deep-knee-flexion'],
];

/** Precautions that go on within a clearance, by its words. */
function keptBy(scope: string): string[] {
  const said = scope.toLowerCase();
  return KEPT.flatMap(([words, precaution]) => (words.test(said) ? [precaution] : []));
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
      region: p.region ?? null,
      side: p.side ?? null,
      setBy: p.setBy ?? null,
      reason: p.reason ?? null,
    }));
  for (const { clearance, region } of athlete.precautions) {
    if (!clearance || clearance.date > today) continue;
    for (const id of keptBy(clearance.scope))
      if (!active.some((p) => p.id === id && p.region === (region ?? null)))
        active.push({
          id,
          until: null,
          reviewDue: false,
          cleared: false,
          region: region ?? null,
          side: null, // the other leg plants and turns as well
          setBy: clearance.by,
          reason: `clearance: ${clearance.scope}`,
        });
  }
  if (boneStressOpen(athlete, today) && !active.some((p) => p.id === 'bone-stress-suspected')) {
    active.push({
      id: 'bone-stress-suspected',
      until: null,
      reviewDue: false,
      cleared: false,
      region: null,
      side: null,
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
    const text = override?.handling ?? precaution.handling;
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

import type { Athlete, IsoDay, Region, Side } from '../domain/index.ts';
import { boneStressOpen } from './redFlags.ts';

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

/**
 * Precautions that bind today. An elapsed review date never ends one; a clearance keeps what its words
 * leave closed, and an open bone-stress sign adds one.
 */
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
  for (const { clearance, region, ended } of athlete.precautions) {
    if (!clearance || clearance.date > today || (ended && ended.date <= today)) continue;
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

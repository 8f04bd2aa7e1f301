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

/** What the words of a clearance leave closed, as the precaution that says the same. */
const KEPT: readonly (readonly [words: string, precaution: string])[] = [
  ['cut|cutting|pivot|pivoting|twist|twisting|turning|change of direction', 'no-pivoting'],
  ['jump|jumping|hop|hopping|impact|running|plyometric', 'no-impact'],
  ['overhead|above shoulder', 'no-overhead'],
  ['hang|hanging', 'no-hanging'],
  ['kneel', 'no-kneeling-pressure'],
  ['deep', 'no-deep-knee-flexion'],
];
/** Read strictly: any "no" or "not" earlier in the same part of the sentence. */
const DENIED = KEPT.map(
  ([words, precaution]) =>
    [new RegExp(`\\b(?:no|not|nothing|without|nor)\\b[^.;,]*\\b(?:${words})`), precaution] as const,
);

/** Precautions that go on within the clearances that hold on a day, of precautions and of stop-and-refer signs. */
function keptOn(athlete: Athlete, today: IsoDay): ActivePrecaution[] {
  const inForce = athlete.precautions.filter(({ ended }) => !(ended && ended.date <= today));
  return [...inForce, ...athlete.redFlags].flatMap(({ clearance, region = null }) => {
    if (!clearance || clearance.date > today) return [];
    const { by, scope } = clearance;
    const said = scope.toLowerCase();
    return DENIED.filter(([words]) => words.test(said)).map(([, id]) => ({
      id,
      until: null,
      reviewDue: false,
      cleared: false,
      region,
      side: null, // the other leg plants and turns as well
      setBy: by,
      reason: `clearance: ${scope}`,
    }));
  });
}

/**
 * Precautions that bind today. An elapsed review date never ends one; a clearance keeps what its words
 * leave closed, and an open bone-stress sign adds one.
 */
export function activePrecautions(athlete: Athlete, today: IsoDay): ActivePrecaution[] {
  const active: ActivePrecaution[] = athlete.precautions
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
  for (const kept of keptOn(athlete, today))
    if (!active.some(({ id, region }) => id === kept.id && region === kept.region)) active.push(kept);
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

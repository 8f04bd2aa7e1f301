import { addDays, daysBetween } from '../domain/index.ts';
import type { IsoDay, Lift, Region, Side } from '../domain/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { handlingAsksFor, hangs, jolts, kneelsOn, loadOn } from '../reference/index.ts';
import type { Soreness } from './soreness.ts';

/** How much a region hurts today against the pain limits: fine, to be gone round, or to be left alone. */
export type PainBand = 'fine' | 'amber' | 'above';

/** What holds for one region and side on one day because it hurts. */
export interface DayRule {
  readonly region: Region;
  readonly side: Side;
  readonly band: PainBand;
  /** The worst pain that counts, 0–10, and the limits it was held against. */
  readonly nrs: number;
  readonly fine: number;
  readonly stop: number;
  /** Precautions that hold for the day. */
  readonly forbids: readonly string[];
  /** Felt as a pinch or sharp: nothing is stretched or mobilised under load. */
  readonly sharp: boolean;
  /** Where and how it hurts more than is fine. */
  readonly places: readonly Pick<Soreness, 'aspect' | 'feel'>[];
  /** Hurts more than is fine at rest: nothing loads it, as above the stop limit. */
  readonly atRest: boolean;
  /** Drills that a diary asked to refer; they stay closed until a named person ends it. */
  readonly referred: readonly string[];
  /** Precautions of the painful position for which one graded drill is scheduled; empty where it is gone round. */
  readonly restores: readonly string[];
  /** What its drills are kept to: sets, at the least dose there is; null where nothing is. */
  readonly caps: { readonly sets: number } | null;
  /** Gentle drills of the region, one of which comes before anything else of it. */
  readonly leads: readonly string[];
  /** Who lifted it and why: it is watched, and forbids nothing. */
  readonly lifted: Pick<Lift, 'by' | 'date' | 'reason'> | null;
  readonly because: {
    readonly source: Soreness['source'];
    readonly test: string | null;
    readonly drill: string | null;
    readonly since: string;
  };
}

/** What the rules of a day go by, beside what hurts. */
export interface DayStance {
  readonly limits: { readonly fine: number; readonly stop: number };
  /** Option of the school on painful positions. */
  readonly strategy: string;
  readonly lifts: readonly Lift[];
  readonly today: IsoDay;
}

/** Editable defaults of the rules of a day (rulings, "Pain steers"; the last three are judgement, low confidence). */
const DAY_RULES = {
  /** Shares of a drill's load from which a region counts as loaded: in amber, and above the stop limit. */
  loads: { amber: 0.5, above: 0.3 },
  /** Pain above the limit in a session closes its region for so many days after it. */
  sessionDays: 1,
  /** A lifted rule holds again after so many days. */
  liftDays: 7,
  /** Pain that has lasted so many days is long-standing. */
  longStandingDays: 90,
  /** Demand up to which a drill is graded exposure to a painful position. */
  gradedDemand: 4,
  /** What such exposure is made of. */
  gradedKinds: ['mobilise', 'activate', 'stabilise', 'strengthen'] as readonly Drill['category'][],
} as const;

/** Most sets of a drill that works a region in amber (rulings, "Pain steers"). */
export const AMBER_SETS = 2;

const SHARP: readonly (Soreness['feel'] | undefined)[] = ['pinch', 'sharp'];

function bandOf(nrs: number, limits: DayStance['limits']): PainBand {
  if (nrs <= limits.fine) return 'fine';
  return nrs <= limits.stop ? 'amber' : 'above';
}

/**
 * The band of one pain. Felt above the limit in a session it closes its region on that day and the next; from then on it is
 * gone round, until a calm session of the same drill: it was eased, and is watched. What was referred stays closed.
 */
function bandOfOne({ source, nrs, since }: Soreness, { limits, today }: DayStance): PainBand {
  if (source === 'referred') return 'above';
  const band = bandOf(nrs, limits);
  // What the next morning said was said a day later than the session it is of.
  const said = source === 'session' ? since : source === 'morning' ? addDays(since, 1) : today;
  return band === 'above' && said < addDays(today, -DAY_RULES.sessionDays) ? 'amber' : band;
}

const BANDS: readonly PainBand[] = ['fine', 'amber', 'above'];

/** What decides where several things hurt: what was referred, then the band, then the figure. */
const order = (one: Soreness, stance: DayStance): number =>
  (one.source === 'referred' ? 100 : 0) + BANDS.indexOf(bandOfOne(one, stance)) * 20 + one.nrs;

function precautionsFor(reference: Reference, sore: readonly Soreness[], above: boolean): string[] {
  const found = sore.flatMap(({ region, aspect, feel }) =>
    reference.data.painPatterns.filter(
      (one) =>
        one.region === region &&
        (one.aspects === null || (aspect !== undefined && one.aspects.includes(aspect))) &&
        (one.feels === null || (feel !== undefined && one.feels.includes(feel))) &&
        (!one.aboveOnly || above),
    ),
  );
  return [...new Set(found.flatMap((one) => one.precautions))].sort();
}

/** Was this place and feel there when it was lifted? A sharp pain elsewhere is not what was lifted for an ache. */
function coversPlace({ places }: Lift, { aspect, feel }: Pick<Soreness, 'aspect' | 'feel'>): boolean {
  return places === null || places.some((one) => one.aspect === aspect && one.feel === feel);
}

/** The lift that holds for a rule today: not too old, and for pain no higher than it was then. */
function liftOf(
  { region, side, nrs, band, places }: Pick<DayRule, 'region' | 'side' | 'nrs' | 'band' | 'places'>,
  stance: DayStance,
) {
  if (band !== 'amber') return null;
  const from = addDays(stance.today, -DAY_RULES.liftDays);
  const own = stance.lifts.findLast(
    (lift) =>
      !lift.referral &&
      lift.region === region &&
      lift.side === side &&
      lift.nrs >= nrs &&
      places.every((place) => coversPlace(lift, place)) &&
      lift.date > from &&
      lift.date <= stance.today,
  );
  return own ? { by: own.by, date: own.date, reason: own.reason } : null;
}

/** Is the painful position restored today, by the school? Above the stop limit never. */
function isRestored(band: PainBand, since: IsoDay, { strategy, today }: DayStance): boolean {
  if (band === 'above' || strategy === 'modify') return false;
  if (strategy === 'restore') return true;
  return band === 'fine' && daysBetween(since, today) >= DAY_RULES.longStandingDays;
}

function ruleOf(reference: Reference, here: readonly Soreness[], stance: DayStance): DayRule {
  const { limits } = stance;
  const referred = here.filter((one) => one.source === 'referred');
  const worst = here.reduce((a, b) => (order(b, stance) > order(a, stance) ? b : a));
  const atRest = here.some(({ when, nrs }) => when === 'rest' && nrs > limits.fine);
  const band = atRest ? 'above' : bandOfOne(worst, stance);
  const hurting = here.filter(({ nrs }) => nrs > limits.fine);
  const since = here.map((one) => one.since).reduce((a, b) => (b < a ? b : a));
  const { region, side, nrs, source, test, drill } = worst;
  const places = hurting.map(({ aspect, feel }) => ({ aspect, feel }));
  const lifted = liftOf({ region, side, nrs, band, places }, stance);
  const rule: Omit<DayRule, 'caps' | 'leads'> = {
    region,
    side,
    band,
    nrs,
    fine: limits.fine,
    stop: limits.stop,
    forbids: lifted ? [] : precautionsFor(reference, hurting, band === 'above'),
    sharp: hurting.some(({ feel }) => SHARP.includes(feel)),
    places,
    atRest,
    referred: referred.flatMap((one) => one.drill ?? []).sort(),
    restores: isRestored(band, since, stance) ? precautionsFor(reference, here, false) : [],
    lifted,
    because: { source, test, drill, since: worst.since },
  };
  if (band !== 'amber' || lifted) return { ...rule, caps: null, leads: [] };
  const leads = reference.data.drills.filter(
    (drill) => relieves(drill, region) && !goesInto(reference, rule.forbids, drill),
  );
  return { ...rule, caps: { sets: AMBER_SETS }, leads: leads.map(({ id }) => id) };
}

/** The rules of the day, one for each region and side that hurts; the worst of what is known there decides the band. */
export function dayRules(reference: Reference, sore: readonly Soreness[], stance: DayStance): DayRule[] {
  const places = new Map<string, Soreness[]>();
  for (const one of sore) {
    const key = `${one.region}/${one.side}`;
    places.set(key, [...(places.get(key) ?? []), one]);
  }
  return [...places.values()].map((here) => ruleOf(reference, here, stance));
}

/** Does a rule keep anything out today? */
export function binds({ band, lifted }: DayRule): boolean {
  return band !== 'fine' && lifted === null;
}

/** Does a drill work a region: is it one of its main ones, or carries it much of the load? */
export function works(drill: Drill, region: Region): boolean {
  return drill.regions.primary.includes(region) || loadOn(drill, region) >= DAY_RULES.loads.amber;
}

function tooMuch(rule: DayRule, drill: Drill): boolean {
  const load = loadOn(drill, rule.region);
  const own = drill.regions.primary.includes(rule.region);
  if (rule.band === 'above') return load >= DAY_RULES.loads.above || (own && drill.loadClass !== 'unloaded');
  const hard =
    jolts(drill) || hangs(drill) || drill.contraction === 'ballistic' || drill.intensityClass === 'high';
  if (hard && load >= DAY_RULES.loads.amber) return true;
  if (rule.sharp && drill.loadClass === 'full' && load >= DAY_RULES.loads.amber) return true;
  const intoTheEnd =
    drill.category === 'stretch' || (drill.category === 'mobilise' && drill.loadClass !== 'unloaded');
  return rule.sharp && own && intoTheEnd;
}

/** Does a drill go into a position that one of these precautions keeps it out of? */
function goesInto(reference: Reference, precautions: readonly string[], drill: Drill): boolean {
  return precautions.some((id) => {
    const precaution = reference.precautions.get(id);
    if (!precaution || !drill.contraindications.includes(id)) return false;
    return drill.precautionExcludes?.includes(id) === true || !handlingAsksFor(precaution, drill);
  });
}

/** Graded exposure to the painful position of a rule: goes into it, at low effort and with little load. */
export function isGraded(reference: Reference, rule: DayRule, drill: Drill): boolean {
  return (
    drill.regions.primary.includes(rule.region) &&
    DAY_RULES.gradedKinds.includes(drill.category) &&
    drill.demandIndex <= DAY_RULES.gradedDemand &&
    drill.loadClass !== 'impact' &&
    drill.loadClass !== 'full' &&
    drill.contraction !== 'ballistic' &&
    drill.intensityClass !== 'high' &&
    goesInto(reference, rule.restores, drill)
  );
}

/** Of two rules that keep the same out, what was referred outlasts the day. */
const firmer = (known: DayRule | null, rule: DayRule): DayRule =>
  known && known.referred.length > 0 ? known : rule;

/** What the day's rules say of one drill: forbidden on both sides, or one side of a drill done a side at a time closed. */
export function dayRuleOf(
  reference: Reference,
  rules: readonly DayRule[],
  drill: Drill,
): { forbidden: DayRule | null; closed: { left: DayRule | null; right: DayRule | null } } {
  const closed: { left: DayRule | null; right: DayRule | null } = { left: null, right: null };
  let forbidden: DayRule | null = null;
  for (const rule of rules) {
    if (!binds(rule)) continue;
    // The pattern's own precaution holds whichever side is worked, but for what its handling asks for and what restores it.
    const byPrecaution = goesInto(reference, rule.forbids, drill) && !isGraded(reference, rule, drill);
    const { side } = rule;
    if (byPrecaution) forbidden = firmer(forbidden, rule);
    else if (!rule.referred.includes(drill.id) && !tooMuch(rule, drill)) continue;
    else if (drill.unilateral && (side === 'left' || side === 'right') && !kneelsOn(drill, rule.region))
      closed[side] = firmer(closed[side], rule);
    else forbidden = firmer(forbidden, rule);
  }
  return { forbidden, closed };
}

/** A gentle drill of a sore region that comes before everything else of it: a low-effort hold, or unloaded movement. */
function relieves(drill: Drill, region: Region): boolean {
  if (!drill.regions.primary.includes(region) || drill.category === 'stretch') return false;
  const hold =
    drill.contraction === 'isometric-hold' && drill.loadClass !== 'full' && drill.intensityClass !== 'high';
  return (hold && drill.demandIndex <= 4) || (drill.loadClass === 'unloaded' && drill.demandIndex <= 2);
}

import type { Region, Side } from '../domain/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { handlingAsksFor } from '../reference/index.ts';
import { PATTERN_PRECAUTIONS } from './painPrecautions.ts';
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
  readonly because: {
    readonly source: Soreness['source'];
    readonly test: string | null;
    readonly since: string;
  };
}

/** Shares of a drill's load from which a region counts as loaded: in amber, and above the stop limit (editable). */
const DAY_LOADS = { amber: 0.5, above: 0.3 } as const;

const SHARP: readonly (Soreness['feel'] | undefined)[] = ['pinch', 'sharp'];

function bandOf(nrs: number, limits: { fine: number; stop: number }): PainBand {
  if (nrs <= limits.fine) return 'fine';
  return nrs <= limits.stop ? 'amber' : 'above';
}

function precautionsFor(sore: readonly Soreness[], band: PainBand): string[] {
  if (band === 'fine') return [];
  const found = sore.flatMap(({ region, aspect, feel }) =>
    PATTERN_PRECAUTIONS.filter(
      (one) =>
        one.region === region &&
        (one.aspects === null || (aspect !== undefined && one.aspects.includes(aspect))) &&
        (one.feels === null || (feel !== undefined && one.feels.includes(feel))) &&
        (!one.aboveOnly || band === 'above'),
    ),
  );
  return [...new Set(found.flatMap((one) => one.precautions))].sort();
}

/** The rules of the day, one for each region and side that hurts; the worst of what is known there decides the band. */
export function dayRules(sore: readonly Soreness[], limits: { fine: number; stop: number }): DayRule[] {
  const places = new Map<string, Soreness[]>();
  for (const one of sore) {
    const key = `${one.region}/${one.side}`;
    places.set(key, [...(places.get(key) ?? []), one]);
  }
  return [...places.values()].map((here): DayRule => {
    const worst = here.reduce((a, b) => (b.nrs > a.nrs ? b : a));
    const band = bandOf(worst.nrs, limits);
    return {
      region: worst.region,
      side: worst.side,
      band,
      nrs: worst.nrs,
      fine: limits.fine,
      stop: limits.stop,
      forbids: precautionsFor(
        here.filter(({ nrs }) => nrs > limits.fine),
        band,
      ),
      sharp: here.some(({ nrs, feel }) => nrs > limits.fine && SHARP.includes(feel)),
      because: { source: worst.source, test: worst.test, since: worst.since },
    };
  });
}

/** The share of a drill's load that a region carries, 0 to 1. */
export function loadOn(drill: Drill, region: Region): number {
  return drill.loadRegions.reduce(
    (most, load) => (load.region === region ? Math.max(most, load.weight) : most),
    0,
  );
}

/** Does a drill work a region: is it one of its main ones, or carries it much of the load? */
export function works(drill: Drill, region: Region): boolean {
  return drill.regions.primary.includes(region) || loadOn(drill, region) >= DAY_LOADS.amber;
}

function tooMuch(rule: DayRule, drill: Drill): boolean {
  const load = loadOn(drill, rule.region);
  const own = drill.regions.primary.includes(rule.region);
  if (rule.band === 'above') return load >= DAY_LOADS.above || (own && drill.loadClass !== 'unloaded');
  const hard =
    drill.loadClass === 'impact' || drill.contraction === 'ballistic' || drill.intensityClass === 'high';
  if (hard && load >= DAY_LOADS.amber) return true;
  const intoTheEnd =
    drill.category === 'stretch' || (drill.category === 'mobilise' && drill.loadClass !== 'unloaded');
  return rule.sharp && own && intoTheEnd;
}

/** What the day's rules say of one drill: forbidden on both sides, or one side of a drill done a side at a time closed. */
export function dayRuleOf(
  reference: Reference,
  rules: readonly DayRule[],
  drill: Drill,
): { forbidden: DayRule | null; closed: { left: DayRule | null; right: DayRule | null } } {
  const closed: { left: DayRule | null; right: DayRule | null } = { left: null, right: null };
  let forbidden: DayRule | null = null;
  for (const rule of rules) {
    if (rule.band === 'fine') continue;
    // The pattern's own precaution holds whichever side is worked, but for what its handling asks for.
    const byPrecaution = rule.forbids.some((id) => {
      const precaution = reference.precautions.get(id);
      if (!precaution || !drill.contraindications.includes(id)) return false;
      return drill.precautionExcludes?.includes(id) || !handlingAsksFor(precaution, drill);
    });
    const { side } = rule;
    if (byPrecaution) forbidden = rule;
    else if (!tooMuch(rule, drill)) continue;
    else if (drill.unilateral && (side === 'left' || side === 'right')) closed[side] = rule;
    else forbidden = rule;
  }
  return { forbidden, closed };
}

/** A gentle drill of a sore region that comes before everything else of it: a low-effort hold, or unloaded movement. */
export function relieves(drill: Drill, region: Region): boolean {
  if (!drill.regions.primary.includes(region) || drill.category === 'stretch') return false;
  const hold =
    drill.contraction === 'isometric-hold' && drill.loadClass !== 'full' && drill.intensityClass !== 'high';
  return (hold && drill.demandIndex <= 4) || (drill.loadClass === 'unloaded' && drill.demandIndex <= 2);
}

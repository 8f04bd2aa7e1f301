import type { Standing, Region, Side } from '../domain/index.ts';
import { recentlyInjured } from '../findings/index.ts';
import type { Finding, FindingsReport } from '../findings/index.ts';
import type { Reference } from '../reference/index.ts';
import { YOUTH_AGE } from '../safety/index.ts';
import type { DayPattern } from './dayPattern.ts';
import { BUILDER } from './settings.ts';

/** A restriction and side the routine should serve, with its weight 0–1 ("need" in the solver notes). */
export interface WeightedRestriction {
  readonly restriction: string;
  readonly region: Region;
  readonly side: Side;
  readonly weight: number;
  /** What coverage goes by: the weight before the action of the day lowered it. */
  readonly priority: number;
  /** Symmetry alone speaks: no mobilise or stretch drill for it. */
  readonly symmetryOnly: boolean;
  readonly from: 'finding' | 'task' | 'injury' | 'pattern';
}

const keyOf = (w: Pick<WeightedRestriction, 'restriction' | 'side'>) => `${w.restriction}/${w.side}`;

function fromFindings(findings: readonly Finding[]): WeightedRestriction[] {
  return findings
    .filter((finding) => finding.priority > 0)
    .map((finding) => ({
      restriction: finding.restriction,
      region: finding.region,
      side: finding.side,
      weight: finding.priority,
      priority: finding.priority,
      symmetryOnly: finding.symmetryOnly,
      from: 'finding' as const,
    }));
}

function sidesOf(reference: Reference, restriction: string): Side[] {
  return reference.restrictions.get(restriction)?.laterality === 'central' ? ['central'] : ['left', 'right'];
}

/** Weights without screening: the tasks' demands and recent injuries, marked general. */
function generalWeights(
  reference: Reference,
  input: Standing,
  own: Standing['athlete']['tasks'],
  age: number,
): WeightedRestriction[] {
  const weights = new Map<string, WeightedRestriction>();
  const put = (restriction: string, side: Side, weight: number, from: 'task' | 'injury') => {
    const region = reference.restrictions.get(restriction)?.region;
    const key = keyOf({ restriction, side });
    if (!region || (weights.get(key)?.weight ?? 0) >= weight) return;
    weights.set(key, { restriction, region, side, weight, priority: weight, symmetryOnly: false, from });
  };
  const tasks = age < YOUTH_AGE ? [] : own;
  for (const task of tasks) {
    for (const demand of reference.demands.get(task.id)?.demands ?? []) {
      for (const id of demand.informs) {
        for (const side of sidesOf(reference, id)) put(id, side, BUILDER.generalTaskWeight, 'task');
      }
    }
  }
  for (const restriction of reference.data.restrictions) {
    for (const side of sidesOf(reference, restriction.id)) {
      if (recentlyInjured(input, restriction.region, side)) {
        put(restriction.id, side, BUILDER.generalInjuryWeight, 'injury');
      }
    }
  }
  return [...weights.values()];
}

/**
 * The weights as the action of the day sees them: what it asks for counts by the more demanding of the athlete's own
 * tasks and the action; everything else keeps a share. Rehearsing the action is wanted beside them.
 */
function weighedForPattern(
  own: readonly WeightedRestriction[],
  asked: readonly WeightedRestriction[],
  day: DayPattern,
): WeightedRestriction[] {
  const merged = new Map<string, WeightedRestriction>();
  for (const weighted of own) {
    const here = day.asks.has(weighted.restriction);
    const weight = here ? weighted.weight : weighted.weight * BUILDER.elsewhereToday;
    merged.set(keyOf(weighted), { ...weighted, weight });
  }
  for (const weighted of asked) {
    if (!day.asks.has(weighted.restriction)) continue;
    const known = merged.get(keyOf(weighted));
    if (!known || known.weight < weighted.weight)
      merged.set(keyOf(weighted), {
        ...weighted,
        priority: Math.max(weighted.priority, known?.priority ?? 0),
      });
  }
  const rehearsal: WeightedRestriction = {
    restriction: day.need,
    region: 'whole-body',
    side: 'central',
    weight: BUILDER.patternWeight,
    priority: 0,
    symmetryOnly: false,
    from: 'pattern',
  };
  return [...merged.values(), rehearsal];
}

/**
 * The restrictions to serve, sorted by id and side so that the same input gives the same model. `general` is true
 * when nothing has been screened and the weights come from tasks and injuries alone.
 */
export function restrictionWeights(
  reference: Reference,
  input: Standing,
  report: FindingsReport,
  age: number,
  day: DayPattern | null = null,
): { weights: WeightedRestriction[]; general: boolean } {
  const general = report.capacities.length === 0;
  const weigh = (tasks: Standing['athlete']['tasks'], findings: readonly Finding[]) =>
    general ? generalWeights(reference, input, tasks, age) : fromFindings(findings);
  const own = weigh(input.athlete.tasks, report.findings);
  const weights = day ? weighedForPattern(own, weigh(day.tasks, day.findings), day) : own;
  return { weights: weights.sort((a, b) => (keyOf(a) < keyOf(b) ? -1 : 1)), general };
}

import type { Case, Region, Side } from '../domain/index.ts';
import { recentlyInjured } from '../findings/index.ts';
import type { FindingsReport } from '../findings/index.ts';
import type { Reference } from '../reference/index.ts';
import { YOUTH_AGE } from '../safety/index.ts';
import { BUILDER } from './settings.ts';

/** A restriction and side the routine should serve, with its weight 0–1 ("need" in the solver notes). */
export interface WeightedRestriction {
  readonly restriction: string;
  readonly region: Region;
  readonly side: Side;
  readonly weight: number;
  /** Symmetry alone speaks: no mobilise or stretch drill for it. */
  readonly symmetryOnly: boolean;
  readonly from: 'finding' | 'task' | 'injury';
}

function fromFindings(report: FindingsReport): WeightedRestriction[] {
  return report.findings
    .filter((finding) => finding.priority > 0)
    .map((finding) => ({
      restriction: finding.restriction,
      region: finding.region,
      side: finding.side,
      weight: finding.priority,
      symmetryOnly: finding.symmetryOnly,
      from: 'finding' as const,
    }));
}

function sidesOf(reference: Reference, restriction: string): Side[] {
  return reference.restrictions.get(restriction)?.laterality === 'central' ? ['central'] : ['left', 'right'];
}

/** Weights without screening: the tasks' demands and recent injuries, marked general. */
function generalWeights(reference: Reference, input: Case, age: number): WeightedRestriction[] {
  const weights = new Map<string, WeightedRestriction>();
  const put = (restriction: string, side: Side, weight: number, from: 'task' | 'injury') => {
    const region = reference.restrictions.get(restriction)?.region;
    const key = `${restriction}/${side}`;
    if (!region || (weights.get(key)?.weight ?? 0) >= weight) return;
    weights.set(key, { restriction, region, side, weight, symmetryOnly: false, from });
  };
  const tasks = age < YOUTH_AGE ? [] : input.athlete.tasks;
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
 * The restrictions to serve, sorted by id and side so that the same input gives the same model. `general` is true
 * when nothing has been screened and the weights come from tasks and injuries alone.
 */
export function restrictionWeights(
  reference: Reference,
  input: Case,
  report: FindingsReport,
  age: number,
): { weights: WeightedRestriction[]; general: boolean } {
  const general = report.capacities.length === 0;
  const weights = general ? generalWeights(reference, input, age) : fromFindings(report);
  const key = (w: WeightedRestriction) => `${w.restriction}/${w.side}`;
  return { weights: weights.sort((a, b) => (key(a) < key(b) ? -1 : 1)), general };
}

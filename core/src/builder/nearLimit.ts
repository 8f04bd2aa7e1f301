import type { Standing, Region } from '../domain/index.ts';
import { regionLoads } from '../dose/index.ts';
import type { Reference } from '../reference/index.ts';
import { BUILDER } from './settings.ts';

/**
 * Regions whose drills of the last seven days reach the share of the practitioner's own weekly limit from which no
 * conditioning is added. A region without a limit is never among them.
 */
export function regionsNearLimit(
  reference: Reference,
  input: Standing,
): Map<Region, { load: number; limit: number }> {
  const { loadLimits } = input.athlete;
  if (loadLimits.length === 0) return new Map();
  const loads = regionLoads(reference, input);
  return new Map(
    loadLimits.flatMap(({ region, perWeek }) => {
      const load = loads.get(region) ?? 0;
      return load >= BUILDER.nearLoadLimit * perWeek ? [[region, { load, limit: perWeek }] as const] : [];
    }),
  );
}

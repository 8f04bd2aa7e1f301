import type { Draft } from '@yonder/core/contracts';
import type { Region, RoutineItem } from '@yonder/core/domain';
import { roundsOf, routineTime, workInRounds } from '@yonder/core/dose';
import { isLine } from '@yonder/core/reference';
import type { Reference } from '@yonder/core/reference';

/** Where the time and the work of a routine go. */
export interface Totals {
  readonly seconds: number;
  /** Seconds per phase in the order of the items; change-overs stand by themselves. */
  readonly phases: readonly { readonly id: string; readonly name: string; readonly seconds: number }[];
  readonly between: number;
  /** Seconds of work per region, by the drills' first region. */
  readonly regions: readonly { readonly region: Region; readonly seconds: number }[];
  /** Drill fatigue × sets × rounds, as the builder counts it. */
  readonly fatigue: number;
}

function setsOf(item: RoutineItem): number {
  return item.perSide ? (item.perSide.left.sets + item.perSide.right.sets) / 2 : item.sets;
}

/** Adds a routine up: exact seconds, seconds per phase and region, fatigue. */
export function totalsOf(
  reference: Reference,
  { structure, sections, items }: Pick<Draft, 'structure' | 'sections'> & { items: readonly RoutineItem[] },
): Totals {
  const time = routineTime(reference, items);
  const phases = new Map<string, number>();
  const regions = new Map<Region, number>();
  let fatigue = 0;
  items.forEach((item, i) => {
    const drill = reference.drills.get(item.drill);
    if (!drill) return;
    const phase = item.phase ?? '';
    phases.set(phase, (phases.get(phase) ?? 0) + (time.items[i] ?? 0));
    const rounds = roundsOf(items, i);
    if (isLine(drill.id)) return;
    const region = drill.regions.primary[0] ?? 'whole-body';
    regions.set(region, (regions.get(region) ?? 0) + workInRounds(drill, item, rounds));
    fatigue += drill.fatigue * setsOf(item) * rounds;
  });
  const named = [...sections, ...(reference.structures.get(structure)?.phases ?? [])];
  return {
    seconds: time.total,
    phases: [...phases].map(([id, seconds]) => ({
      id,
      name: named.find((p) => p.id === id)?.name ?? (id ? id.replaceAll('-', ' ') : 'by hand'),
      seconds,
    })),
    between: time.between,
    regions: [...regions]
      .map(([region, seconds]) => ({ region, seconds }))
      .sort((a, b) => b.seconds - a.seconds),
    fatigue,
  };
}

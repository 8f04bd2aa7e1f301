import type { Case, IssuedRoutine, RoutineItem } from '../domain/index.ts';
import type { Reference } from '../reference/index.ts';
import { jsonPath } from './faultList.ts';
import type { CaseFault, Path } from './faultList.ts';

/**
 * An item with the set-ups that its drill has today: one that is gone is left out, a value that is gone becomes the
 * usual one. What was changed comes as "set-up variable" and sentence; an item that needs nothing comes back as it is.
 */
export function renewedItem(
  reference: Reference,
  item: RoutineItem,
): { item: RoutineItem; changed: { variable: string; says: string }[] } {
  const drill = reference.drills.get(item.drill);
  if (!drill) return { item, changed: [] };
  const changed: { variable: string; says: string }[] = [];
  const setup: RoutineItem['setup'] = {};
  for (const [variable, value] of Object.entries(item.setup)) {
    const known = drill.setupVariables.find((v) => v.id === variable);
    if (!known) changed.push({ variable, says: `${drill.name} no longer has this set-up; left out` });
    else if (known.steps.includes(value)) setup[variable] = value;
    else {
      setup[variable] = known.default;
      changed.push({ variable, says: `"${value}" is no longer a step; ${known.default} stands instead` });
    }
  }
  return changed.length > 0 ? { item: { ...item, setup }, changed } : { item, changed };
}

/**
 * A case in the ids of today, and what was mapped, each with its path: placements on a ladder that was split follow
 * their drill, set-ups that are gone take the usual value, schools that are gone are left out.
 */
export function renewedCase(reference: Reference, input: Case): { input: Case; mapped: CaseFault[] } {
  const mapped: CaseFault[] = [];
  const placements = input.athlete.placements.map((placement, i) => {
    const now = reference.drills.get(placement.drill)?.ladder;
    const successors = reference.data.renamed[placement.ladder] ?? [];
    if (now === undefined || now === placement.ladder || !successors.includes(now)) return placement;
    mapped.push({
      path: jsonPath(['athlete', 'placements', i, 'ladder']),
      message: `"${placement.ladder}" was split; "${placement.drill}" is on "${now}" now`,
    });
    return { ...placement, ladder: now };
  });
  const renewedRoutine = <Routine extends IssuedRoutine>(routine: Routine, at: Path): Routine => ({
    ...routine,
    items: routine.items.map((item, i) => {
      const renewed = renewedItem(reference, item);
      for (const { variable, says } of renewed.changed)
        mapped.push({ path: jsonPath([...at, 'items', i, 'setup', variable]), message: says });
      return renewed.item;
    }),
  });
  const schools = Object.entries(input.schools).filter(([id, option]) => {
    const gone = [id, `${id}/${option}`].some((key) => reference.data.renamed[key]?.length === 0);
    if (gone)
      mapped.push({ path: jsonPath(['schools', id]), message: 'no longer offered; the default stands' });
    return !gone;
  });
  return {
    input: {
      ...input,
      athlete: { ...input.athlete, placements },
      routine: input.routine && renewedRoutine(input.routine, ['routine']),
      others: input.others.map((routine, i) => renewedRoutine(routine, ['others', i])),
      schools: Object.fromEntries(schools),
    },
    mapped,
  };
}

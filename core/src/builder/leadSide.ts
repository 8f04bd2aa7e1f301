import type { Standing } from '../domain/index.ts';
import { rehearsalTag } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { BUILDER } from './settings.ts';

/**
 * The side on which an action is done: that of the athlete's tasks that the drill rehearses, else the dominant leg for a
 * drill of the legs and the dominant hand for any other. Null for a drill without a leading side, where the tasks do not
 * agree, or where nothing is known.
 */
export function leadSideOf(
  reference: Reference,
  standing: Pick<Standing, 'athlete'>,
  drill: Drill,
): 'left' | 'right' | null {
  if (!drill.leadSide) return null;
  const { tasks, dominantHand, dominantLeg } = standing.athlete;
  const rehearsed = new Set(
    reference.data.patterns
      .filter(({ id }) => rehearsalTag(reference, drill, id) >= BUILDER.rehearses)
      .flatMap((pattern) => pattern.tasks),
  );
  const leads = new Set(tasks.filter(({ id }) => rehearsed.has(id)).map(({ lead }) => lead));
  leads.delete('either');
  if (leads.size > 1) return null;
  const [lead] = leads;
  if (lead === 'left' || lead === 'right') return lead;
  return drill.regions.primary.includes('hip-groin') ? dominantLeg : dominantHand;
}

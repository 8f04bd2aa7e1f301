import type { ItemSide } from '../domain/index.ts';
import { rehearsalTag } from '../reference/index.ts';
import type { Drill } from '../reference/index.ts';
import { covers, YOUTH_AGE } from '../safety/index.ts';
import type { LevelContext } from './context.ts';
import { EXPOSURE } from './settings.ts';

/** What is done of one action in a week: all sessions, and the hard ones. */
function weekOf(context: LevelContext, action: string): { sessions: number; hard: number } {
  const own = context.standing.athlete.exposure.filter((entry) => entry.action === action);
  const sum = (entries: typeof own) => entries.reduce((n, { perWeek }) => n + perWeek, 0);
  return { sessions: sum(own), hard: sum(own.filter(({ effort }) => effort === 'hard')) };
}

function opens(
  drill: Drill,
  rule: typeof EXPOSURE.weekly | typeof EXPOSURE.hard,
  action: string,
  less: number,
) {
  if (drill.demandIndex > rule.demandIndex - less) return false;
  if (drill.loadClass !== 'impact') return true;
  const actions: readonly string[] | null = 'impactActions' in rule ? rule.impactActions : null;
  const intensities: readonly string[] = rule.impact;
  return intensities.includes(drill.intensityClass) && (actions === null || actions.includes(action));
}

/**
 * Does what the athlete does every week open this drill (rulings, "Level placement")? At least weekly opens demand up to
 * 6 and easy impact of running, landing and cutting; twice a week and hard up to 9; two less under sixteen. Never where
 * the region hurts more than is fine. The action that opens it, or null.
 */
export function exposedBy(context: LevelContext, drill: Drill, side: ItemSide): string | null {
  const { exposure } = context.standing.athlete;
  if (exposure.length === 0) return null;
  const sore = context.safety.dayRules.some(
    (rule) =>
      rule.band !== 'fine' &&
      drill.regions.primary.includes(rule.region) &&
      (side === 'both' || covers(rule.side, side)),
  );
  if (sore) return null;
  const less = context.safety.age < YOUTH_AGE ? EXPOSURE.youthLess : 0;
  const actions = [...new Set(exposure.map(({ action }) => action))];
  return (
    actions.find((action) => {
      if (rehearsalTag(context.reference, drill, action) < EXPOSURE.tag) return false;
      const { sessions, hard } = weekOf(context, action);
      return (
        (sessions >= EXPOSURE.weekly.perWeek && opens(drill, EXPOSURE.weekly, action, less)) ||
        (hard >= EXPOSURE.hard.perWeek && opens(drill, EXPOSURE.hard, action, less))
      );
    }) ?? null
  );
}

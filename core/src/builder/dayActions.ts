import type { BuildRequest, Standing } from '../domain/index.ts';
import { rehearsalTag } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';

/** The actions that a routine prepares: that of the day, else those of the athlete's tasks in their order. */
export function actionsOfDay(
  reference: Reference,
  standing: Pick<Standing, 'athlete'>,
  request: Pick<BuildRequest, 'pattern'>,
): string[] {
  if (request.pattern !== null) return [request.pattern];
  const { patterns, readiness } = reference.data;
  const inTurn = standing.athlete.tasks.flatMap(({ id }) => {
    const first = readiness.tasks.find(({ task }) => task === id)?.first;
    const own = patterns.filter(({ tasks }) => tasks.includes(id)).map((pattern) => pattern.id);
    return own.sort((a, b) => Number(b === first) - Number(a === first));
  });
  return [...new Set(inTurn)];
}

/** The action that a drill comes nearest to, and how near; null when it rehearses none of them. */
export function nearestAction(
  reference: Reference,
  drill: Drill,
  actions: readonly string[],
): { action: string; tag: number } | null {
  const tagged = actions
    .map((action) => ({ action, tag: rehearsalTag(reference, drill, action) }))
    .filter(({ tag }) => tag > 0);
  return tagged.reduce<(typeof tagged)[0] | null>(
    (best, one) => (best && best.tag >= one.tag ? best : one),
    null,
  );
}

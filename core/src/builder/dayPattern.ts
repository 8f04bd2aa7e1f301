import type { Assessment } from '../assess/index.ts';
import type { BuildRequest, Standing } from '../domain/index.ts';
import { findingsForTasks } from '../findings/index.ts';
import type { Finding, FindingsReport } from '../findings/index.ts';

/** The action of the day with what it asks of the athlete: it decides which reserves matter today. */
export interface DayPattern {
  readonly id: string;
  /** Restrictions that one of its tasks' demands informs. */
  readonly asks: ReadonlySet<string>;
  /** The action's tasks, as if they were the athlete's only ones, and the findings against their demands. */
  readonly tasks: Standing['athlete']['tasks'];
  readonly findings: readonly Finding[];
}

const BY_HAND: readonly string[] = ['throw', 'swing'];
const BY_LEG: readonly string[] = ['kick'];

function handed(pattern: string, athlete: Standing['athlete']): 'left' | 'right' | 'either' {
  const side = BY_HAND.includes(pattern)
    ? athlete.dominantHand
    : BY_LEG.includes(pattern)
      ? athlete.dominantLeg
      : null;
  return side ?? 'either';
}

/** The pattern a request names, its estimates held against the demands of its tasks; null without one. */
export function dayPattern(assessment: Assessment, request: BuildRequest): DayPattern | null {
  const { reference } = assessment;
  const pattern = reference.patterns.get(request.pattern ?? '');
  if (!pattern) return null;
  const { athlete } = assessment.standing;
  const own = athlete.tasks.filter(({ id }) => pattern.tasks.includes(id));
  // The athlete's own side holds for every task of the action, else the hand or leg that does it.
  const known = own.find(({ lead }) => lead !== 'either')?.lead ?? handed(pattern.id, athlete);
  const tasks = pattern.tasks.map(
    (id) => own.find((task) => task.id === id && task.lead !== 'either') ?? { id, lead: known },
  );
  return {
    id: pattern.id,
    asks: new Set(
      pattern.tasks.flatMap((id) => reference.demands.get(id)?.demands.flatMap((d) => d.informs) ?? []),
    ),
    tasks,
    findings: findingsForTasks(assessment, tasks),
  };
}

/** The findings that hold for what follows: the action's own where it asks, else the athlete's. */
export function findingsForToday(report: FindingsReport, day: DayPattern | null): readonly Finding[] {
  if (!day) return report.findings;
  return [
    ...report.findings.filter((finding) => !day.asks.has(finding.restriction)),
    ...day.findings.filter((finding) => day.asks.has(finding.restriction)),
  ];
}

import type { Assessment } from '../assess/index.ts';
import type { BuildRequest, Standing } from '../domain/index.ts';
import { findingsForTasks } from '../findings/index.ts';
import type { Finding, FindingsReport } from '../findings/index.ts';

/** The action of the day with what it asks of the athlete: it decides which reserves matter today. */
export interface DayPattern {
  readonly id: string;
  /** The name under which rehearsing it stands among the weighted restrictions. */
  readonly need: string;
  /** Restrictions that one of its tasks' demands informs. */
  readonly asks: ReadonlySet<string>;
  /** The action's tasks, as if they were the athlete's only ones, and the findings against their demands. */
  readonly tasks: Standing['athlete']['tasks'];
  readonly findings: readonly Finding[];
}

/** The pattern a request names, its estimates held against the demands of its tasks; null without one. */
export function dayPattern(assessment: Assessment, request: BuildRequest): DayPattern | null {
  const { reference } = assessment;
  const pattern = reference.patterns.get(request.pattern ?? '');
  if (!pattern) return null;
  const tasks = pattern.tasks.map((id) => ({ id, lead: 'either' as const }));
  return {
    id: pattern.id,
    need: `pattern:${pattern.id}`,
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

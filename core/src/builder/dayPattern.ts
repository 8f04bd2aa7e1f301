import type { Case } from '../domain/index.ts';
import { judgeFindings } from '../findings/index.ts';
import type { Finding, FindingsReport } from '../findings/index.ts';
import type { Reference } from '../reference/index.ts';

/** The action of the day with what it asks of the athlete: it decides which reserves matter today. */
export interface DayPattern {
  readonly id: string;
  /** The name under which rehearsing it stands among the weighted restrictions. */
  readonly need: string;
  /** Restrictions that one of its tasks' demands informs. */
  readonly asks: ReadonlySet<string>;
  /** The case as if the action's tasks were the athlete's only ones, and its findings. */
  readonly input: Case;
  readonly report: FindingsReport;
}

/** The pattern a request names, judged against the demands of its tasks; null without one. */
export function dayPattern(bundled: Reference, reference: Reference, input: Case): DayPattern | null {
  const pattern = reference.patterns.get(input.request.pattern ?? '');
  if (!pattern) return null;
  const tasks = pattern.tasks.map((id) => ({ id, lead: 'either' as const }));
  const asPattern: Case = { ...input, athlete: { ...input.athlete, tasks } };
  return {
    id: pattern.id,
    need: `pattern:${pattern.id}`,
    asks: new Set(
      pattern.tasks.flatMap((id) => reference.demands.get(id)?.demands.flatMap((d) => d.informs) ?? []),
    ),
    input: asPattern,
    report: judgeFindings(bundled, asPattern),
  };
}

/** The findings that hold for what follows: the action's own where it asks, else the athlete's. */
export function findingsForToday(report: FindingsReport, day: DayPattern | null): readonly Finding[] {
  if (!day) return report.findings;
  return [
    ...report.findings.filter((finding) => !day.asks.has(finding.restriction)),
    ...day.report.findings.filter((finding) => day.asks.has(finding.restriction)),
  ];
}

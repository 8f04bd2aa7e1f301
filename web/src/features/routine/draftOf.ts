import type { BuildReport } from '@yonder/core/builder';
import type { Draft } from '@yonder/core/contracts';
import type { BuildRequest, RoutineItem } from '@yonder/core/domain';

/** A draft whose items have no identity yet; editing gives it to them. */
export type NewDraft = Pick<Draft, 'request' | 'structure'> & {
  readonly sections?: Draft['sections'];
  readonly items: readonly RoutineItem[];
};

/** The routine of a report as something to edit; null when there is none. */
export function draftOf(report: BuildReport, request: BuildRequest): NewDraft | null {
  if (!report.routine) return null;
  const items = report.routine.items.map(({ seconds: _s, serves: _v, reasons: _r, ...item }) => item);
  return { request, structure: report.routine.structure, items };
}

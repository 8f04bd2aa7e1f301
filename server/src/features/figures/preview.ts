import { assess, recordOfCase } from '@yonder/core/assess';
import type { FigureEffect, FigureInput } from '@yonder/core/contracts';
import type { ReferenceEdit } from '@yonder/core/domain';
import type { Finding } from '@yonder/core/findings';
import { referenceEditFaults } from '@yonder/core/formats';
import { practiceReference } from '@yonder/core/reference';
import { refuse } from '../../http/problem.ts';
import { editOf } from '../../work/practice.ts';
import type { Unit } from '../../work/unit.ts';
import { loadRecords } from '../athletes/record.ts';

type Changes = FigureEffect['changed'][0]['changes'];

/** Findings whose state or severity differs between two judgements. */
function differences(before: readonly Finding[], after: readonly Finding[]): Changes {
  const key = (f: Finding) => `${f.restriction}/${f.side}`;
  const was = new Map(before.map((f) => [key(f), f]));
  const is = new Map(after.map((f) => [key(f), f]));
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((k) => {
    const a = was.get(k);
    const b = is.get(k);
    const any = a ?? b;
    const same = a?.state === b?.state && Math.abs((a?.severity ?? 0) - (b?.severity ?? 0)) < 0.005;
    if (!any || same) return [];
    const { restriction, side } = any;
    return [
      {
        restriction,
        side,
        from: a?.state ?? 'none',
        to: b?.state ?? 'none',
        severityFrom: a?.severity ?? 0,
        severityTo: b?.severity ?? 0,
      },
    ];
  });
}

/** Athletes looked at per request: a look at everybody is a few requests, each soon answered and easy to stop. */
const LOOK = 50;

interface Preview {
  readonly set: readonly (Omit<FigureInput, 'reason' | 'id'> & { reason: string })[];
  readonly unset: readonly string[];
  readonly from: number;
}

/** The edits in force if a preview were saved. */
async function editsAfter({ rows }: Unit, { set, unset }: Preview): Promise<ReferenceEdit[]> {
  const stored = await rows.reference_edits.all({ endedOn: null });
  const same = (a: ReferenceEdit, b: ReferenceEdit) =>
    a.test === b.test && a.path === b.path && (a.task ?? '') === (b.task ?? '');
  const kept = stored
    .filter((row) => !unset.includes(row.id))
    .map(editOf)
    .filter((edit) => !set.some((other) => same(other, edit)));
  return [...kept, ...set];
}

/**
 * Whose findings would change if figures were set or set back, for the athletes from a place in the list of names on;
 * `next` is where to go on, null at the end. Nothing is stored.
 */
export async function previewFigures(unit: Unit, input: Preview): Promise<FigureEffect> {
  const practice = await unit.practice();
  refuse(
    input.set.flatMap((edit, i) =>
      referenceEditFaults(practice.reference, edit).map((f) => ({
        ...f,
        path: f.path.replace('$', `$.set[${i}]`),
      })),
    ),
  );
  const figures = { ...practice.figures, reference: await editsAfter(unit, input) };
  const then = { ...practice, reference: practiceReference(practice.bundled, figures) };
  const total = await unit.rows.athletes.count();
  const ids = await unit.query<{ id: string }>(
    'SELECT id FROM athletes WHERE practice_id = :practiceId ORDER BY name, id OFFSET :from LIMIT :look',
    { practiceId: unit.practiceId, from: input.from, look: LOOK },
  );
  const records = await loadRecords(
    unit,
    unit.today,
    ids.map((row) => row.id),
  );
  const changed = records.flatMap(({ athlete, case: own }): FigureEffect['changed'] => {
    const record = recordOfCase(own);
    const { schools } = own;
    const now = assess({ ...practice, schools }, record, unit.today).report.findings;
    const changes = differences(now, assess({ ...then, schools }, record, unit.today).report.findings);
    return changes.length > 0 ? [{ athleteId: athlete.id, name: athlete.name, changes }] : [];
  });
  const end = input.from + ids.length;
  return { total, judged: ids.length, changed, next: end < total && ids.length > 0 ? end : null };
}

import { atOccasion } from '@yonder/core/domain';
import type { MethodEffect } from '@yonder/core/contracts';
import type { BuildReport } from '@yonder/core/builder';
import { schoolFaults } from '@yonder/core/formats';
import type { Deps } from '../../deps.ts';
import { Sent } from '../../http/endpoint.ts';
import { refuse } from '../../http/problem.ts';
import { optionsOf } from '../../work/practice.ts';
import type { Unit } from '../../work/unit.ts';
import { loadRecords } from '../athletes/record.ts';
import type { LoadedRecord } from '../athletes/record.ts';
import { needAthlete } from '../athletes/stories.ts';

/** Athletes looked at per request: each is built twice; a look at everybody is many requests, easy to stop. */
const LOOK = 5;

interface Preview {
  readonly school: string;
  readonly option: string | null;
  readonly athleteId: string | null;
  readonly from: number;
}

/** The athletes to look at, in the order of their names, with how many there are. */
async function athletesOf(
  unit: Unit,
  { athleteId, from }: Preview,
): Promise<{ ids: string[]; total: number }> {
  if (athleteId !== null) {
    await needAthlete(unit, athleteId);
    return { ids: [athleteId], total: 1 };
  }
  const total = await unit.rows.athletes.count({ archivedOn: null });
  const rows = await unit.query<{ id: string }>(
    `SELECT id FROM athletes WHERE practice_id = :practiceId AND archived_on IS NULL
     ORDER BY name, id OFFSET :from LIMIT :look`,
    { practiceId: unit.practiceId, from, look: LOOK },
  );
  return { ids: rows.map((row) => row.id), total };
}

const drillsOf = (report: BuildReport) => (report.routine?.items ?? []).map((item) => item.drill);

/**
 * Whose routine would be built otherwise under another option, for the athletes from a place in the list on: what is in
 * force today is built as it would be now and as it would be then. Nothing is stored.
 */
export async function previewMethod({ compute }: Deps, unit: Unit, input: Preview): Promise<Sent> {
  const { school, option, athleteId } = input;
  refuse(
    (option === null ? [] : schoolFaults(unit.reference, { [school]: option })).map(({ message }) => ({
      path: unit.reference.schools.has(school) ? '$.option' : '$.school',
      message,
    })),
  );
  const practice = await unit.practice();
  const { ids, total } = await athletesOf(unit, input);
  const records = await loadRecords(unit, unit.today, ids);
  const chosen = await unit.rows.method_choices.all({ athleteId: ids, endedOn: null });
  const own = (id: string) => optionsOf(chosen.filter((row) => row.athleteId === id));
  /** The schools an athlete would be judged by; an athlete's own choice stands before the practice's. */
  const schoolsThen = (id: string): Record<string, string> => {
    const changed = (schools: Readonly<Record<string, string>>) => {
      const { [school]: _before, ...rest } = schools;
      return option === null ? rest : { ...rest, [school]: option };
    };
    return athleteId === null
      ? { ...changed(practice.schools), ...own(id) }
      : { ...practice.schools, ...changed(own(id)) };
  };
  const inForce = records.flatMap((record) =>
    record.routines.map((routine) => ({
      ...record,
      case: atOccasion(record.case, routine.occasion),
      routine,
    })),
  );
  return new Sent(async (response) => {
    const gone = new AbortController();
    response.on('close', () => gone.abort(new Error('the client went away')));
    const build = ({ case: asked, routine }: LoadedRecord & { routine: { request: object } }) =>
      compute.build(asked, { ...asked.request, ...routine.request }, () => undefined, gone.signal);
    const looked = await Promise.all(
      inForce.map(async (record) => {
        const { id, name } = record.athlete;
        const then = { ...record.case, schools: schoolsThen(id) };
        const [a, b] = await Promise.all([build(record), build({ ...record, case: then })]);
        const was = drillsOf(a);
        const will = drillsOf(b);
        return {
          athleteId: id,
          name,
          leave: was.filter((drill) => !will.includes(drill)),
          come: will.filter((drill) => !was.includes(drill)),
          secondsNow: a.routine?.totalSeconds ?? 0,
          secondsThen: b.routine?.totalSeconds ?? 0,
        };
      }),
    );
    const end = input.from + ids.length;
    const effect: MethodEffect = {
      total,
      judged: ids.length,
      routines: inForce.length,
      next: athleteId === null && end < total && ids.length > 0 ? end : null,
      changed: looked.filter(
        (one) => one.leave.length + one.come.length > 0 || one.secondsNow !== one.secondsThen,
      ),
    };
    if (!response.writableEnded) response.json(effect);
  });
}

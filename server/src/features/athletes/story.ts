import type { AthleteRow } from '@yonder/core/contracts';
import type { CurrentPain, Judgement, Region, Side } from '@yonder/core/domain';
import { isPlausible } from '@yonder/core/measure';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem, notFound } from '../../http/problem.ts';
import type { FieldFault } from '../../http/problem.ts';
import { updateVersioned } from '../../http/versioned.ts';
import { checkNotAfter } from './faults.ts';
import { protocolRow } from './records.ts';
import { changeStory } from './service.ts';

function refuse(errors: readonly FieldFault[]): void {
  if (errors.length > 0) throw new ApiProblem('invalid-request', { errors: [...errors] });
}

/** Records what hurts now. */
export function addPain(
  deps: Deps,
  user: User,
  athleteId: string,
  { when, aspect, feel, ...pain }: Omit<CurrentPain, 'ended'>,
): Promise<AthleteRow> {
  checkNotAfter('$.since', pain.since, deps.today());
  return changeStory(deps, user, athleteId, 'pain.add', (transaction) =>
    deps.database.models.pains.create(
      {
        ...pain,
        moment: when,
        aspect: aspect ?? null,
        feel: feel ?? null,
        athleteId,
        practiceId: user.practiceId,
      },
      { transaction },
    ),
  );
}

/** It no longer hurts: the entry stays on record with the day it ended. */
export function endPain(
  deps: Deps,
  user: User,
  athleteId: string,
  painId: string,
  date: string,
): Promise<AthleteRow> {
  checkNotAfter('$.date', date, deps.today());
  return changeStory(deps, user, athleteId, 'pain.end', async (transaction) => {
    const row = await deps.database.models.pains.findOne({
      where: { id: painId, athleteId, practiceId: user.practiceId },
      transaction,
    });
    if (!row) throw notFound('Pain');
    const since = row.get('since') as string;
    if (date < since) refuse([{ path: '$.date', message: `before it began, ${since}` }]);
    await row.update({ ended: date }, { transaction });
  });
}

interface ProtocolInput {
  by: string;
  date: string;
  drills: string[];
  tests: string[];
  version: number | null;
}

/** Stores what the treating clinician ticked for a region and side; nothing else is shown there (level P). */
export function putProtocol(
  deps: Deps,
  user: User,
  athleteId: string,
  place: { region: Region; side: Side },
  { version, ...protocol }: ProtocolInput,
): Promise<AthleteRow> {
  checkNotAfter('$.date', protocol.date, deps.today());
  const { drills, tests } = deps.reference;
  refuse([
    ...protocol.drills.flatMap((id, i) =>
      drills.has(id) ? [] : [{ path: `$.drills[${i}]`, message: `unknown drill "${id}"` }],
    ),
    ...protocol.tests.flatMap((id, i) =>
      tests.has(id) ? [] : [{ path: `$.tests[${i}]`, message: `unknown test "${id}"` }],
    ),
  ]);
  const table = deps.database.models.protocols;
  return changeStory(deps, user, athleteId, 'protocol.put', async (transaction) => {
    const where = { athleteId, practiceId: user.practiceId, ...place };
    if (version !== null) {
      await updateVersioned(table, where, version, protocol, protocolRow, transaction);
      return;
    }
    const existing = await table.findOne({ where, transaction });
    if (existing)
      throw new ApiProblem('version-conflict', { current: protocolRow(existing.get({ plain: true })) });
    await table.create({ ...where, ...protocol }, { transaction });
  });
}

/** Sets an athlete's own need for a test and side, with a reason; it replaces task and floor. */
export function putNeed(
  deps: Deps,
  user: User,
  athleteId: string,
  place: { test: string; side: Side },
  input: { value: number; reason: string },
): Promise<AthleteRow> {
  const test = deps.reference.tests.get(place.test);
  if (!test) throw notFound('Test');
  const { min, max } = test.plausible;
  refuse([
    ...((test.sides === 'central') === (place.side === 'central')
      ? []
      : [{ path: '$.side', message: `wrong side for ${test.id}` }]),
    ...(isPlausible(test, input.value)
      ? []
      : [{ path: '$.value', message: `${input.value} is outside ${min} to ${max} ${test.unit}` }]),
  ]);
  return changeStory(deps, user, athleteId, 'need.put', async (transaction) => {
    const where = { athleteId, practiceId: user.practiceId, ...place };
    await deps.database.models.needs.destroy({ where, transaction });
    await deps.database.models.needs.create(
      { ...where, ...input, setBy: user.name, setOn: deps.today() },
      { transaction },
    );
  });
}

/** Takes an athlete's own need back: task and floor speak again. */
export function removeNeed(
  deps: Deps,
  user: User,
  athleteId: string,
  place: { test: string; side: Side },
): Promise<AthleteRow> {
  return changeStory(deps, user, athleteId, 'need.remove', async (transaction) => {
    const where = { athleteId, practiceId: user.practiceId, ...place };
    if ((await deps.database.models.needs.destroy({ where, transaction })) === 0) throw notFound('Need');
  });
}

/** Records what a practitioner says of a finding, or one seen by eye. */
export function addJudgement(
  deps: Deps,
  user: User,
  athleteId: string,
  input: Omit<Judgement, 'by' | 'date'>,
): Promise<AthleteRow> {
  const restriction = deps.reference.restrictions.get(input.restriction);
  const central = restriction?.laterality === 'central';
  refuse([
    ...(restriction
      ? []
      : [{ path: '$.restriction', message: `unknown restriction "${input.restriction}"` }]),
    ...(restriction && restriction.laterality !== 'either' && central !== (input.side === 'central')
      ? [{ path: '$.side', message: central ? 'central: use side "central"' : 'use left or right' }]
      : []),
    ...(input.verdict === 'dismissed' && input.reason.trim() === ''
      ? [{ path: '$.reason', message: 'say why it is set aside' }]
      : []),
  ]);
  return changeStory(deps, user, athleteId, `finding.${input.verdict}`, (transaction) =>
    deps.database.models.judgements.create(
      { ...input, athleteId, practiceId: user.practiceId, by: user.name, date: deps.today() },
      { transaction },
    ),
  );
}

/** Takes a judgement back. */
export function removeJudgement(deps: Deps, user: User, athleteId: string, id: string): Promise<AthleteRow> {
  return changeStory(deps, user, athleteId, 'finding.withdraw', async (transaction) => {
    const where = { id, athleteId, practiceId: user.practiceId };
    if ((await deps.database.models.judgements.destroy({ where, transaction })) === 0)
      throw notFound('Judgement');
  });
}

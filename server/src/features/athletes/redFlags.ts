import type { AthleteRow } from '@yonder/core/contracts';
import type { Region } from '@yonder/core/domain';
import { redFlagQuestions } from '@yonder/core/safety';
import type { Deps } from '../../deps.ts';
import type { User } from '../../http/endpoint.ts';
import { ApiProblem, notFound } from '../../http/problem.ts';
import { checkNotAfter } from './faults.ts';
import { redFlagRow } from './records.ts';
import { loadStory } from './repository.ts';
import { changeStory } from './service.ts';

interface Answer {
  redFlag: string;
  answer: boolean;
  region: string | null;
  side: string | null;
}

/** Stores the answers to every question of the regions; each must be answered, and a positive one names its region. */
export async function answerRedFlags(
  deps: Deps,
  user: User,
  athleteId: string,
  input: { regions: Region[]; answers: Answer[] },
): Promise<AthleteRow> {
  const { athlete } = await loadStory(deps.database, user.practiceId, athleteId);
  const questions = redFlagQuestions(deps.reference, input.regions, athlete.birthDate, deps.today());
  const errors = input.answers.flatMap((answer, i) => {
    const flag = deps.reference.redFlags.get(answer.redFlag);
    if (!flag) return [{ path: `$.answers[${i}].redFlag`, message: 'unknown question' }];
    const needsRegion = answer.answer && flag.askRegion && answer.region === null;
    return needsRegion ? [{ path: `$.answers[${i}].region`, message: 'say which region' }] : [];
  });
  const missing = questions.filter((q) => !input.answers.some((a) => a.redFlag === q.id));
  for (const { id } of missing) errors.push({ path: '$.answers', message: `no answer to ${id}` });
  if (errors.length > 0) throw new ApiProblem('invalid-request', { errors });
  const common = {
    athleteId,
    practiceId: user.practiceId,
    askedFor: input.regions,
    answeredOn: deps.today(),
    answeredBy: user.name,
  };
  return changeStory(deps, user, athleteId, 'red-flags.answer', async (transaction) => {
    const rows = input.answers.map((answer) => ({ ...answer, ...common }));
    await deps.database.models.redFlags.bulkCreate(rows, { transaction });
  });
}

/** Records a clearance: the only thing that lifts a positive answer. */
export function clearRedFlag(
  deps: Deps,
  user: User,
  athleteId: string,
  answerId: string,
  clearance: { by: string; date: string; scope: string },
): Promise<AthleteRow> {
  checkNotAfter('$.date', clearance.date, deps.today());
  return changeStory(deps, user, athleteId, 'red-flag.clear', async (transaction) => {
    const row = await deps.database.models.redFlags.findOne({
      where: { id: answerId, athleteId, practiceId: user.practiceId, answer: true },
      transaction,
      lock: transaction.LOCK.UPDATE,
    });
    if (!row) throw notFound('Stop-and-refer answer');
    const plain = row.get({ plain: true });
    if (plain.clearanceOn !== null) throw new ApiProblem('version-conflict', { current: redFlagRow(plain) });
    const { by: clearanceBy, date: clearanceOn, scope: clearanceScope } = clearance;
    await row.update({ clearanceBy, clearanceOn, clearanceScope }, { transaction });
  });
}

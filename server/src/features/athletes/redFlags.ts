import { createHash } from 'node:crypto';
import type { AthleteRow } from '@yonder/core/contracts';
import type { Region, Side } from '@yonder/core/domain';
import { redFlagQuestions } from '@yonder/core/safety';
import { refuse } from '../../http/problem.ts';
import type { Unit } from '../../work/unit.ts';
import { needAthlete, showAthlete } from './stories.ts';

interface Answer {
  redFlag: string;
  answer: boolean;
  region: Region | null;
  side: Side | null;
}

/** The id of one of several rows that are made together: always the same for the same batch and name. */
export function idWithin(batch: string, name: string): string {
  const hex = createHash('sha256').update(`${batch}/${name}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** Stores the answers to every question of the regions; each must be answered, and a positive one names its region. */
export async function answerRedFlags(
  unit: Unit,
  athleteId: string,
  { id, regions, answers }: { id: string; regions: Region[]; answers: Answer[] },
): Promise<AthleteRow> {
  const { reference, today } = unit;
  const athlete = await needAthlete(unit, athleteId);
  const questions = redFlagQuestions(reference, regions, athlete.birthDate, today);
  const errors = answers.flatMap((answer, i) => {
    const flag = reference.redFlags.get(answer.redFlag);
    if (!flag) return [{ path: `$.answers[${i}].redFlag`, message: 'unknown question' }];
    const needsRegion = answer.answer && flag.askRegion && answer.region === null;
    return needsRegion ? [{ path: `$.answers[${i}].region`, message: 'say which region' }] : [];
  });
  const missing = questions.filter((q) => !answers.some((a) => a.redFlag === q.id));
  for (const question of missing) errors.push({ path: '$.answers', message: `no answer to ${question.id}` });
  refuse(errors);
  await unit.rows.red_flag_answers.insertAll(
    answers.map((answer, i) => ({
      ...answer,
      id: idWithin(id, `${i}/${answer.redFlag}`),
      athleteId,
      askedFor: regions,
      answeredOn: today,
      answeredBy: unit.actor.name,
      clearanceBy: null,
      clearanceOn: null,
      clearanceScope: null,
    })),
  );
  return showAthlete(unit, athleteId);
}

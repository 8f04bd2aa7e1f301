import type { AthleteRow, GateAnswerInput } from '@yonder/core/contracts';
import { VISIT_TOPIC } from '@yonder/core/contracts';
import { REGIONS } from '@yonder/core/domain';
import { gateTopics } from '@yonder/core/safety';
import { refuse } from '../../http/problem.ts';
import type { FieldFault } from '../../http/problem.ts';
import { idWithin } from '../../work/newId.ts';
import type { Unit } from '../../work/unit.ts';
import { needAthlete, showAthlete } from './stories.ts';

/** A topic as it is read out to somebody of this age today; none for "visit". */
const topicOf = (unit: Unit, birthDate: string, id: string) =>
  gateTopics(unit.reference, REGIONS, birthDate, unit.today).find((topic) => topic.id === id);

/** Faults of an answer: topics and signs must be asked at this age, signs and outcome agree, a sign names its region. */
function faultsOf(
  unit: Unit,
  birthDate: string,
  { topic: id, outcome, signs }: Omit<GateAnswerInput, 'id'>,
): FieldFault[] {
  const topic = topicOf(unit, birthDate, id);
  if (!topic && id !== VISIT_TOPIC) return [{ path: '$.topic', message: `nothing is asked under "${id}"` }];
  if ((outcome === 'signs') !== signs.length > 0)
    return [{ path: '$.signs', message: 'name the signs that are there, and only then say "signs"' }];
  return signs.flatMap(({ redFlag, region }, i): FieldFault[] => {
    const asked = topic?.signs.find(({ sign }) => sign.id === redFlag);
    if (!asked) return [{ path: `$.signs[${i}].redFlag`, message: 'is not asked in this topic' }];
    return asked.sign.askRegion && region === null
      ? [{ path: `$.signs[${i}].region`, message: 'say which region' }]
      : [];
  });
}

/** Stores the answer to one topic of the gate; each sign that is there stops what it blocks at once. */
export async function answerTopic(
  unit: Unit,
  athleteId: string,
  { signs, ...answer }: GateAnswerInput,
): Promise<AthleteRow> {
  const athlete = await needAthlete(unit, athleteId);
  refuse(faultsOf(unit, athlete.birthDate, { ...answer, signs }));
  const answered = { athleteId, answeredOn: unit.today, answeredBy: unit.actor.name };
  const read = topicOf(unit, athlete.birthDate, answer.topic)?.signs.map(({ sign }) => sign.id) ?? [];
  await unit.rows.gate_answers.insert({ ...answer, ...answered, signs: read });
  await unit.rows.red_flag_answers.insertAll(
    signs.map((sign, i) => ({
      ...sign,
      ...answered,
      id: idWithin(answer.id, `${i}/${sign.redFlag}`),
      answer: true,
      clearanceBy: null,
      clearanceOn: null,
      clearanceScope: null,
    })),
  );
  return showAthlete(unit, athleteId);
}

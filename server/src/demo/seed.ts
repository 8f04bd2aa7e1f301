import { buildRoutine, createHighsSolver, seededRandom } from '@yonder/core/builder';
import type { MipSolver } from '@yonder/core/builder';
import { addDays, daysBetween } from '@yonder/core/domain';
import type { RoutineRow } from '@yonder/core/contracts';
import type { DiaryEntry, Mode, Region, RoutineItem } from '@yonder/core/domain';
import { itemSchema } from '@yonder/core/schemas';
import { redFlagQuestions } from '@yonder/core/safety';
import loadHighs from 'highs';
import type { Deps } from '../deps.ts';
import { hashPassword } from '../features/auth/routes.ts';
import { loadCase } from '../features/athletes/cases.ts';
import { answerRedFlags } from '../features/athletes/redFlags.ts';
import { addInjury, addPrecaution, createAthlete } from '../features/athletes/service.ts';
import { decide, issueRoutine } from '../features/routines/service.ts';
import { finishScreening, openScreening, putResult } from '../features/screenings/service.ts';
import { recordNextDay, saveSession, startSession } from '../features/sessions/service.ts';
import type { User } from '../http/endpoint.ts';
import { DEMO_PEOPLE } from './people.ts';
import type { DemoPerson } from './people.ts';

const DEMO_SIGN_IN = { email: 'rowan@northfell.example', password: 'ridge-walk' } as const;
const SEED = 4600;

interface Seeding {
  readonly deps: Deps;
  readonly user: User;
  readonly random: () => number;
  readonly solver: MipSolver;
}

/** The services with their clock set back to a day. */
function asOf({ deps }: Seeding, day: string): Deps {
  return { ...deps, today: () => day };
}

/** Roughly normal noise with mean 0 and SD 1 (sum of twelve uniforms, minus six). */
function noise(random: () => number): number {
  let sum = -6;
  for (let i = 0; i < 12; i += 1) sum += random();
  return sum;
}

function trialsFor(seeding: Seeding, testId: string, capacity: number): number[] {
  const test = seeding.deps.reference.tests.get(testId);
  if (!test) throw new Error(`demo: unknown test ${testId}`);
  const decimals =
    test.unit === 'reps' ? 0 : test.unit === 'N/kg' || test.unit === 'Nm/kg' ? 2 : test.unit === 'N' ? 0 : 1;
  const visit = capacity + noise(seeding.random) * test.sem.value * 0.5;
  return Array.from({ length: test.trials.count }, () => {
    const value = visit + noise(seeding.random) * test.sem.value * 0.25;
    const clamped = Math.min(test.plausible.max, Math.max(test.plausible.min, value));
    return Number(clamped.toFixed(decimals));
  });
}

async function screen(
  seeding: Seeding,
  person: DemoPerson,
  athleteId: string,
  day: string,
  firstDay: string,
): Promise<void> {
  const deps = asOf(seeding, day);
  const visit = await openScreening(deps, seeding.user, athleteId, day);
  const weeks = daysBetween(firstDay, day) / 7;
  for (const [test, { left, right, weekly = 0 }] of Object.entries(person.capacity)) {
    for (const side of ['left', 'right'] as const) {
      // The weaker side gains most: that is what it is trained for.
      const weaker = (side === 'left') === left < right;
      const value = (side === 'left' ? left : right) + weeks * weekly * (weaker ? 1 : 0.3);
      const result = {
        test,
        side,
        trials: trialsFor(seeding, test, value),
        pain: { nrs: seeding.random() < 0.15 ? 1 : 0 },
      };
      await putResult(deps, seeding.user, visit.id, result, null);
    }
  }
  await finishScreening(deps, seeding.user, visit.id, visit.version);
}

function entryOf(seeding: Seeding, item: RoutineItem, pain: number): DiaryEntry {
  const hurts = seeding.random() < 0.2 ? pain : 0;
  return {
    drill: item.drill,
    side: item.side,
    done: seeding.random() < 0.06 ? 'part' : 'all',
    amounts: Array.from({ length: item.sets }, () => item.amount),
    painBefore: 0,
    pain: hurts,
    nextDayPain: null,
    effort: 2 + Math.floor(seeding.random() * 2),
    quality: seeding.random() < 0.15 ? 2 : 3,
  };
}

/** Builds and issues the first routine as of a day. */
async function issueFirst(
  seeding: Seeding,
  athleteId: string,
  mode: Mode,
  from: string,
): Promise<RoutineRow> {
  const deps = asOf(seeding, from);
  const { case: input } = await loadCase(deps.database, seeding.user.practiceId, athleteId, from);
  const request = { ...input.request, mode };
  const { routine } = buildRoutine(deps.reference, { ...input, request }, seeding.solver);
  if (!routine) throw new Error('demo: no routine could be built');
  const items = routine.items.map(({ seconds: _s, serves: _v, reasons: _r, ...item }) =>
    itemSchema.parse(item),
  );
  return issueRoutine(deps, seeding.user, athleteId, {
    on: from,
    mode,
    structure: routine.structure,
    request,
    items,
  });
}

/** Accepts every decision as of a day; the routine in force goes on when nothing changes. */
async function carryOn(
  seeding: Seeding,
  athleteId: string,
  current: RoutineRow,
  from: string,
): Promise<RoutineRow> {
  const verdicts = current.items.map((_, index) => ({ index, verdict: 'accepted' as const }));
  const deps = asOf(seeding, from);
  const { routine } = await decide(deps, seeding.user, athleteId, {
    on: from,
    routineId: current.id,
    verdicts,
  });
  return routine ?? current;
}

async function train(
  seeding: Seeding,
  athleteId: string,
  plan: DemoPerson['routines'][0],
  routine: RoutineRow,
  from: string,
  until: string,
): Promise<void> {
  const days = Math.max(1, daysBetween(from, until) - 1);
  for (let run = 0; run < plan.runs; run += 1) {
    const date = addDays(from, 1 + Math.floor((run * days) / plan.runs));
    const at = asOf(seeding, date);
    const session = await startSession(at, seeding.user, { routineId: routine.id, date });
    const saved = await saveSession(at, seeding.user, session.id, {
      version: session.version,
      progress: { segment: 0, elapsed: 0, skipped: [], played: null },
      entries: routine.items.map((item) => entryOf(seeding, item, plan.pain)),
      finished: true,
    });
    if (seeding.random() < 0.7) {
      const pains = saved.entries.map((entry, index) => ({
        index,
        nextDayPain: Math.max(0, entry.pain - 1),
      }));
      await recordNextDay(at, seeding.user, saved.id, { version: saved.version, pains });
    }
  }
}

async function answerGate(
  seeding: Seeding,
  person: DemoPerson,
  athleteId: string,
  day: string,
  positive: string | null,
) {
  const regions = (person.regions.length > 0 ? person.regions : ['ankle-foot']) as Region[];
  const questions = redFlagQuestions(seeding.deps.reference, regions, person.fields.birthDate, day);
  const answers = questions.map((q) => ({
    redFlag: q.id,
    answer: q.id === positive,
    region: null,
    side: null,
  }));
  await answerRedFlags(asOf(seeding, day), seeding.user, athleteId, { regions, answers });
}

async function addPerson(seeding: Seeding, person: DemoPerson): Promise<void> {
  const today = seeding.deps.today();
  const ago = (days: number) => addDays(today, -days);
  const first = person.screenings[0] ? ago(person.screenings[0].daysAgo) : today;
  const { id } = await createAthlete(asOf(seeding, first), seeding.user, person.fields);
  for (const { daysAgo, ...injury } of person.injuries ?? []) {
    await addInjury(seeding.deps, seeding.user, id, { operated: false, ...injury, date: ago(daysAgo) });
  }
  if (person.regions.length > 0) await answerGate(seeding, person, id, first, null);
  for (const { daysAgo, reviewInDays, ...precaution } of person.precautions ?? []) {
    const until = addDays(ago(daysAgo), reviewInDays);
    await addPrecaution(asOf(seeding, ago(daysAgo)), seeding.user, id, {
      ...precaution,
      setBy: 'Rowan Halloran',
      until,
    });
  }
  const events = [
    ...person.screenings.map(({ daysAgo }) => ({ daysAgo, plan: null })),
    ...person.routines.map((plan) => ({ daysAgo: plan.daysAgo, plan })),
  ].sort((a, b) => b.daysAgo - a.daysAgo);
  let inForce: RoutineRow | null = null;
  for (const { daysAgo, plan } of events) {
    if (!plan) {
      await screen(seeding, person, id, ago(daysAgo), first);
      continue;
    }
    const next = person.routines.find((other) => other.daysAgo < daysAgo)?.daysAgo ?? 1;
    inForce = inForce
      ? await carryOn(seeding, id, inForce, ago(daysAgo))
      : await issueFirst(seeding, id, plan.mode, ago(daysAgo));
    await train(seeding, id, plan, inForce, ago(daysAgo), ago(next));
  }
  if (person.stopSign)
    await answerGate(seeding, person, id, ago(person.stopSign.daysAgo), person.stopSign.redFlag);
}

/**
 * Fills an empty database with the made-up academy, through the same services as real input. The same seed and the
 * same day give the same data. Does nothing when a practice exists already; returns whether it did.
 */
export async function seedDemo(deps: Deps): Promise<boolean> {
  if ((await deps.database.models.practices.count()) > 0) return false;
  const practice = await deps.database.models.practices.create({ name: 'Northfell Mountain Sports Academy' });
  const practiceId = practice.get({ plain: true }).id;
  const clinician = await deps.database.models.clinicians.create({
    practiceId,
    email: DEMO_SIGN_IN.email,
    name: 'Rowan Halloran',
    passwordHash: await hashPassword(DEMO_SIGN_IN.password),
  });
  const user: User = { clinicianId: clinician.get({ plain: true }).id, practiceId, name: 'Rowan Halloran' };
  const solver = createHighsSolver(await loadHighs());
  const seeding: Seeding = { deps, user, random: seededRandom(SEED), solver };
  for (const person of DEMO_PEOPLE) await addPerson(seeding, person);
  return true;
}

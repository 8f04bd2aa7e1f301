import { buildRoutine, createHighsSolver } from '@yonder/core/builder';
import { seededRandom } from '@yonder/core/random';
import type { MipSolver } from '@yonder/core/builder';
import { addDays, daysBetween } from '@yonder/core/domain';
import type { RoutineRow } from '@yonder/core/contracts';
import type { DiaryEntry, Mode, Region, RoutineItem, ScreeningResult } from '@yonder/core/domain';
import type { Test } from '@yonder/core/reference';
import { itemSchema } from '@yonder/core/schemas';
import { redFlagQuestions } from '@yonder/core/safety';
import loadHighs from 'highs';
import type { Deps } from '../deps.ts';
import { audit } from '../features/audit.ts';
import { hashPassword } from '../features/auth/routes.ts';
import { loadCase } from '../features/athletes/cases.ts';
import { answerRedFlags } from '../features/athletes/redFlags.ts';
import { addInjury, addPrecaution, createAthlete } from '../features/athletes/service.ts';
import { addJudgement, addPain, putProtocol } from '../features/athletes/story.ts';
import { listAthletes } from '../features/athletes/summaries.ts';
import { decide, issueRoutine } from '../features/routines/service.ts';
import { finishScreening, openScreening, putResults } from '../features/screenings/service.ts';
import { recordNextDay, saveSession, startSession } from '../features/sessions/service.ts';
import type { User } from '../http/endpoint.ts';
import { addLibrary } from './library.ts';
import { DEMO_PEOPLE } from './people.ts';
import type { DemoPerson } from './people.ts';
import { demoRoster } from './roster.ts';

const DEMO_SIGN_IN = { email: 'rowan@northfell.example', password: 'ridge-walk' } as const;
const SEED = 4600;
const ACADEMY = 'Northfell Mountain Sports Academy';
/** Recorded when the whole academy is there. */
const LAID_OUT = 'demo.laid-out';

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

/** Marked faults, or a rating, that come to the grade nearest to a capacity. */
function gradedBy(test: Test, capacity: number): Pick<ScreeningResult, 'grade' | 'faults'> {
  const grade = Math.round(Math.min(test.plausible.max, Math.max(test.plausible.min, capacity)));
  if (test.gradingRule?.kind !== 'fault-count') return { grade };
  const mark = grade >= 2 ? ('slight' as const) : ('clear' as const);
  const faults = grade >= 3 ? [] : (test.faults ?? []).slice(0, 1).map(({ id }) => ({ id, mark }));
  return { faults };
}

function trialsFor(seeding: Seeding, test: Test, capacity: number): number[] {
  const decimals =
    test.unit === 'reps' || test.unit === 'nrs-0-10'
      ? 0
      : test.unit === 'N/kg' || test.unit === 'Nm/kg'
        ? 2
        : test.unit === 'N'
          ? 0
          : 1;
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
  const results: ScreeningResult[] = [];
  for (const [id, { left, right, weekly = 0 }] of Object.entries(person.capacity)) {
    const test = deps.reference.tests.get(id);
    if (!test) throw new Error(`demo: unknown test ${id}`);
    const sides = test.sides === 'central' ? (['central'] as const) : (['left', 'right'] as const);
    const sign = test.better === 'lower' ? -1 : 1;
    for (const side of sides) {
      // The weaker side gains most: that is what it is trained for.
      const own = side === 'right' ? right : left;
      const other = side === 'right' ? left : right;
      const weaker = sign * own < sign * other;
      const value = own + weeks * weekly * (weaker || side === 'central' ? 1 : 0.3);
      const measured = test.gradingRule
        ? gradedBy(test, value)
        : { trials: trialsFor(seeding, test, value), pain: { nrs: seeding.random() < 0.15 ? 1 : 0 } };
      results.push({ test: id, side, ...measured });
    }
  }
  await deps.database.inTransaction((transaction) =>
    putResults(deps, seeding.user, { id: visit.id, athleteId }, results, transaction),
  );
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
  birthDate: string,
  day: string,
  positive: string | null,
) {
  const regions = (person.regions.length > 0 ? person.regions : ['ankle-foot']) as Region[];
  const questions = redFlagQuestions(seeding.deps.reference, regions, birthDate, day);
  const answers = questions.map((q) => ({
    redFlag: q.id,
    answer: q.id === positive,
    region: null,
    side: null,
  }));
  await answerRedFlags(asOf(seeding, day), seeding.user, athleteId, { regions, answers });
}

/** What hurts, what a protocol ticks, what was said of findings. */
async function addStory(
  seeding: Seeding,
  person: DemoPerson,
  id: string,
  ago: (days: number) => string,
): Promise<void> {
  for (const { daysAgo, ...pain } of person.pains ?? []) {
    await addPain(seeding.deps, seeding.user, id, { ...pain, since: ago(daysAgo) });
  }
  if (person.protocol) {
    const { region, side, by, daysAgo, tests, drillsOf } = person.protocol;
    const drills = seeding.deps.reference.data.drills
      .filter(
        (drill) =>
          drill.regions.primary[0] === drillsOf && drill.level === 1 && drill.loadClass === 'unloaded',
      )
      .slice(0, 6)
      .map((drill) => drill.id);
    const body = { by, date: ago(daysAgo), drills, tests: [...tests], version: null };
    await putProtocol(seeding.deps, seeding.user, id, { region, side }, body);
  }
  for (const { daysAgo, ...said } of person.said ?? []) {
    await addJudgement(asOf(seeding, ago(daysAgo)), seeding.user, id, said);
  }
}

async function addPerson(seeding: Seeding, person: DemoPerson): Promise<void> {
  const today = seeding.deps.today();
  const ago = (days: number) => addDays(today, -days);
  const first = person.screenings[0] ? ago(person.screenings[0].daysAgo) : today;
  const birthDate =
    person.age === undefined ? person.fields.birthDate : addDays(today, -365 * person.age - 120);
  const fields = { ...person.fields, birthDate };
  const { id } = await createAthlete(asOf(seeding, first), seeding.user, fields);
  for (const { daysAgo, ...injury } of person.injuries ?? []) {
    await addInjury(seeding.deps, seeding.user, id, { operated: false, ...injury, date: ago(daysAgo) });
  }
  if (person.regions.length > 0) await answerGate(seeding, person, id, birthDate, first, null);
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
    await answerGate(seeding, person, id, birthDate, ago(person.stopSign.daysAgo), person.stopSign.redFlag);
  await addStory(seeding, person, id, ago);
}

/**
 * Fills an empty database with the made-up academy, through the same services as real input. The same seed and the
 * same day give the same data. Does nothing when a practice exists already; returns whether it did.
 */
export async function seedDemo(deps: Deps): Promise<boolean> {
  const { models } = deps.database;
  // An academy that was only half laid out, because the start was cut off, is laid out anew.
  const laidOut = (await models.audit.count({ where: { action: LAID_OUT } })) > 0;
  if (!laidOut) await models.practices.destroy({ where: { name: ACADEMY } });
  if ((await models.practices.count()) > 0) return false;
  const practice = await models.practices.create({ name: ACADEMY });
  const practiceId = practice.get({ plain: true }).id;
  const clinician = await models.clinicians.create({
    practiceId,
    email: DEMO_SIGN_IN.email,
    name: 'Rowan Halloran',
    passwordHash: await hashPassword(DEMO_SIGN_IN.password),
  });
  const user: User = { clinicianId: clinician.get({ plain: true }).id, practiceId, name: 'Rowan Halloran' };
  const solver = createHighsSolver(await loadHighs());
  const seeding: Seeding = { deps, user, random: seededRandom(SEED), solver };
  const people = [...DEMO_PEOPLE, ...demoRoster(deps.reference, SEED)];
  for (const person of people) await addPerson(seeding, person);
  await addLibrary(deps, user);
  await audit(deps.database, user, null, LAID_OUT);
  await listAthletes(deps, user); // the first look at the list finds its summaries ready
  return true;
}

import { assessCase } from '@yonder/core/assess';
import { buildRoutine, createHighsSolver } from '@yonder/core/builder';
import type { MipSolver } from '@yonder/core/builder';
import type { RoutineRow } from '@yonder/core/contracts';
import { addDays, daysBetween, OCCASION_MODE, REGIONS, usualRequest } from '@yonder/core/domain';
import type { Mode, Occasion, Region, ScreeningResult } from '@yonder/core/domain';
import { routineTimeline } from '@yonder/core/dose';
import { seededRandom } from '@yonder/core/random';
import type { Test } from '@yonder/core/reference';
import { identified } from '@yonder/core/routine';
import type { IdentifiedItem } from '@yonder/core/routine';
import { gateTopics, seasonEnd } from '@yonder/core/safety';
import { itemSchema } from '@yonder/core/schemas';
import type { Happening, SessionEvent } from '@yonder/core/session';
import loadHighs from 'highs';
import type { Deps } from '../deps.ts';
import { loadRecord } from '../features/athletes/record.ts';
import { answerTopic } from '../features/athletes/gate.ts';
import { addInjury, addPrecaution, createAthlete } from '../features/athletes/service.ts';
import { addJudgement, addPain, putProtocol } from '../features/athletes/story.ts';
import { hashPassword } from '../features/auth/password.ts';
import { decide } from '../features/routines/decisions.ts';
import { putOccasion } from '../features/routines/occasions.ts';
import { issueRoutine } from '../features/routines/versions.ts';
import { finishScreening, openScreening, putResults } from '../features/screenings/service.ts';
import { appendEvents, startSession } from '../features/sessions/service.ts';
import { workOutLater } from '../jobs/summaries.ts';
import { SYSTEM } from '../work/actor.ts';
import type { Actor } from '../work/actor.ts';
import { dayIn } from '../work/days.ts';
import { newId } from '../work/newId.ts';
import { inPractice } from '../work/unit.ts';
import type { Unit } from '../work/unit.ts';
import { addLibrary } from './library.ts';
import { DEMO_PEOPLE } from './people.ts';
import type { DemoPerson } from './people.ts';
import { demoRoster } from './roster.ts';

const DEMO_SIGN_IN = {
  email: 'rowan@northfell.example',
  password: 'ridge-walk',
  name: 'Rowan Halloran',
} as const;
const SEED = 4600;
const SEASON_STARTS = '10-01';
const ACADEMY = 'Northfell Mountain Sports Academy';
/** Recorded when the whole academy is there. */
const LAID_OUT = 'demo.laid-out';

interface Seeding {
  readonly deps: Deps;
  readonly practiceId: string;
  readonly actor: Actor;
  readonly today: string;
  readonly random: () => number;
  readonly solver: MipSolver;
}

/** One unit of work with the clock set back to a day. */
function on<T>(
  { deps, practiceId, actor }: Seeding,
  today: string,
  work: (unit: Unit) => Promise<T>,
): Promise<T> {
  return inPractice(deps, practiceId, work, { actor, today });
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

function measured(seeding: Seeding, person: DemoPerson, weeks: number): ScreeningResult[] {
  const results: ScreeningResult[] = [];
  for (const [id, { left, right, weekly = 0 }] of Object.entries(person.capacity)) {
    const test = seeding.deps.reference.tests.get(id);
    if (!test) throw new Error(`demo: unknown test ${id}`);
    const sides = test.sides === 'central' ? (['central'] as const) : (['left', 'right'] as const);
    const sign = test.better === 'lower' ? -1 : 1;
    for (const side of sides) {
      // The weaker side gains most: that is what it is trained for.
      const own = side === 'right' ? right : left;
      const other = side === 'right' ? left : right;
      const weaker = sign * own < sign * other;
      const value = own + weeks * weekly * (weaker || side === 'central' ? 1 : 0.3);
      const result = test.gradingRule
        ? gradedBy(test, value)
        : { trials: trialsFor(seeding, test, value), pain: { nrs: seeding.random() < 0.15 ? 1 : 0 } };
      results.push({ test: id, side, ...result });
    }
  }
  return results;
}

async function screen(
  seeding: Seeding,
  person: DemoPerson,
  athleteId: string,
  day: string,
  firstDay: string,
): Promise<void> {
  const results = measured(seeding, person, daysBetween(firstDay, day) / 7);
  await on(seeding, day, async (unit) => {
    const visit = await openScreening(unit, athleteId, { id: newId(), date: day });
    await putResults(unit, { id: visit.id, athleteId }, results);
    await finishScreening(unit, visit.id, visit.version);
  });
}

/** What is said of one item after a run. */
function saidOf(seeding: Seeding, item: IdentifiedItem, pain: number): Happening {
  return {
    type: 'amended',
    item: item.id,
    pain: seeding.random() < 0.2 ? pain : 0,
    effort: 2 + Math.floor(seeding.random() * 2),
    quality: seeding.random() < 0.15 ? 2 : 3,
  };
}

/** Everything that happens in one run: now and then the last set of a drill is left out. */
function runOf(seeding: Seeding, items: readonly IdentifiedItem[], pain: number): Happening[] {
  const segments = routineTimeline(seeding.deps.reference, items);
  const leftOut = new Set(items.flatMap((_, i) => (seeding.random() < 0.06 ? [i] : [])));
  const works = segments.flatMap((s, segment) => (s.kind === 'work' ? [{ ...s, segment }] : []));
  const played = works.map((work, i): Happening => {
    const item = items[work.item]?.id ?? '';
    const last = works[i + 1]?.item !== work.item && works.filter((w) => w.item === work.item).length > 1;
    if (leftOut.has(work.item) && last)
      return { type: 'skipped', item, segments: [work.segment], next: work.segment + 1 };
    const { segment, side, amount } = work;
    return { type: 'reached', item, segment, set: work.set ?? 1, side, amount: amount ?? 0 };
  });
  const said = items.map((item) => saidOf(seeding, item, pain));
  return [{ type: 'started' }, ...played, ...said, { type: 'finished' }];
}

function stamped(happenings: readonly Happening[], day: string, from: number): SessionEvent[] {
  const start = Date.parse(`${day}T16:00:00Z`);
  return happenings.map((happening, i) => ({
    ...happening,
    id: newId(),
    device: 'academy-tablet',
    seq: from + i,
    at: new Date(start + (from + i) * 7000).toISOString(),
  }));
}

/** Builds and issues the first routine as of a day. */
async function issueFirst(
  seeding: Seeding,
  athleteId: string,
  mode: Mode,
  from: string,
  asked: { occasion?: Occasion; minutes?: number } = {},
): Promise<RoutineRow> {
  const { deps } = seeding;
  const { occasion, ...own } = asked;
  return on(seeding, from, async (unit) => {
    const { case: input, athlete } = await loadRecord(unit, athleteId, from);
    const usual = occasion ? usualRequest(input.request, occasion, athlete) : { ...input.request, mode };
    const request = { ...usual, ...own };
    const { routine } = buildRoutine(assessCase(deps.reference, input), request, seeding.solver);
    if (!routine) throw new Error('demo: no routine could be built');
    const bare = routine.items.map(({ seconds: _s, serves: _v, reasons: _r, ...item }) =>
      itemSchema.parse(item),
    );
    const items = identified(deps.reference, [], bare, newId);
    const version = {
      id: newId(),
      on: from,
      occasion,
      mode,
      sections: [],
      structure: routine.structure,
      request,
      items,
      overrides: [],
    };
    return issueRoutine(deps, unit, athleteId, version);
  });
}

/** Accepts every decision as of a day; the routine in force goes on when nothing changes. */
async function carryOn(
  seeding: Seeding,
  athleteId: string,
  current: RoutineRow,
  from: string,
): Promise<RoutineRow> {
  const verdicts = current.items.map(({ id }) => ({ item: id, verdict: 'accepted' as const }));
  const { routine } = await on(seeding, from, (unit) =>
    decide(seeding.deps, unit, athleteId, { id: newId(), on: from, routineId: current.id, verdicts }),
  );
  return routine ?? current;
}

async function train(
  seeding: Seeding,
  plan: DemoPerson['routines'][0],
  routine: RoutineRow,
  from: string,
  until: string,
): Promise<void> {
  const days = Math.max(1, daysBetween(from, until) - 1);
  for (let run = 0; run < plan.runs; run += 1) {
    const date = addDays(from, 1 + Math.floor((run * days) / plan.runs));
    await on(seeding, date, async (unit) => {
      const session = await startSession(seeding.deps, unit, {
        id: newId(),
        routineId: routine.id,
        date,
        leaveOut: [],
      });
      const happened = runOf(seeding, routine.items, plan.pain);
      const saved = await appendEvents(seeding.deps, unit, session.id, stamped(happened, date, 0));
      if (seeding.random() >= 0.7) return;
      const morning = saved.entries.map((entry): Happening => ({
        type: 'amended',
        item: entry.item,
        nextDayPain: Math.max(0, entry.pain - 1),
      }));
      await appendEvents(seeding.deps, unit, session.id, stamped(morning, date, happened.length));
    });
  }
}

/** Days on which the gate was gone through: at first, and again once each season. */
function gateDays(first: string, today: string): string[] {
  const days = [first];
  for (let day = addDays(seasonEnd(first, SEASON_STARTS), 2); day <= today;) {
    days.push(day);
    day = addDays(seasonEnd(day, SEASON_STARTS), 2);
  }
  return days;
}

/** Every topic answered with none of its signs, group by group as a practitioner reads them out. */
async function answerGate(seeding: Seeding, athleteId: string, day: string): Promise<void> {
  await on(seeding, day, async (unit) => {
    const { birthDate } = await unit.rows.athletes.need({ id: athleteId }, 'Athlete');
    await unit.rows.gate_answers.insertAll(
      gateTopics(unit.reference, REGIONS, birthDate, day).map(({ id: topic, signs }, i) => ({
        id: newId(),
        athleteId,
        topic,
        outcome: 'none' as const,
        signs: signs.map(({ sign }) => sign.id),
        seconds: 5 + ((i * 7) % 9),
        answeredOn: day,
        answeredBy: seeding.actor.kind === 'clinician' ? seeding.actor.name : '',
      })),
    );
  });
}

/** One sign is there: said in its topic. */
async function saySign(seeding: Seeding, athleteId: string, day: string, redFlag: string): Promise<void> {
  await on(seeding, day, async (unit) => {
    const { birthDate } = await unit.rows.athletes.need({ id: athleteId }, 'Athlete');
    const topic = gateTopics(unit.reference, REGIONS, birthDate, day).find((t) =>
      t.signs.some(({ sign }) => sign.id === redFlag),
    );
    const signs = [{ redFlag, region: null, side: null }];
    await answerTopic(unit, athleteId, {
      id: newId(),
      topic: topic?.id ?? '',
      outcome: 'signs',
      seconds: 14,
      signs,
    });
  });
}

/** What hurts, what a protocol ticks, what was said of findings. */
async function addStory(
  seeding: Seeding,
  person: DemoPerson,
  id: string,
  ago: (days: number) => string,
): Promise<void> {
  for (const { daysAgo, ...pain } of person.pains ?? [])
    await on(seeding, seeding.today, (unit) =>
      addPain(unit, id, { ...pain, id: newId(), since: ago(daysAgo) }),
    );
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
    await on(seeding, seeding.today, (unit) => putProtocol(unit, id, { region, side }, body));
  }
  for (const { daysAgo, ...said } of person.said ?? [])
    await on(seeding, ago(daysAgo), (unit) => addJudgement(unit, id, { ...said, id: newId() }));
}

/** The athlete with what was known at the first visit: injuries, the gate, precautions. */
async function addAthlete(
  seeding: Seeding,
  person: DemoPerson,
  first: string,
  ago: (days: number) => string,
): Promise<string> {
  const birthDate =
    person.age === undefined ? person.fields.birthDate : addDays(seeding.today, -365 * person.age - 120);
  const id = newId();
  await on(seeding, first, (unit) => createAthlete(unit, { id, ...person.fields, birthDate }));
  for (const { daysAgo, ...injury } of person.injuries ?? []) {
    const region = injury.region as Region;
    await on(seeding, seeding.today, (unit) =>
      addInjury(unit, id, { id: newId(), operated: false, ...injury, region, date: ago(daysAgo) }),
    );
  }
  if (person.regions.length > 0)
    for (const day of gateDays(first, seeding.today)) await answerGate(seeding, id, day);
  for (const { daysAgo, reviewInDays, ...precaution } of person.precautions ?? []) {
    const until = addDays(ago(daysAgo), reviewInDays);
    await on(seeding, ago(daysAgo), (unit) =>
      addPrecaution(unit, id, {
        id: newId(),
        ...precaution,
        setBy: 'Rowan Halloran',
        until,
        region: null,
        side: null,
      }),
    );
  }
  return id;
}

/** What hurts in the runs of yesterday, athlete by athlete of the roster; undefined did not run. */
const YESTERDAY = [0, undefined, 1, 0, undefined, 6, 0, 3, undefined, 0] as const;

/** A run of yesterday, so that the morning has something to look at. */
async function runYesterday(
  seeding: Seeding,
  index: number,
  routine: RoutineRow,
  pain: number,
): Promise<void> {
  const date = addDays(seeding.today, -1);
  const own = { ...seeding, random: seededRandom(SEED + index) };
  const [first] = routine.items;
  const hurt: Happening[] =
    pain > 0 && first ? [{ type: 'amended', item: first.id, pain, effort: 4, quality: 2 }] : [];
  const happened = [...runOf(own, routine.items, 0).slice(0, -1), ...hurt, { type: 'finished' as const }];
  await on(seeding, date, async (unit) => {
    const session = await startSession(seeding.deps, unit, {
      id: newId(),
      routineId: routine.id,
      date,
      leaveOut: [],
    });
    await appendEvents(seeding.deps, unit, session.id, stamped(happened, date, 0));
  });
}

async function addPerson(seeding: Seeding, person: DemoPerson, index: number): Promise<void> {
  const ago = (days: number) => addDays(seeding.today, -days);
  const first = person.screenings[0] ? ago(person.screenings[0].daysAgo) : seeding.today;
  const id = await addAthlete(seeding, person, first, ago);
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
    await train(seeding, plan, inForce, ago(daysAgo), ago(next));
  }
  await addOccasions(seeding, person, id);
  const hurt = YESTERDAY[index];
  const free = !person.stopSign && !person.protocol && !person.precautions;
  if (inForce && free && hurt !== undefined) await runYesterday(seeding, index, inForce, hurt);
  if (person.stopSign) await saySign(seeding, id, ago(person.stopSign.daysAgo), person.stopSign.redFlag);
  await addStory(seeding, person, id, ago);
}

/** Routines for other occasions, with their days and their own runs; what is in force already stays as it is. */
async function addOccasions(seeding: Seeding, person: DemoPerson, id: string): Promise<void> {
  for (const { occasion, daysAgo, minutes, days, runs } of person.occasions ?? []) {
    const from = addDays(seeding.today, -daysAgo);
    const own = { ...seeding, random: seededRandom(SEED + daysAgo + minutes) };
    const asked = { occasion, minutes };
    const routine = await issueFirst(own, id, OCCASION_MODE[occasion], from, asked);
    const mode = routine.mode === 'build' ? ('build' as const) : ('prepare' as const);
    await train(own, { daysAgo, runs, pain: 0, mode }, routine, from, addDays(seeding.today, -1));
    if (days.length > 0)
      await on(own, from, (unit) =>
        putOccasion(unit, id, occasion, { days: [...days], timesPerDay: 1, ended: false, version: null }),
      );
  }
}

/** The academy and its first clinician; null when there is a practice already. */
async function addAcademy({ database }: Deps): Promise<{ practiceId: string; actor: Actor } | null> {
  return database.inTransaction(async ({ tables, query }) => {
    const everywhere = tables({ practiceId: null, actor: SYSTEM });
    // An academy that was only half laid out, because the start was cut off, is laid out anew.
    const laidOut = await query('SELECT 1 AS one FROM audit_events WHERE action = :action', {
      action: LAID_OUT,
    });
    if (laidOut.length === 0) await everywhere.practices.drop({ name: ACADEMY });
    if ((await everywhere.practices.count()) > 0) return null;
    const practiceId = newId();
    await everywhere.practices.insert({
      id: practiceId,
      name: ACADEMY,
      timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      seasonStarts: SEASON_STARTS,
      painLimits: null,
      doseShares: [],
      painPatterns: null,
    });
    const id = newId();
    const { email, password, name } = DEMO_SIGN_IN;
    const passwordHash = await hashPassword(password);
    const own = tables({ practiceId, actor: SYSTEM });
    await own.clinicians.insert({
      id,
      email,
      name,
      passwordHash,
      role: 'owner',
      active: true,
      sessionEpoch: 1,
    });
    return { practiceId, actor: { kind: 'clinician', id, name, role: 'owner' } };
  });
}

/**
 * Fills an empty database with the made-up academy, through the same services as real input. The same seed and the
 * same day give the same data. Does nothing when a practice exists already; returns whether it did. With `people` only
 * the first so many are laid, one after the other as in the whole.
 */
export async function seedDemo(deps: Deps, people = Infinity): Promise<boolean> {
  const academy = await addAcademy(deps);
  if (!academy) return false;
  const solver = createHighsSolver(await loadHighs());
  const today = dayIn(Intl.DateTimeFormat().resolvedOptions().timeZone, deps.clock());
  const seeding: Seeding = { deps, ...academy, today, random: seededRandom(SEED), solver };
  const all = [
    ...DEMO_PEOPLE.map((person) => ({ person, index: -1 })),
    ...demoRoster(deps.reference, SEED).map((person, index) => ({ person, index })),
  ];
  for (const { person, index } of all.slice(0, people)) await addPerson(seeding, person, index);
  await on(seeding, today, async (unit) => {
    await addLibrary(unit);
    await unit.audit(LAID_OUT, null);
    await workOutLater(unit);
  });
  return true;
}

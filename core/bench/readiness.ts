import loadHighs from 'highs';
import { createHighsSolver } from '../src/builder/index.ts';
import type { BuildReport } from '../src/builder/index.ts';
import { ageInYears, monthsBefore } from '../src/domain/index.ts';
import type { Case, Region } from '../src/domain/index.ts';
import { FIT, fitOf, wantedElements } from '../src/readiness/index.ts';
import type { WantedElement } from '../src/readiness/index.ts';
import { actionsOfDay } from '../src/builder/dayActions.ts';
import { FINDING_SETTINGS } from '../src/findings/index.ts';
import { bundledReference as reference } from '../src/reference/bundled.ts';
import { caseOf, TODAY } from '../src/testing/cases.ts';
import type { CaseInput } from '../src/testing/cases.ts';
import { houseFaults } from '../src/testing/houseRules.ts';
import { buildCase, judgeCase } from '../src/testing/prepared.ts';

// What every action and every joint asks of a preparation, in the forms in which practitioners ask for one: is what is
// wanted answered, is it warm, is it rehearsed, does it rise? `npm run deep -- readiness [--form F]`.
const solver = createHighsSolver(await loadHighs());
const MINUTES = [5, 8, 12, 20] as const;
/** Of structures shorter than these. */
const SHORTEST = 3;
const KIT = ['wall', 'long-band', 'step', 'ball', 'small-ball', 'pull-up-bar', 'sport-gear'];
const [onlyForm = ''] = process.argv.slice(2);

/** Structures of a preparation. */
const PREPARES = [...reference.structures.values()].filter(
  ({ id, phases }) => id !== 'on-site-by-the-clock' && phases.some(({ primer }) => primer),
);

const { profiles } = reference.data.readiness;
const actions = profiles.map(({ action }) => action).filter((id) => reference.patterns.has(id));
const tasksOf = (action: string) => reference.patterns.get(action)?.tasks ?? [];
const taskOf = (action: string) => tasksOf(action)[0] ?? '';
const task = (id: string) => ({ id, lead: 'either' as const });
const after = <T>(list: readonly T[], place: number): T => list[place % list.length] as T;

/** Restrictions of the action's first task, as a practitioner who saw three of them would enter them. */
function seen(action: string): Case['judgements'] {
  const demands = reference.demands.get(taskOf(action))?.demands ?? [];
  const asked = [...new Set(demands.flatMap(({ informs }) => informs))].flatMap(
    (id) => reference.restrictions.get(id) ?? [],
  );
  return asked
    .filter(({ kind }) => kind !== 'load-tolerance')
    .slice(0, 3)
    .map(({ id, laterality }) => ({
      restriction: id,
      side: laterality === 'central' ? 'central' : 'left',
      verdict: 'seen',
      degree: 'clear',
      reason: '',
      by: 'R. Halloran',
      date: '2027-02-27',
    }));
}

const injury = (region: Region, date: string) => ({
  region,
  side: region === 'thoracic' || region === 'lumbopelvic' ? ('central' as const) : ('left' as const),
  date,
  operated: false,
});
const JOINTS = reference.data.readiness.joints.map(({ region }) => region);

type Form = (action: string, place: number) => CaseInput;
const athlete = (action: string) => ({ trainingYears: 4, tasks: [task(taskOf(action))] });
const FORMS: Readonly<Record<string, Form>> = {
  unscreened: (action) => ({ athlete: athlete(action) }),
  'three findings': (action) => ({ athlete: athlete(action), judgements: seen(action) }),
  'three tasks': (action, place) => ({
    athlete: {
      trainingYears: 4,
      tasks: [action, after(actions, place + 5), after(actions, place + 11)].map((one) => task(taskOf(one))),
    },
  }),
  'three tasks, findings': (action, place) => ({
    athlete: {
      trainingYears: 4,
      tasks: [action, after(actions, place + 5), after(actions, place + 11)].map((one) => task(taskOf(one))),
    },
    judgements: seen(after(actions, place + 5)).slice(0, 2),
  }),
  'old injury': (action, place) => ({
    athlete: { ...athlete(action), injuries: [injury(after(JOINTS, place), '2025-09-10')] },
  }),
  'injury, finding': (action, place) => ({
    athlete: { ...athlete(action), injuries: [injury(after(JOINTS, place), '2026-06-10')] },
    judgements: seen(action).slice(0, 1),
  }),
  'on a mat': (action) => ({ athlete: athlete(action), request: { kit: [], space: 'mat' } }),
  newcomer: (action) => ({ athlete: { ...athlete(action), trainingYears: 0 } }),
  'no kit': (action) => ({ athlete: athlete(action), request: { kit: [] } }),
  'one joint': (action, place) => ({ athlete: athlete(action), request: { focus: [after(JOINTS, place)] } }),
  'two joints': (action, place) => ({
    athlete: {
      ...athlete(action),
      injuries: [after(JOINTS, place), after(JOINTS, place + 3)].map((one) => injury(one, '2026-04-10')),
    },
  }),
  'under 14': (action) => ({ athlete: { ...athlete(action), birthDate: '2016-05-02' } }),
  ...Object.fromEntries(
    PREPARES.map(({ id }): [string, Form] => [
      id,
      (action) => ({ athlete: athlete(action), request: { structure: id } }),
    ]),
  ),
  'release first': (action) => ({
    athlete: athlete(action),
    request: { schools: { 'release-first': 'first' } },
  }),
  'hard finish': (action) => ({
    athlete: athlete(action),
    request: { schools: { 'breathless-or-conversational': 'hard-finish' } },
  }),
};

function wantedOf(input: Case): WantedElement[] {
  const followed = actionsOfDay(reference, { athlete: input.athlete }, input.request);
  const since = monthsBefore(TODAY, FINDING_SETTINGS.injuryMonths);
  return wantedElements(reference, {
    actions: followed,
    tasks: input.athlete.tasks
      .map(({ id }) => id)
      .filter((id) => followed.some((action) => tasksOf(action).includes(id))),
    mode: 'prepare',
    minutes: input.request.minutes ?? 10,
    focus: input.request.focus,
    joints: [
      ...new Set(input.athlete.injuries.filter(({ date }) => date >= since).map(({ region }) => region)),
    ],
    age: ageInYears(input.athlete.birthDate, TODAY),
    kit: input.request.kit,
  });
}

interface Measured {
  readonly wanted: number;
  readonly answered: number;
  readonly missing: readonly string[];
  readonly warm: boolean;
  readonly rehearsal: number;
  readonly faults: readonly string[];
  readonly ms: number;
}

function measure(input: Case): Measured {
  const before = performance.now();
  const report: BuildReport = buildCase(reference, input, solver);
  const ms = performance.now() - before;
  const items = (report.routine?.items ?? []).flatMap((item) => {
    const drill = reference.drills.get(item.drill);
    return drill ? [{ ...item, drill }] : [];
  });
  const wanted = wantedOf(input);
  const seconds = (input.request.minutes ?? 10) * 60;
  const missing = wanted
    .filter(({ element }) => !items.some(({ drill }) => fitOf(element, drill) >= FIT.half))
    .map(({ element }) => element.id);
  const share = (part: string) =>
    items
      .filter(({ drill }) =>
        wanted.some(({ element }) => element.part === part && fitOf(element, drill) >= FIT.half),
      )
      .reduce((sum, one) => sum + one.seconds, 0) / seconds;
  return {
    wanted: wanted.length,
    answered: wanted.length - missing.length,
    missing,
    warm: share('warm') * seconds >= (seconds >= 900 ? 150 : seconds >= 600 ? 90 : 45),
    rehearsal: share('rehearse'),
    faults: houseFaults(reference, input, report, judgeCase(reference, input).findings),
    ms,
  };
}

const per = (part: number, of: number) => `${Math.round((100 * part) / Math.max(1, of))} %`;
const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;

console.log(
  '| form | wanted answered | all of it | warm | rehearsed (median) | house rules kept | median ms |',
);
console.log('| --- | --- | --- | --- | --- | --- | --- |');
const misses = new Map<string, number>();
const faults: string[] = [];
for (const [form, make] of Object.entries(FORMS)) {
  if (!form.includes(onlyForm)) continue;
  const rows = actions.flatMap((action, place) =>
    [SHORTEST, ...MINUTES].flatMap((minutes) => {
      const { request, ...given } = make(action, place);
      const { min = 0, max = Infinity } = reference.structures.get(request?.structure ?? '')?.minutes ?? {};
      if (minutes < min || minutes > max || (minutes === SHORTEST) !== max < MINUTES[0]) return [];
      const input = caseOf({
        ...given,
        request: { mode: 'prepare', minutes, kit: KIT, ...request } as never,
      });
      const row = measure(input);
      for (const id of row.missing) misses.set(id, (misses.get(id) ?? 0) + 1);
      faults.push(...row.faults.map((fault) => `${form} / ${action} ${minutes} min: ${fault}`));
      return [row];
    }),
  );
  const all = (of: (row: Measured) => number) => rows.reduce((sum, row) => sum + of(row), 0);
  console.log(
    `| ${form} | ${per(
      all((r) => r.answered),
      all((r) => r.wanted),
    )} | ${per(
      all((r) => Number(r.missing.length === 0)),
      rows.length,
    )} | ${per(
      all((r) => Number(r.warm)),
      rows.length,
    )} | ${per(median(rows.map((r) => r.rehearsal)), 1)} | ${per(
      all((r) => Number(r.faults.length === 0)),
      rows.length,
    )} | ${Math.round(median(rows.map((r) => r.ms)))} |`,
  );
}
console.log('\nMost often missing:');
for (const [id, count] of [...misses].sort((a, b) => b[1] - a[1]).slice(0, 40))
  console.log(`  ${count} ${id}`);
console.log(`\nHouse rules broken:\n${faults.map((fault) => `  ${fault}`).join('\n')}`);

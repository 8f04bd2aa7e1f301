import loadHighs from 'highs';
import { createHighsSolver, elementsAsked } from '../src/builder/index.ts';
import type { Case, Region } from '../src/domain/index.ts';
import { bundledReference as reference } from '../src/reference/bundled.ts';
import { caseOf } from '../src/testing/cases.ts';
import type { CaseInput } from '../src/testing/cases.ts';
import { houseFaults } from '../src/testing/houseRules.ts';
import { buildCase, judgeCase, prepareCase } from '../src/testing/prepared.ts';

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
const withTwoMore = (action: string, place: number) => ({
  trainingYears: 4,
  tasks: [action, after(actions, place + 5), after(actions, place + 11)].map((one) => task(taskOf(one))),
});
/** Options of methods that are not the default, each a form: is what was chosen seen? */
const METHODS = reference.data.schools.flatMap((school) =>
  school.options
    .filter(({ id }) => id !== school.default)
    .map(({ id }) => ({ school: school.id, option: id })),
);
const METHOD_MINUTES: readonly number[] = [8, 20];
const PLAIN = 'unscreened';
const FORMS: Readonly<Record<string, Form>> = {
  [PLAIN]: (action) => ({ athlete: athlete(action) }),
  'three findings': (action) => ({ athlete: athlete(action), judgements: seen(action) }),
  'three tasks': (action, place) => ({ athlete: withTwoMore(action, place) }),
  'three tasks, findings': (action, place) => ({
    athlete: withTwoMore(action, place),
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
      `structure ${id}`,
      (action) => ({ athlete: athlete(action), request: { structure: id } }),
    ]),
  ),
  ...Object.fromEntries(
    METHODS.map(({ school, option }): [string, Form] => [
      `method ${school}: ${option}`,
      (action) => ({ athlete: athlete(action), request: { schools: { [school]: option } } }),
    ]),
  ),
};
/** Nobody's sport: moving in general, alone and for each joint that is named or was hurt. */
const WITHOUT_SPORT: Readonly<Record<string, readonly CaseInput[]>> = {
  'no sport': [{ athlete: { trainingYears: 4 } }],
  'joint alone': JOINTS.map((region) => ({ athlete: { trainingYears: 4 }, request: { focus: [region] } })),
  'joint hurt once': JOINTS.map((region) => ({
    athlete: { trainingYears: 4, injuries: [injury(region, '2026-04-10')] },
  })),
};

interface Measured {
  readonly wanted: number;
  /** Elements that nothing answers, with why. */
  readonly missing: readonly { readonly element: string; readonly why: string }[];
  readonly warm: boolean;
  readonly rehearsal: number;
  readonly faults: readonly string[];
  /** Drills and doses in their order. */
  readonly routine: string;
  readonly ms: number;
}

function measure(input: Case): Measured {
  const before = performance.now();
  const report = buildCase(reference, input, solver);
  const ms = performance.now() - before;
  const items = report.routine?.items ?? [];
  const prepared = prepareCase(reference, input);
  const asked = elementsAsked(prepared, items);
  if (asked.length === 0) throw new Error('nothing is asked for');
  const seconds = prepared.problem.seconds;
  const share = (part: string) => {
    const places = asked.flatMap(({ element, by }) =>
      reference.elements.get(element)?.part === part ? by : [],
    );
    return [...new Set(places)].reduce((sum, place) => sum + (items[place]?.seconds ?? 0), 0) / seconds;
  };
  return {
    wanted: asked.length,
    missing: asked.flatMap(({ element, because }) =>
      because
        ? [{ element, why: because.rule === 'no-room' ? `no room: ${because.bound}` : because.rule }]
        : [],
    ),
    warm: share('warm') * seconds >= (seconds >= 900 ? 150 : seconds >= 600 ? 90 : 45),
    rehearsal: share('rehearse'),
    faults: houseFaults(reference, input, report, judgeCase(reference, input).findings),
    routine: items.map(({ drill, side, sets, amount }) => `${drill} ${side} ${sets}×${amount}`).join(),
    ms,
  };
}

const per = (part: number, of: number) => `${Math.round((100 * part) / Math.max(1, of))} %`;
const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;
const counted = (words: readonly string[]) =>
  [...new Set(words)]
    .map((word) => ({ word, times: words.filter((one) => one === word).length }))
    .sort((a, b) => b.times - a.times);

const plain = new Map<string, string>();
const misses: string[] = [];
const faults: string[] = [];
/** A line of the table: every subject of a form for each number of minutes that fits it. */
function line(form: string, subjects: readonly { readonly of: string; readonly input: CaseInput }[]): void {
  const rows = subjects.flatMap(({ of, input: { request, ...given } }) => {
    const { min = 0, max = Infinity } = reference.structures.get(request?.structure ?? '')?.minutes ?? {};
    const all = form.startsWith('method') ? METHOD_MINUTES : max < MINUTES[0] ? [SHORTEST] : MINUTES;
    return all
      .filter((minutes) => minutes >= min && minutes <= max)
      .map((minutes) => {
        const asked = { mode: 'prepare', minutes, kit: KIT, ...request } as never;
        const row = measure(caseOf({ ...given, request: asked }));
        const key = `${of} ${minutes}`;
        if (form === PLAIN) plain.set(key, row.routine);
        misses.push(...row.missing.map(({ element }) => element));
        faults.push(...row.faults.map((fault) => `${form} / ${key} min: ${fault}`));
        return { ...row, unlike: plain.has(key) ? plain.get(key) !== row.routine : null };
      });
  });
  const share = (holds: (row: (typeof rows)[number]) => boolean) =>
    per(rows.filter(holds).length, rows.length);
  const missing = rows.flatMap((row) => row.missing.map(({ why }) => why));
  const wanted = rows.reduce((sum, row) => sum + row.wanted, 0);
  const cells = [
    form,
    per(wanted - missing.length, wanted),
    share((row) => row.missing.length === 0),
    counted(missing)
      .slice(0, 3)
      .map(({ word, times }) => `${word} ${times}`)
      .join(', '),
    share((row) => row.warm),
    per(median(rows.map((row) => row.rehearsal)), 1),
    share((row) => row.faults.length === 0),
    form === PLAIN || rows.every((row) => row.unlike === null) ? '' : share((row) => row.unlike === true),
    `${Math.round(median(rows.map((row) => row.ms)))}`,
  ];
  console.log(`| ${cells.join(' | ')} |`);
}

console.log(
  '| form | wanted answered | all of it | what is missing, why | warm | rehearsed (median) | house rules kept | unlike unscreened | median ms |',
);
console.log('| --- | --- | --- | --- | --- | --- | --- | --- | --- |');
const table = [
  ...Object.entries(FORMS).map(([form, make]) => ({
    form,
    subjects: actions.map((of, place) => ({ of, input: make(of, place) })),
  })),
  ...Object.entries(WITHOUT_SPORT).map(([form, inputs]) => ({
    form,
    subjects: inputs.map((input) => ({ of: 'nothing', input })),
  })),
];
for (const { form, subjects } of table) if (form.includes(onlyForm)) line(form, subjects);
console.log('\nMost often missing:');
for (const { word, times } of counted(misses).slice(0, 40)) console.log(`  ${times} ${word}`);
console.log(`\nHouse rules broken:\n${faults.map((fault) => `  ${fault}`).join('\n')}`);

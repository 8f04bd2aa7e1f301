import { seededRandom } from '@yonder/core/random';
import type { Reference, Test } from '@yonder/core/reference';
import type { DemoPerson } from './people.ts';
import { fieldsOf } from './people.ts';

/** What a sport of the academy asks, at home and in numbers that fit its athletes. */
interface SportTemplate {
  readonly sport: string;
  readonly tasks: readonly string[];
  /** Tests beyond those of the tasks. */
  readonly also: readonly string[];
  readonly kit: readonly string[];
  readonly places: readonly { name: string; kit: string[] }[];
  readonly massKg: readonly [number, number];
}

const SPORTS: readonly SportTemplate[] = [
  {
    sport: 'lead climbing',
    tasks: ['climbing-high-step', 'climbing-gaston', 'climbing-crimp', 'climbing-side-pull-lock-off'],
    also: ['shoulder-flexion-range', 'wrist-extension-range', 'lumbar-extension-pain', 'wblt-distance'],
    kit: ['wall', 'pull-up-bar', 'long-band', 'dumbbell', 'mat'],
    places: [{ name: 'crag', kit: ['long-band'] }],
    massKg: [54, 74],
  },
  {
    sport: 'slalom kayaking',
    tasks: ['kayak-high-brace', 'kayak-bow-draw', 'kayak-edging-roll'],
    also: ['shoulder-ir-range', 'elbow-extension-strength', 'wrist-load-pain', 'wblt-distance'],
    kit: ['wall', 'long-band', 'mat', 'dowel'],
    places: [
      { name: 'boathouse', kit: ['wall', 'long-band', 'dowel'] },
      { name: 'start area', kit: [] },
    ],
    massKg: [62, 84],
  },
  {
    sport: 'fell running',
    tasks: ['fell-running-descent', 'uphill-running'],
    also: [
      'wblt-distance',
      'hip-abduction-strength',
      'side-bridge-hold',
      'step-down-quality',
      'active-knee-extension',
    ],
    kit: ['wall', 'step', 'mini-band', 'long-band'],
    places: [{ name: 'start area', kit: [] }],
    massKg: [50, 72],
  },
  {
    sport: 'ski mountaineering',
    tasks: ['uphill-running', 'classic-ski-kick'],
    also: [
      'wblt-distance',
      'hip-flexion-range',
      'thoracic-rotation-seated',
      'front-plank-hold',
      'hip-abduction-strength',
    ],
    kit: ['wall', 'step', 'mini-band', 'mat', 'dumbbell'],
    places: [{ name: 'hut', kit: ['mini-band'] }],
    massKg: [54, 78],
  },
  {
    sport: 'cross-country skiing',
    tasks: ['skate-ski-push', 'double-poling', 'classic-ski-kick'],
    also: ['wblt-distance', 'shoulder-er-strength', 'thoracic-extension-range', 'medial-elbow-load-pain'],
    kit: ['wall', 'step', 'mini-band', 'long-band', 'mat'],
    places: [{ name: 'wax cabin', kit: ['wall', 'long-band'] }],
    massKg: [58, 82],
  },
];

const NAMES = [
  'Isla Crowmarsh',
  'Bram Tollgate',
  'Corin Ashfell',
  'Della Marrick',
  'Edric Swale',
  'Fenna Harrowgill',
  'Gwyn Pikeside',
  'Hale Overbeck',
  'Iris Langrigg',
  'Jory Stanefield',
  'Kesta Wrynose',
  'Linnet Gale',
  'Moss Applethwaite',
  'Nell Hartsop',
  'Orla Greenhow',
  'Perrin Caldbeck',
  'Quill Martindale',
  'Rhea Thornby',
] as const;

/** How one of the academy's athletes stands, so that every state of every screen can be seen. */
type Story = 'usual' | 'protocol' | 'overdue' | 'improved' | 'within-error' | 'youth';

const STORIES: Readonly<Record<string, Story>> = {
  'Isla Crowmarsh': 'protocol',
  'Bram Tollgate': 'overdue',
  'Corin Ashfell': 'improved',
  'Della Marrick': 'within-error',
  'Edric Swale': 'youth',
};

const VISITS: Readonly<Record<Story, readonly number[]>> = {
  usual: [540, 430, 320, 210, 100, 25],
  protocol: [500, 380, 260, 14],
  overdue: [545, 420, 300],
  improved: [530, 350, 170, 95, 12],
  'within-error': [520, 300, 80, 15],
  youth: [360, 180, 40],
};

/** What is asked of a test: the hardest task, else the floor, else the middle of the usual band. */
function askedOf(reference: Reference, test: Test, tasks: readonly string[]): number {
  const demands = tasks.flatMap(
    (id) =>
      reference.demands
        .get(id)
        ?.demands.filter((d) => d.test === test.id)
        .map((d) => d.value) ?? [],
  );
  const lower = test.better === 'lower';
  if (demands.length > 0) return lower ? Math.min(...demands) : Math.max(...demands);
  const floor = lower ? test.flag.deficit?.above : test.flag.deficit?.below;
  return floor ?? (test.reference.low + test.reference.high) / 2;
}

type Capacity = DemoPerson['capacity'][string];

/** A capacity around what is asked, in units of the smallest real change; gains point to better. */
function capacityOf(
  reference: Reference,
  test: Test,
  tasks: readonly string[],
  random: () => number,
  story: Story,
): Capacity {
  const need = askedOf(reference, test, tasks);
  const sign = test.better === 'lower' ? -1 : 1;
  const unit = test.mdc95.value;
  const clamp = (value: number) => Math.min(test.plausible.max, Math.max(test.plausible.min, value));
  const around = (offset: number) => clamp(need + sign * offset * unit);
  const offset = 0.9 + (random() - 0.5) * 1.8;
  const weak = random() < 0.3;
  const side = random() < 0.5 ? 'left' : 'right';
  const low = weak ? offset - 1.4 - random() * 0.8 : offset - random() * 0.4;
  const gain = { usual: 0.01, improved: 0.09, 'within-error': 0.012, overdue: 0, protocol: 0, youth: 0.01 }[
    story
  ];
  const weekly = sign * gain * unit;
  if (test.sides === 'central') return { left: around(low), right: around(low), weekly };
  return side === 'left'
    ? { left: around(low), right: around(offset), weekly }
    : { left: around(offset), right: around(low), weekly };
}

function testsOf(
  reference: Reference,
  template: SportTemplate,
  tasks: readonly string[],
  young: boolean,
): Test[] {
  const ids = new Set([
    ...tasks.flatMap((id) => reference.demands.get(id)?.demands.map((d) => d.test) ?? []),
    ...template.also,
  ]);
  return [...ids]
    .flatMap((id) => {
      const test = reference.tests.get(id);
      return test?.derivedFrom
        ? test.derivedFrom.flatMap((part) => reference.tests.get(part) ?? [])
        : (test ?? []);
    })
    .filter((test) => !young || test.youthOk);
}

function personOf(reference: Reference, name: string, index: number, random: () => number): DemoPerson {
  const story = STORIES[name] ?? 'usual';
  const template = SPORTS[index % SPORTS.length] as SportTemplate;
  const young = story === 'youth';
  const tasks = young
    ? template.tasks.slice(0, 1)
    : template.tasks.slice(0, 1 + Math.ceil(random() * (template.tasks.length - 1)));
  const [light, heavy] = template.massKg;
  const age = young ? 14 : 18 + Math.floor(random() * 17);
  const tests = testsOf(reference, template, tasks, young);
  const leg = 78 + Math.round(random() * 16);
  const operated = story === 'protocol';
  const kneeTests = tests.filter((test) => test.region === 'knee').map((test) => test.id);
  return {
    fields: fieldsOf({
      name,
      birthDate: '2000-01-01', // set from the age when the day is known
      sport: template.sport,
      bodyMassKg: young ? 44 : Math.round(light + random() * (heavy - light)),
      limbLengthCm: { leg: { left: leg, right: leg }, arm: { left: leg - 14, right: leg - 14 } },
      dominantHand: random() < 0.88 ? 'right' : 'left',
      dominantLeg: random() < 0.8 ? 'right' : 'left',
      trainingYears: young ? 2 : 2 + Math.floor(random() * 10),
      tasks: tasks.map((id) => ({ id, lead: 'either' as const })),
      kit: [...template.kit],
      places: [{ name: 'at home', kit: ['wall', 'mini-band'] }, ...template.places].map((p) => ({
        ...p,
        kit: [...p.kit],
      })),
      minutes: 8 + Math.floor(random() * 8),
      minutesBuild: 20,
      minutesRestore: 10,
    }),
    age,
    injuries: operated
      ? [{ region: 'knee', side: 'left', daysAgo: 120, what: 'kneecap tendon repair', operated: true }]
      : random() < 0.45
        ? [
            {
              region: tests[Math.floor(random() * tests.length)]?.region ?? 'knee',
              side: random() < 0.5 ? 'left' : 'right',
              daysAgo: 90 + Math.floor(random() * 700),
              what: 'strain in training',
            },
          ]
        : [],
    ...(operated
      ? {
          protocol: {
            region: 'knee',
            side: 'left',
            by: 'Dr V. Ness',
            daysAgo: 30,
            tests: ['knee-extension-range', 'knee-flexion-range'],
            drillsOf: 'knee',
          },
        }
      : {}),
    regions: [...new Set(tests.map((test) => test.region))].filter((region) => region !== 'whole-body'),
    screenings: VISITS[story].map((daysAgo) => ({ daysAgo: daysAgo + Math.floor(random() * 5) })),
    capacity: Object.fromEntries(
      tests
        // After the operation the knee waits for its protocol.
        .filter((test) => !operated || !kneeTests.includes(test.id))
        .map((test) => [test.id, capacityOf(reference, test, tasks, random, story)]),
    ),
    routines:
      index % 3 === 0 || story === 'improved'
        ? [{ daysAgo: 10, runs: 3, pain: 1, mode: index % 2 === 0 ? 'prepare' : 'build' }]
        : [],
  };
}

/** The rest of the academy: 18 athletes over 18 months, the same for the same seed. */
export function demoRoster(reference: Reference, seed: number): DemoPerson[] {
  const random = seededRandom(seed);
  return NAMES.map((name, index) => personOf(reference, name, index, random));
}

import { occasionOf, sameJson } from '../domain/index.ts';
import type {
  Case,
  Circuit,
  OwnTask,
  OwnTest,
  PainPattern,
  ReferenceEdit,
  RoutineItem,
  ScreeningResult,
} from '../domain/index.ts';
import { hasCadence, tempoSeconds } from '../dose/index.ts';
import { gradeFromFaults, isPlausible, ratingFloor, resultValue } from '../measure/index.ts';
import { isOwnWords, kitWordsOf, PAUSE, practiceReference } from '../reference/index.ts';
import type { Reference, Test } from '../reference/index.ts';
import { FaultList, jsonPath } from './faultList.ts';
import type { CaseFault, Path } from './faultList.ts';
import { addOwnDrillFaults } from './ownDrills.ts';

/** Zod's issues in the form of case faults, unknown keys each at its own path. */
export function schemaFaults(
  issues: readonly {
    code?: string;
    path: readonly PropertyKey[];
    message: string;
    keys?: readonly string[];
  }[],
): CaseFault[] {
  return issues.flatMap((issue) =>
    issue.code === 'unrecognized_keys' && issue.keys
      ? issue.keys.map((key) => ({ path: jsonPath([...issue.path, key]), message: 'unknown key; remove it' }))
      : [{ path: jsonPath(issue.path), message: issue.message }],
  );
}

function testValueFaults(list: FaultList, test: Test, result: ScreeningResult, at: Path): void {
  if (test.derivedFrom) {
    list.add([...at, 'trials'], `${test.id} is computed from ${test.derivedFrom.join(', ')}; leave it out`);
    return;
  }
  const bounds = `${test.plausible.min} to ${test.plausible.max} ${test.unit}`;
  result.trials?.forEach((value, index) => {
    if (!isPlausible(test, value)) {
      list.add([...at, 'trials', index], `${value} ${test.unit} is outside ${bounds}`);
    }
  });
  result.struck?.forEach(({ trial }, index) => {
    if (trial >= (result.trials?.length ?? 0))
      list.add([...at, 'struck', index, 'trial'], `there is no trial ${trial + 1}`);
  });
  if (result.grade !== undefined) {
    const ordinal = test.unit === 'grade-0-3' || test.unit === 'points-0-5';
    if (!ordinal) list.add([...at, 'grade'], `${test.id} is measured in ${test.unit}; give trials`);
    else if (!isPlausible(test, result.grade))
      list.add([...at, 'grade'], `${result.grade} is outside ${bounds}`);
  }
  const marked: [Path, ScreeningResult['faults']][] = [
    [['faults'], result.faults],
    [['second', 'faults'], result.second?.faults],
  ];
  for (const [where, marks] of marked) {
    marks?.forEach((mark, index) => {
      if (!test.faults?.some((fault) => fault.id === mark.id))
        list.add([...at, ...where, index, 'id'], `unknown fault "${mark.id}" of ${test.id}`);
    });
  }
  const fromFaults = result.faults ? gradeFromFaults(test, result.faults, result.unable) : null;
  if (result.grade !== undefined && fromFaults !== null && fromFaults !== result.grade) {
    list.add(
      [...at, 'grade'],
      `${result.grade} does not follow from the marked faults; the rule gives ${fromFaults}`,
    );
  }
  const floor = ratingFloor(test, result.faults ?? []);
  if (result.grade !== undefined && result.grade < floor) {
    list.add([...at, 'grade'], `${result.grade} is below ${floor}, the least that the clear faults allow`);
  }
  if (resultValue(test, result) === null)
    list.add(at, `no value; give ${test.gradingRule ? 'a grade' : 'trials'}`);
}

function sideAndValueFaults(list: FaultList, reference: Reference, result: ScreeningResult, at: Path): void {
  if (!list.known(reference.tests, 'test', result.test, [...at, 'test'])) return;
  const test = reference.tests.get(result.test);
  if (!test) return;
  const central = test.sides === 'central';
  if (central !== (result.side === 'central')) {
    const right = central ? 'central: use side "central"' : 'per side: use left or right';
    list.add([...at, 'side'], `${test.id} is ${right}`);
  }
  testValueFaults(list, test, result, at);
}

/** Faults of a single result, at paths that start at the result itself. */
export function resultFaults(reference: Reference, result: ScreeningResult): CaseFault[] {
  const list = new FaultList();
  sideAndValueFaults(list, reference, result, []);
  return list.faults;
}

/** Faults of routine items, at paths that start at the list of items. */
export function itemsFaults(reference: Reference, items: readonly RoutineItem[]): CaseFault[] {
  const list = new FaultList();
  addItemsFaults(list, reference, items, ['items']);
  return list.faults;
}

function screeningFaults(list: FaultList, reference: Reference, input: Case): void {
  const seen = new Map<string, string>();
  input.screenings.forEach((screening, s) => {
    const at: Path = ['screenings', s];
    if (screening.date > input.today)
      list.add([...at, 'date'], `${screening.date} is after today, ${input.today}`);
    if (screening.date < input.athlete.birthDate) list.add([...at, 'date'], 'before the birth date');
    screening.results.forEach((result, r) => {
      const here: Path = [...at, 'results', r];
      const key = `${screening.date}/${result.test}/${result.side}`;
      const first = seen.get(key);
      if (first) list.add(here, `same test, side and day as ${first}; put all trials in one result`);
      else seen.set(key, jsonPath(here));
      sideAndValueFaults(list, reference, result, here);
    });
  });
}

function athleteFaults(list: FaultList, reference: Reference, input: Case): void {
  const { athlete, today } = input;
  if (athlete.birthDate > today)
    list.add(['athlete', 'birthDate'], `${athlete.birthDate} is after today, ${today}`);
  athlete.tasks.forEach((task, i) =>
    list.known(reference.demands, 'task', task.id, ['athlete', 'tasks', i, 'id']),
  );
  athlete.exposure.forEach(({ action }, i) =>
    list.known(reference.patterns, 'action', action, ['athlete', 'exposure', i, 'action']),
  );
  athlete.injuries.forEach((injury, i) => {
    if (injury.date > today)
      list.add(['athlete', 'injuries', i, 'date'], `${injury.date} is after today, ${today}`);
  });
  athlete.precautions.forEach((p, i) => {
    list.known(reference.precautions, 'precaution', p.id, ['athlete', 'precautions', i, 'id']);
    if (p.since && p.until && p.until < p.since) {
      list.add(['athlete', 'precautions', i, 'until'], `review date ${p.until} is before ${p.since}`);
    }
  });
  athlete.redFlags.forEach((answer, i) => {
    list.known(reference.redFlags, 'stop-and-refer sign', answer.id, ['athlete', 'redFlags', i, 'id']);
  });
  athlete.protocols.forEach((protocol, i) => {
    protocol.drills.forEach((id, d) =>
      list.known(reference.drills, 'drill', id, ['athlete', 'protocols', i, 'drills', d]),
    );
    protocol.tests.forEach((id, t) =>
      list.known(reference.tests, 'test', id, ['athlete', 'protocols', i, 'tests', t]),
    );
  });
  athlete.pains.forEach((pain, i) => {
    const at: Path = ['athlete', 'pains', i];
    if (pain.since > today) list.add([...at, 'since'], `${pain.since} is after today, ${today}`);
    if (pain.ended !== null && pain.ended < pain.since)
      list.add([...at, 'ended'], `${pain.ended} is before ${pain.since}`);
  });
  athlete.dislikes.forEach((id, i) => list.known(reference.drills, 'drill', id, ['athlete', 'dislikes', i]));
  athlete.placements.forEach((placement, i) => {
    const at: Path = ['athlete', 'placements', i];
    const ladder = reference.ladders.get(placement.ladder);
    if (!list.known(reference.ladders, 'ladder', placement.ladder, [...at, 'ladder'])) return;
    if (!list.known(reference.drills, 'drill', placement.drill, [...at, 'drill'])) return;
    if (!ladder?.drills.includes(placement.drill)) {
      list.add([...at, 'drill'], `"${placement.drill}" is not in ladder "${placement.ladder}"`);
    }
  });
}

const POSITIVE: readonly ReferenceEdit['path'][] = ['sem', 'spreadLimit', 'cvLimitPercent', 'asymmetry'];

function editFaults(list: FaultList, reference: Reference, edit: ReferenceEdit, at: Path): void {
  const test = reference.tests.get(edit.test);
  if (!list.known(reference.tests, 'test', edit.test, [...at, 'test']) || !test) return;
  if (POSITIVE.includes(edit.path) && edit.value <= 0) list.add([...at, 'value'], 'must be above 0');
  if (edit.path === 'processSdPerWeek' && edit.value < 0) list.add([...at, 'value'], 'must not be below 0');
  if (edit.path === 'asymmetry' && !test.flag.asymmetry)
    list.add([...at, 'path'], `${test.id} has no symmetry limit`);
  const bounded = edit.path === 'deficitBelow' || edit.path === 'deficitAbove' || edit.path === 'demand';
  if (bounded && !isPlausible(test, edit.value)) {
    const { min, max } = test.plausible;
    list.add([...at, 'value'], `${edit.value} is outside ${min} to ${max} ${test.unit}`);
  }
  if (edit.path !== 'demand') return;
  const asked = reference.demands.get(edit.task ?? '')?.demands.some((d) => d.test === edit.test);
  if (!asked) list.add([...at, 'task'], `no task "${edit.task ?? ''}" asks for ${edit.test}`);
}

function ownTaskFaults(list: FaultList, reference: Reference, task: OwnTask, at: Path): void {
  task.demands.forEach((demand, i) => {
    const here: Path = [...at, 'demands', i];
    const test = reference.tests.get(demand.test);
    if (!list.known(reference.tests, 'test', demand.test, [...here, 'test']) || !test) return;
    if (!isPlausible(test, demand.value)) {
      const { min, max } = test.plausible;
      list.add([...here, 'value'], `${demand.value} is outside ${min} to ${max} ${test.unit}`);
    }
  });
}

function ownTestFaults(list: FaultList, reference: Reference, test: OwnTest, at: Path): void {
  test.informs.forEach((id, i) =>
    list.known(reference.restrictions, 'restriction', id, [...at, 'informs', i]),
  );
  const { min, max } = test.plausible;
  if (min >= max) list.add([...at, 'plausible', 'max'], `must be above the least value, ${min}`);
  else if (test.cutOff !== null && (test.cutOff < min || test.cutOff > max))
    list.add([...at, 'cutOff'], `${test.cutOff} is outside ${min} to ${max} ${test.unit}`);
  if (reference.tests.has(test.id)) list.add([...at, 'id'], `"${test.id}" is a test of the reference`);
}

/** Faults of one test of the practice's own, at paths that start at the test itself. */
export function testFaults(reference: Reference, test: OwnTest): CaseFault[] {
  const list = new FaultList();
  ownTestFaults(list, reference, test, []);
  return list.faults;
}

/** Faults of one edited figure, at paths that start at the edit itself. */
export function referenceEditFaults(reference: Reference, edit: ReferenceEdit): CaseFault[] {
  const list = new FaultList();
  editFaults(list, reference, edit, []);
  return list.faults;
}

/** Faults of one task of the practice's own, at paths that start at the task itself. */
export function taskFaults(reference: Reference, task: OwnTask): CaseFault[] {
  const list = new FaultList();
  ownTaskFaults(list, reference, task, []);
  return list.faults;
}

function overrideFaults(list: FaultList, reference: Reference, input: Case): void {
  input.overrides.needs.forEach((need, i) => {
    const at: Path = ['overrides', 'needs', i];
    const test = reference.tests.get(need.test);
    if (!list.known(reference.tests, 'test', need.test, [...at, 'test']) || !test) return;
    if (!isPlausible(test, need.value)) {
      list.add(
        [...at, 'value'],
        `${need.value} is outside ${test.plausible.min} to ${test.plausible.max} ${test.unit}`,
      );
    }
    if ((test.sides === 'central') !== (need.side === 'central'))
      list.add([...at, 'side'], `wrong side for ${test.id}`);
  });
  input.overrides.reference.forEach((edit, i) =>
    editFaults(list, reference, edit, ['overrides', 'reference', i]),
  );
  input.overrides.tasks.forEach((task, i) => ownTaskFaults(list, reference, task, ['overrides', 'tasks', i]));
  input.judgements.forEach((judgement, i) => {
    const at: Path = ['judgements', i];
    list.known(reference.restrictions, 'restriction', judgement.restriction, [...at, 'restriction']);
    if (judgement.verdict === 'dismissed' && judgement.reason.trim() === '')
      list.add([...at, 'reason'], 'a finding is set aside with a reason');
  });
  addSchoolFaults(list, reference, input.schools, ['schools']);
  input.overrides.painPatterns?.forEach((pattern, i) =>
    painPatternFaults(list, reference, pattern, ['overrides', 'painPatterns', i]),
  );
}

function painPatternFaults(list: FaultList, reference: Reference, pattern: PainPattern, at: Path): void {
  pattern.precautions.forEach((id, i) =>
    list.known(reference.precautions, 'precaution', id, [...at, 'precautions', i]),
  );
}

/** Faults of a practice's own pain patterns, at paths that start at their list. */
export function painPatternsFaults(reference: Reference, patterns: readonly PainPattern[]): CaseFault[] {
  const list = new FaultList();
  patterns.forEach((pattern, i) => painPatternFaults(list, reference, pattern, [i]));
  return list.faults;
}

function addSchoolFaults(
  list: FaultList,
  reference: Reference,
  schools: Readonly<Record<string, string>>,
  at: Path,
): void {
  for (const [id, option] of Object.entries(schools)) {
    const school = reference.schools.get(id);
    if (!list.known(reference.schools, 'school', id, [...at, id])) continue;
    if (!school?.options.some((o) => o.id === option))
      list.add(
        [...at, id],
        `unknown option "${option}"; one of ${school?.options.map((o) => o.id).join(', ')}`,
      );
  }
}

/** Faults of chosen options of schools, at paths that start at their record. */
export function schoolFaults(reference: Reference, schools: Readonly<Record<string, string>>): CaseFault[] {
  const list = new FaultList();
  addSchoolFaults(list, reference, schools, []);
  return list.faults;
}

/** Kit words the drills of the reference use. */
export function kitWords(reference: Reference): Set<string> {
  return new Set(
    reference.data.drills.flatMap((drill) => [...kitWordsOf(drill), ...drill.optionalEquipment]),
  );
}

function requestFaults(list: FaultList, reference: Reference, input: Case): void {
  const { request } = input;
  const kit = kitWords(reference);
  request.kit.forEach((id, i) => {
    if (!kit.has(id))
      list.add(['request', 'kit', i], `unknown kit "${id}"; one of ${[...kit].sort().join(', ')}`);
  });
  request.pins.forEach((id, i) => list.known(reference.drills, 'drill', id, ['request', 'pins', i]));
  request.bans.forEach((id, i) => list.known(reference.drills, 'drill', id, ['request', 'bans', i]));
  const positions = new Set<string>(reference.data.drills.map((drill) => drill.position));
  request.excludePositions.forEach((id, i) => {
    if (!positions.has(id)) {
      list.add(
        ['request', 'excludePositions', i],
        `unknown position "${id}"; one of ${[...positions].sort().join(', ')}`,
      );
    }
  });
  request.prefer.forEach((id, i) => list.known(reference.drills, 'drill', id, ['request', 'prefer', i]));
  if (request.pattern !== null && !reference.patterns.has(request.pattern))
    list.add(
      ['request', 'pattern'],
      `unknown pattern "${request.pattern}"; one of ${[...reference.patterns.keys()].join(', ')}`,
    );
  addSchoolFaults(list, reference, request.schools, ['request', 'schools']);
  if (request.structure !== null)
    list.known(reference.structures, 'structure', request.structure, ['request', 'structure']);
}

function itemFaults(list: FaultList, reference: Reference, item: RoutineItem, at: Path): void {
  const drill = reference.drills.get(item.drill);
  if (!list.known(reference.drills, 'drill', item.drill, [...at, 'drill']) || !drill) return;
  if (item.amount < (isOwnWords(item.drill) ? 0 : 1)) list.add([...at, 'amount'], 'must be at least 1');
  if (isOwnWords(item.drill) && item.words === undefined)
    list.add([...at, 'words'], 'own words say something');
  if (item.caution && (!isOwnWords(item.drill) || item.amount > 0))
    list.add([...at, 'caution'], 'only own words that take no time warn');
  const ranges = [
    { dose: item, to: [...at, 'amountFrom'] },
    ...(item.perSide
      ? (['left', 'right'] as const).map((side) => ({
          dose: item.perSide?.[side],
          to: [...at, 'perSide', side, 'amountFrom'],
        }))
      : []),
  ];
  for (const { dose, to } of ranges)
    if (dose?.amountFrom !== undefined && dose.amountFrom >= dose.amount)
      list.add(to, `must be below the most of the range, ${dose.amount}`);
  if (item.cadence !== undefined && !hasCadence(drill))
    list.add([...at, 'cadence'], 'a cadence is for what is counted; this drill is not');
  if (item.measure !== drill.dose.measure) {
    list.add([...at, 'measure'], `${drill.id} is dosed in ${drill.dose.measure}`);
  }
  if (item.holdBreaths !== undefined && item.measure !== 'reps')
    list.add(
      [...at, 'holdBreaths'],
      'breaths are counted per repetition; this drill is not dosed in repetitions',
    );
  if (item.tempo !== null && item.tempo !== drill.dose.tempo && tempoSeconds(item.tempo) === null)
    list.add([...at, 'tempo'], `"${item.tempo}" is not a tempo; write seconds such as 3-1-1`);
  for (const [variable, value] of Object.entries(item.setup)) {
    const known = drill.setupVariables.find((v) => v.id === variable);
    if (!known) list.add([...at, 'setup', variable], `unknown set-up variable of ${drill.id}`);
    else if (!known.steps.includes(value)) {
      list.add([...at, 'setup', variable], `"${value}" is not one of ${known.steps.join(', ')}`);
    }
  }
}

/** Items of a circuit stand together and agree on how it goes. */
function circuitFaults(list: FaultList, items: readonly RoutineItem[], at: Path): void {
  const seen = new Map<string, { last: number; circuit: Circuit }>();
  items.forEach(({ circuit, drill, amount }, i) => {
    if (!circuit) return;
    if (drill === PAUSE || (isOwnWords(drill) && amount === 0))
      list.add([...at, i, 'circuit'], 'only what is done goes in rounds');
    const known = seen.get(circuit.id);
    if (known && known.last !== i - 1)
      list.add([...at, i, 'circuit'], `items of circuit "${circuit.id}" must follow one another`);
    if (known && !sameJson(known.circuit, circuit))
      list.add([...at, i, 'circuit'], 'differs from what the item before says of the same circuit');
    seen.set(circuit.id, { last: i, circuit: known?.circuit ?? circuit });
  });
}

function addItemsFaults(
  list: FaultList,
  reference: Reference,
  items: readonly RoutineItem[],
  at: Path,
): void {
  items.forEach((item, i) => itemFaults(list, reference, item, [...at, i]));
  circuitFaults(list, items, at);
}

function routineFaults(list: FaultList, reference: Reference, input: Case): void {
  const inForce = [
    ...(input.routine ? [{ routine: input.routine, at: ['routine'] as Path }] : []),
    ...input.others.map((routine, i) => ({ routine, at: ['others', i] as Path })),
  ];
  inForce.forEach(({ routine, at }, i) => {
    addItemsFaults(list, reference, routine.items, [...at, 'items']);
    addSchoolFaults(list, reference, routine.schools ?? {}, [...at, 'schools']);
    if (inForce.some((other, j) => j < i && occasionOf(other.routine) === occasionOf(routine)))
      list.add([...at, 'occasion'], 'another routine is in force for this occasion');
  });
  input.diary.forEach((session, d) => {
    if (session.date > input.today)
      list.add(['diary', d, 'date'], `${session.date} is after today, ${input.today}`);
    session.entries.forEach((entry, e) => {
      list.known(reference.drills, 'drill', entry.drill, ['diary', d, 'entries', e, 'drill']);
    });
  });
}

/** Everything in a schema-valid case that the reference or the calendar contradicts. Empty when the case is sound. */
export function caseFaults(bundled: Reference, input: Case): CaseFault[] {
  const list = new FaultList();
  const { tasks, tests, drills } = input.overrides;
  const reference = practiceReference(bundled, { reference: [], tasks, tests, drills });
  tests.forEach((test, i) => ownTestFaults(list, bundled, test, ['overrides', 'tests', i]));
  addOwnDrillFaults(list, bundled, drills, ['overrides', 'drills']);
  athleteFaults(list, reference, input);
  overrideFaults(list, reference, input);
  screeningFaults(list, reference, input);
  requestFaults(list, reference, input);
  routineFaults(list, reference, input);
  return list.faults;
}

/** Things worth saying that do not stop a judgement: fewer trials than the test asks for. */
export function caseWarnings(reference: Reference, input: Case): CaseFault[] {
  return input.screenings.flatMap((screening, s) =>
    screening.results.flatMap((result, r): CaseFault[] => {
      const test = reference.tests.get(result.test);
      const given = result.trials?.length ?? 0;
      if (!test || given === 0 || given >= test.trials.count) return [];
      const path = jsonPath(['screenings', s, 'results', r, 'trials']);
      return [{ path, message: `${given} of ${test.trials.count} trials` }];
    }),
  );
}

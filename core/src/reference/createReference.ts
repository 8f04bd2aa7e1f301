import { sameJson } from '../domain/index.ts';
import type { Case, DoseShare, OwnTask, ReferenceEdit } from '../domain/index.ts';
import { MDC95_PER_SEM } from './figures.ts';
import { LINES } from './lines.ts';
import { withOwnDrills } from './ownDrills.ts';
import { withOwnTests } from './ownTests.ts';
import type {
  Demand,
  DoseCell,
  Drill,
  Ladder,
  OwnDrill,
  Pattern,
  Precaution,
  ReadinessElement,
  RedFlag,
  ReferenceData,
  RegionEntry,
  Restriction,
  School,
  Structure,
  Test,
} from './types.ts';

/** The reference data with an index by id for each list. Immutable; one per practice's set of figures. */
export interface Reference {
  readonly data: ReferenceData;
  readonly regions: ReadonlyMap<string, RegionEntry>;
  readonly restrictions: ReadonlyMap<string, Restriction>;
  readonly tests: ReadonlyMap<string, Test>;
  readonly demands: ReadonlyMap<string, Demand>;
  /** With the two lines that are no drill; the list of `data` is of drills alone. */
  readonly drills: ReadonlyMap<string, Drill>;
  readonly ladders: ReadonlyMap<string, Ladder>;
  readonly patterns: ReadonlyMap<string, Pattern>;
  readonly precautions: ReadonlyMap<string, Precaution>;
  readonly redFlags: ReadonlyMap<string, RedFlag>;
  readonly structures: ReadonlyMap<string, Structure>;
  readonly schools: ReadonlyMap<string, School>;
  /** What actions, tasks and joints ask a routine to hold, by the id of each. */
  readonly elements: ReadonlyMap<string, ReadinessElement>;
  readonly doseCell: (category: string, mode: string) => DoseCell;
}

function byId<T extends { id: string }>(list: readonly T[]): ReadonlyMap<string, T> {
  return new Map(list.map((entry) => [entry.id, entry]));
}

/** Indexes reference data. Throws if a dose cell is asked for that the data does not have. */
export function createReference(data: ReferenceData): Reference {
  const cells = new Map(data.doseModes.cells.map((cell) => [`${cell.category}/${cell.mode}`, cell]));
  return {
    data,
    regions: byId(data.regions),
    restrictions: byId(data.restrictions),
    tests: byId(data.tests),
    demands: byId(data.demands),
    drills: byId([...data.drills, ...LINES]),
    ladders: byId(data.ladders),
    patterns: byId(data.patterns),
    precautions: byId(data.precautions),
    redFlags: byId(data.redFlags),
    structures: byId(data.structures.structures),
    schools: byId(data.schools),
    elements: byId([
      ...data.readiness.profiles.flatMap((one) => one.elements),
      ...data.readiness.tasks.flatMap((one) => one.adds),
      ...data.readiness.joints.flatMap((one) => one.elements),
      ...data.readiness.focusWarm,
      ...data.readiness.after,
    ]),
    doseCell: (category, mode) => {
      const cell = cells.get(`${category}/${mode}`);
      if (!cell) throw new Error(`no dose cell for ${category}/${mode}`);
      return cell;
    },
  };
}

const EDITED = 'edited by the practice';

function editTest(test: Test, edit: ReferenceEdit): Test {
  const deficit = test.flag.deficit ?? { unit: test.unit };
  switch (edit.path) {
    case 'sem':
      return {
        ...test,
        sem: { ...test.sem, value: edit.value, basis: EDITED },
        mdc95: { ...test.mdc95, value: MDC95_PER_SEM * edit.value, derivation: 'computed 2.77 × edited SEM' },
      };
    case 'processSdPerWeek':
      return {
        ...test,
        processSdPerWeek: { ...test.processSdPerWeek, value: edit.value, basis: EDITED },
      };
    case 'deficitBelow':
      return { ...test, flag: { ...test.flag, deficit: { ...deficit, below: edit.value } } };
    case 'deficitAbove':
      return { ...test, flag: { ...test.flag, deficit: { ...deficit, above: edit.value } } };
    case 'asymmetry':
      return test.flag.asymmetry
        ? { ...test, flag: { ...test.flag, asymmetry: { ...test.flag.asymmetry, threshold: edit.value } } }
        : test;
    case 'spreadLimit':
      return { ...test, spreadLimit: { value: edit.value, unit: test.unit, basis: EDITED } };
    case 'cvLimitPercent':
      return { ...test, cvLimitPercent: edit.value };
    case 'demand':
      return test; // a demand belongs to its task
  }
}

function editDemand(demand: Demand, edits: readonly ReferenceEdit[]): Demand {
  const own = edits.filter((edit) => edit.path === 'demand' && edit.task === demand.id);
  if (own.length === 0) return demand;
  return {
    ...demand,
    demands: demand.demands.map((row) => {
      const edit = own.findLast((e) => e.test === row.test);
      return edit ? { ...row, value: edit.value, basis: EDITED } : row;
    }),
  };
}

function demandOf(reference: Reference, task: OwnTask): Demand {
  return {
    id: task.id,
    name: task.name,
    sport: task.sport,
    sideNote: '',
    demands: task.demands.flatMap((row) => {
      const test = reference.tests.get(row.test);
      if (!test) return [];
      const { unit, informs } = test;
      const basis = 'set by the practice';
      return [{ ...row, basis, confidence: 'low' as const, unit, role: 'capacity' as const, informs }];
    }),
  };
}

function withShares(
  doseModes: ReferenceData['doseModes'],
  shares: readonly DoseShare[],
): ReferenceData['doseModes'] {
  if (shares.length === 0) return doseModes;
  const cells = doseModes.cells.map((cell) =>
    shares
      .filter((share) => share.category === cell.category && share.mode === cell.mode)
      .reduce((edited, { of, low, high }) => {
        const key = of === 'hold' ? 'holdShareOfMax' : 'repShareOfMax';
        return { ...edited, [key]: { low, high } };
      }, cell),
  );
  return { ...doseModes, cells };
}

/** What of a case's overrides changes the reference itself. */
export type PracticeFigures = Pick<Case['overrides'], 'reference' | 'tasks'> &
  Partial<Pick<Case['overrides'], 'tests' | 'drills' | 'doseShares' | 'painPatterns'>>;

/**
 * The reference with a practice's edited figures, dose shares, pain patterns, own tasks, tests and drills in place; the given one is left
 * as it is. Applying the same figures twice changes nothing more.
 */
export function practiceReference(bundled: Reference, figures: PracticeFigures): Reference {
  const {
    reference: edits,
    tasks: own,
    tests: ownTests = [],
    drills: ownDrills = [],
    doseShares = [],
    painPatterns = null,
  } = figures;
  const lists = edits.length + own.length + ownTests.length + ownDrills.length + doseShares.length;
  if (lists === 0 && painPatterns === null) return bundled;
  // Its own tests first: its figures, tasks and drills may name them.
  const reference =
    ownTests.length > 0
      ? createReference({ ...bundled.data, ...withOwnTests(bundled.data, ownTests) })
      : bundled;
  const tests = reference.data.tests.map((test) =>
    edits.filter((edit) => edit.test === test.id).reduce(editTest, test),
  );
  const ownIds = new Set(own.map((task) => task.id));
  const demands = reference.data.demands
    .filter((demand) => !ownIds.has(demand.id))
    .map((demand) => editDemand(demand, edits));
  const added = own.map((task) => editDemand(demandOf(reference, task), edits));
  return createReference({
    ...reference.data,
    tests,
    demands: [...demands, ...added],
    ...(ownDrills.length > 0 ? withOwnDrills(reference.data, ownDrills) : {}),
    doseModes: withShares(reference.data.doseModes, doseShares),
    painPatterns: painPatterns ?? reference.data.painPatterns,
  });
}

/** A practice's reference with own drills as they were when something was issued, whatever they are now. */
export function issuedReference(
  practice: Reference,
  bundled: Reference,
  figures: PracticeFigures,
  issued: readonly OwnDrill[],
): Reference {
  const drills = figures.drills ?? [];
  const now = new Map(drills.map((drill) => [drill.id, drill]));
  if (issued.every((drill) => sameJson(drill, now.get(drill.id)))) return practice;
  const others = drills.filter(({ id }) => !issued.some((drill) => drill.id === id));
  return practiceReference(bundled, { ...figures, drills: [...others, ...issued] });
}

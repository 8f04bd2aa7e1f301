import type { ReferenceEdit } from '../domain/index.ts';
import type {
  Demand,
  DoseCell,
  Drill,
  Ladder,
  Precaution,
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
  readonly drills: ReadonlyMap<string, Drill>;
  readonly ladders: ReadonlyMap<string, Ladder>;
  readonly precautions: ReadonlyMap<string, Precaution>;
  readonly redFlags: ReadonlyMap<string, RedFlag>;
  readonly structures: ReadonlyMap<string, Structure>;
  readonly schools: ReadonlyMap<string, School>;
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
    drills: byId(data.drills),
    ladders: byId(data.ladders),
    precautions: byId(data.precautions),
    redFlags: byId(data.redFlags),
    structures: byId(data.structures.structures),
    schools: byId(data.schools),
    doseCell: (category, mode) => {
      const cell = cells.get(`${category}/${mode}`);
      if (!cell) throw new Error(`no dose cell for ${category}/${mode}`);
      return cell;
    },
  };
}

/** 1.96·√2·SEM with the factor rounded as practitioners print it (FORMULAS 5). */
export const MDC95_PER_SEM = 2.77;

function editTest(test: Test, edit: ReferenceEdit): Test {
  const deficit = test.flag.deficit ?? { unit: test.unit };
  switch (edit.path) {
    case 'sem':
      return {
        ...test,
        sem: { ...test.sem, value: edit.value, basis: 'edited by the practice' },
        mdc95: { ...test.mdc95, value: MDC95_PER_SEM * edit.value, derivation: 'computed 2.77 × edited SEM' },
      };
    case 'processSdPerWeek':
      return { ...test, processSdPerWeek: { ...test.processSdPerWeek, value: edit.value } };
    case 'deficitBelow':
      return { ...test, flag: { ...test.flag, deficit: { ...deficit, below: edit.value } } };
    case 'deficitAbove':
      return { ...test, flag: { ...test.flag, deficit: { ...deficit, above: edit.value } } };
    case 'asymmetry':
      return test.flag.asymmetry
        ? { ...test, flag: { ...test.flag, asymmetry: { ...test.flag.asymmetry, threshold: edit.value } } }
        : test;
  }
}

/** The reference with a practice's edited figures in place; the given reference is left as it is. */
export function withEdits(reference: Reference, edits: readonly ReferenceEdit[]): Reference {
  if (edits.length === 0) return reference;
  const tests = reference.data.tests.map((test) =>
    edits.filter((edit) => edit.test === test.id).reduce(editTest, test),
  );
  return createReference({ ...reference.data, tests });
}

import { addDays } from '@yonder/core/domain';
import type { Case } from '@yonder/core/domain';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadRecords } from '../features/athletes/record.ts';
import { createTestApp } from '../testing/testApp.ts';
import type { TestApp } from '../testing/testApp.ts';
import { inPractice } from '../work/unit.ts';
import { seedDemo } from './seed.ts';

const DAY = '2027-03-01';
const MOVED = 10;
/** One has a routine that went on for months; the whole academy is read in sentences.test.ts. */
const FEW = 1;
interface Named {
  name: string;
  version: number | null;
  case: Case;
}
const apps: TestApp[] = [];
let today: Named[];
let later: Named[];

/** The demo laid out on a day, into a database that has no practice yet. */
async function seeded(day: string): Promise<Named[]> {
  const app = await createTestApp();
  apps.push(app);
  app.setClock(`${day}T12:00:00Z`);
  await app.stored('DELETE FROM practices');
  expect(await seedDemo(app.deps, FEW)).toBe(true);
  expect(await seedDemo(app.deps, FEW)).toBe(false);
  const [practice] = await app.stored<{ id: string }>('SELECT id FROM practices');
  const records = await inPractice(app.deps, practice?.id ?? '', (unit) => loadRecords(unit, unit.today));
  return records.map(({ athlete, routines, ...record }) => ({
    name: athlete.name,
    version: routines[0]?.number ?? null,
    case: record.case,
  }));
}
beforeAll(async () => {
  [today, later] = await Promise.all([seeded(DAY), seeded(addDays(DAY, MOVED))]);
}, 120_000);
afterAll(() => Promise.all(apps.map((app) => app.close())));

describe('the demo academy', () => {
  it('is always the same, moved with the day', () => {
    const visits = (people: Named[], moved: number) =>
      people.map(({ name, version, case: { screenings } }) => ({
        name,
        version,
        screenings: screenings.map(({ date, results }) => ({ date: addDays(date, -moved), results })),
      }));
    expect(visits(today, 0)).toHaveLength(FEW);
    expect(today[0]?.version).toBeGreaterThan(1);
    expect(visits(later, MOVED)).toEqual(visits(today, 0));
  });
});

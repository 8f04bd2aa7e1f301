import { addDays, ageInYears, daysBetween } from '@yonder/core/domain';
import { assessCase } from '@yonder/core/assess';
import type { Case } from '@yonder/core/domain';
import { bundledReference } from '@yonder/core/reference/bundled';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadRecords } from '../features/athletes/record.ts';
import { createTestApp } from '../testing/testApp.ts';
import type { TestApp } from '../testing/testApp.ts';
import { inPractice } from '../work/unit.ts';
import { seedDemo } from './seed.ts';

const DAY = '2027-03-01';
const MOVED = 10;
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
  expect(await seedDemo(app.deps)).toBe(true);
  expect(await seedDemo(app.deps)).toBe(false);
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
    expect(visits(later, MOVED)).toEqual(visits(today, 0));
  });

  it('shows what the product is for: short, blocked, precautions, progress, and one not screened', () => {
    const report = new Map(today.map((one) => [one.name, assessCase(bundledReference, one.case).report]));
    expect(today).toHaveLength(24);
    const named = (name: string) => today.find((one) => one.name === name)?.case;
    expect(named('Isla Crowmarsh')?.athlete.protocols[0]).toMatchObject({ region: 'knee', by: 'Dr V. Ness' });
    const due = (name: string) => report.get(name)?.rescreen.filter((r) => r.due <= DAY).length ?? 0;
    expect(due('Bram Tollgate')).toBeGreaterThan(0);
    const changes = (name: string) => report.get(name)?.changes ?? [];
    expect(changes('Corin Ashfell').some((c) => c.real === 'yes' && c.difference > 0)).toBe(true);
    expect(changes('Della Marrick').filter((c) => c.real === 'yes' && c.difference > 0)).toEqual([]);
    expect(ageInYears(named('Edric Swale')?.athlete.birthDate ?? '', DAY)).toBeLessThan(16);
    const regions = new Set([...report.values()].flatMap((r) => r.capacities.map((c) => c.region)));
    expect(regions.size).toBe(9);
    const first = today.flatMap((one) => one.case.screenings.map((s) => s.date)).sort()[0] ?? '';
    expect(daysBetween(first, DAY)).toBeGreaterThan(530);
    expect(report.get('Mira Oldtown')?.findings[0]).toMatchObject({ side: 'left', state: 'short' });
    expect(report.get('Ada Brackenridge')?.blocked).toMatchObject([{ region: 'ankle-foot', level: 'R' }]);
    expect(report.get('Wren Hollis')?.capacities).toEqual([]);
    const mira = today.find((one) => one.name === 'Mira Oldtown');
    expect(mira?.version).toBeGreaterThan(1);
    expect(mira?.case.diary.length).toBeGreaterThan(10);
    const pell = named('Pell Sunderby');
    expect(pell?.athlete.precautions.some((p) => p.until !== null && p.until < DAY)).toBe(true);
  });
});

import { Builds } from '../compute/builds.ts';
import { ageInYears, daysBetween } from '@yonder/core/domain';
import { judgeFindings } from '@yonder/core/findings';
import { bundledReference } from '@yonder/core/reference/bundled';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { openDatabase } from '../db/database.ts';
import type { Database } from '../db/database.ts';
import { createMigrator } from '../db/migrate.ts';
import { loadCases } from '../features/athletes/cases.ts';
import { seedDemo } from './seed.ts';

const DAY = '2027-03-01';
let database: Database;
beforeAll(() => {
  database = openDatabase(inject('databaseUrl'));
});
afterAll(() => database.sequelize.close());

async function seeded(day: string) {
  await database.sequelize.query('DROP SCHEMA public CASCADE; CREATE SCHEMA public');
  await createMigrator(database.sequelize).up();
  const deps = { database, reference: bundledReference, builds: new Builds(), today: () => day };
  expect(await seedDemo(deps)).toBe(true);
  const practice = await database.models.practices.findOne();
  return { deps, cases: await loadCases(database, practice?.get('id') as string, day) };
}

describe('the demo academy', () => {
  it('is the same for the same day, moves with the day, and is laid out once', async () => {
    const first = await seeded(DAY);
    expect(await seedDemo(first.deps)).toBe(false);
    const comparable = (cases: typeof first.cases) => cases.map(({ name, case: input }) => ({ name, input }));
    const again = await seeded(DAY);
    expect(comparable(again.cases)).toEqual(comparable(first.cases));
    const later = await seeded('2027-03-11');
    const visits = (cases: typeof first.cases) =>
      cases.flatMap(({ case: input }) => input.screenings.map((s) => s.date));
    expect(visits(later.cases)[0]).not.toBe(visits(first.cases)[0]);
    expect(visits(later.cases)).toHaveLength(visits(first.cases).length);
  }, 120_000);

  it('shows what the product is for: short, blocked, precautions, progress, and one not screened', async () => {
    const { cases } = await seeded(DAY);
    const report = new Map(cases.map((c) => [c.name, judgeFindings(bundledReference, c.case)]));
    expect(cases).toHaveLength(24);
    // Every state that a screen can show is there.
    const named = (name: string) => cases.find((c) => c.name === name)?.case;
    expect(named('Isla Crowmarsh')?.athlete.protocols[0]).toMatchObject({ region: 'knee', by: 'Dr V. Ness' });
    const due = (name: string) => report.get(name)?.rescreen.filter((r) => r.due <= DAY).length ?? 0;
    expect(due('Bram Tollgate')).toBeGreaterThan(0);
    const changes = (name: string) => report.get(name)?.changes ?? [];
    expect(changes('Corin Ashfell').some((c) => c.real === 'yes' && c.difference > 0)).toBe(true);
    expect(changes('Della Marrick').filter((c) => c.real === 'yes' && c.difference > 0)).toEqual([]);
    expect(ageInYears(named('Edric Swale')?.athlete.birthDate ?? '', DAY)).toBeLessThan(16);
    const regions = new Set([...report.values()].flatMap((r) => r.capacities.map((c) => c.region)));
    expect(regions.size).toBe(9);
    const first = cases.flatMap(({ case: input }) => input.screenings.map((s) => s.date)).sort()[0] ?? '';
    expect(daysBetween(first, DAY)).toBeGreaterThan(530);
    expect(report.get('Mira Oldtown')?.findings[0]).toMatchObject({ side: 'left', state: 'short' });
    expect(report.get('Ada Brackenridge')?.blocked).toMatchObject([{ region: 'ankle-foot', level: 'R' }]);
    expect(report.get('Wren Hollis')?.capacities).toEqual([]);
    const mira = cases.find((c) => c.name === 'Mira Oldtown');
    expect(mira?.routine?.number).toBeGreaterThan(1);
    expect(mira?.case.diary.length).toBeGreaterThan(10);
    const pell = cases.find((c) => c.name === 'Pell Sunderby');
    expect(pell?.case.athlete.precautions.some((p) => p.until !== null && p.until < DAY)).toBe(true);
  }, 60_000);
});

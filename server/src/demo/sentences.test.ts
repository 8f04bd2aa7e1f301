import { assessCase } from '@yonder/core/assess';
import { explainItems, prepareBuild } from '@yonder/core/builder';
import { addDays, ageInYears, daysBetween } from '@yonder/core/domain';
import type { Mode, RoutineItem } from '@yonder/core/domain';
import type { FindingsReport } from '@yonder/core/findings';
import { decideProgress } from '@yonder/core/progress';
import type { Reason } from '@yonder/core/reasons';
import type { Drill } from '@yonder/core/reference';
import { bundledReference } from '@yonder/core/reference/bundled';
import { reasonText } from '@yonder/core/words';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadRecords } from '../features/athletes/record.ts';
import type { LoadedRecord } from '../features/athletes/record.ts';
import { createTestApp, TODAY } from '../testing/testApp.ts';
import type { TestApp } from '../testing/testApp.ts';
import { inPractice } from '../work/unit.ts';
import { seedDemo } from './seed.ts';
import { eachOf } from '@yonder/core/testing/eachOf';

interface Stored {
  readonly athlete: string;
  readonly date: string;
  readonly test: string;
  readonly side: string;
  readonly value: { trials?: number[]; grade?: number; faults?: unknown[]; pain?: { nrs: number } };
}

let app: TestApp;
let records: LoadedRecord[];
let results: Stored[];
beforeAll(async () => {
  app = await createTestApp();
  await app.stored('DELETE FROM practices');
  await seedDemo(app.deps);
  const [practice] = await app.stored<{ id: string }>('SELECT id FROM practices');
  records = await inPractice(app.deps, practice?.id ?? '', (unit) => loadRecords(unit, TODAY));
  results = await app.stored<Stored>(
    `SELECT s.athlete_id AS athlete, s.date::text AS date, r.test, r.side, r.value FROM results r
     JOIN screenings s ON s.id = r.screening_id ORDER BY s.date`,
  );
}, 120_000);
afterAll(() => app.close());

/** What is stored of one athlete, read without the product's own judging. */
class Reader {
  private readonly athlete: string;
  private readonly record: LoadedRecord;

  constructor(record: LoadedRecord) {
    this.athlete = record.athlete.id;
    this.record = record;
  }

  visits(test: string, side: string): Stored[] {
    return results.filter((r) => r.athlete === this.athlete && r.test === test && r.side === side);
  }

  /** Tests that have to be measured for one that is worked out from others; itself otherwise. */
  parts(test: string): string[] {
    return bundledReference.tests.get(test)?.derivedFrom ?? [test];
  }

  measured(test: string, side: string): boolean {
    return this.parts(test).every((part) => this.visits(part, side).length > 0);
  }

  /** The value of a visit by the test's own rule, worked out by hand. */
  valueOf(row: Stored): number | null {
    const rule = bundledReference.tests.get(row.test);
    const { trials = [], grade } = row.value;
    if (grade !== undefined) return grade;
    if (trials.length === 0 || !rule) return null;
    if (rule.trials.aggregate === 'mean') return trials.reduce((a, b) => a + b, 0) / trials.length;
    const high = Math.max(...trials);
    const low = Math.min(...trials);
    return (rule.better === 'lower') === (rule.trials.aggregate === 'best') ? low : high;
  }

  injured(region: string): boolean {
    return this.record.case.athlete.injuries.some((injury) => injury.region === region);
  }

  /** Values of a test within 120 days, on these sides or central. */
  fresh(test: string, sides: readonly string[]): number[] {
    return results
      .filter((r) => r.athlete === this.athlete && r.test === test && r.date >= addDays(TODAY, -120))
      .filter((r) => r.side === 'central' || sides.includes(r.side))
      .flatMap((r) => this.valueOf(r) ?? []);
  }

  /** Was what sets this drill's dose tested on every side within 120 days, without pain? */
  maximumFor(drill: Drill, sides: readonly string[]): boolean {
    const test = drill.doseTest;
    if (!test) return false;
    const of = bundledReference.tests.get(test)?.sides === 'central' ? ['central'] : sides;
    return of.every(
      (side) => this.fresh(test, [side]).length > 0 && !this.visits(test, side).at(-1)?.value.pain?.nrs,
    );
  }

  /** Is there anything a finding can rest on: a test, or a practitioner's eye? */
  found(restriction: string, side: string): boolean {
    const tests = bundledReference.restrictions.get(restriction)?.tests ?? [];
    return (
      tests.some((test) => this.measured(test, side) || this.measured(test, 'central')) ||
      this.record.case.judgements.some((j) => j.restriction === restriction && j.side === side) ||
      this.record.case.athlete.pains.length > 0
    );
  }

  age(): number {
    const { birthDate } = this.record.case.athlete;
    return (
      Number(TODAY.slice(0, 4)) -
      Number(birthDate.slice(0, 4)) -
      (TODAY.slice(5) < birthDate.slice(5) ? 1 : 0)
    );
  }

  inForce(): string[] {
    return this.record.routines.flatMap(({ items }) => items.map((item) => item.drill));
  }

  entries(drill: string) {
    return this.record.case.diary.flatMap((day) =>
      day.entries
        .filter((e) => e.drill === drill || e.swappedFor === drill)
        .map((e) => ({ date: day.date, ...e })),
    );
  }
}

/** What a sentence about a drill in a routine claims, held against the record and the shipped reference. */
function itemFaults(reason: Reason, reader: Reader, drill: Drill, item: RoutineItem, mode: Mode): string[] {
  const faults: string[] = [];
  const must = (holds: boolean, words: string) => {
    if (!holds) faults.push(words);
  };
  const { min, max, default: usual } = drill.dose.amount;
  const sides = item.side === 'left' || item.side === 'right' ? [item.side] : ['left', 'right'];
  switch (reason.rule) {
    case 'serves': {
      const own = drill.serves.find((s) => s.restriction === reason.restriction);
      must(own?.match === reason.match, 'a match that the library does not give');
      const restriction = bundledReference.restrictions.get(reason.restriction);
      if (reason.from === 'injury') must(reader.injured(restriction?.region ?? ''), 'an injury nobody had');
      if (reason.from === 'finding')
        must(reader.found(reason.restriction, reason.side), 'a finding on nothing that was measured or seen');
      must(reason.side === 'central' || sides.includes(reason.side), 'a side that is not done');
      break;
    }
    case 'dose-from-maximum': {
      const of = reader.fresh(reason.test, sides);
      must(of.length > 0, 'a maximum that was not tested within 120 days');
      const error = 2 * (bundledReference.tests.get(reason.test)?.sem.value ?? 0);
      must(
        of.some((value) => Math.abs(value - reason.maximum) <= error),
        `a maximum of ${reason.maximum}, tested ${of.join()}`,
      );
      const cell = bundledReference.doseCell(drill.category, mode);
      const share = drill.dose.measure === 'reps' ? cell.repShareOfMax : cell.holdShareOfMax;
      must(
        share !== null && reason.share >= share.low && reason.share <= share.high,
        'a share outside its range',
      );
      must(reason.wanted <= reason.maximum * reason.share + 1e-9, 'more than the share');
      break;
    }
    case 'dose-lower-half':
    case 'dose-growing':
      must(reason.min === min && reason.max === max, 'a range that is not the drill’s');
      must(reason.rule === 'dose-growing' || !reader.maximumFor(drill, sides), 'there is a fresh maximum');
      must(item.amount <= Math.max(min, (min + max) / 2), 'more than the lower half');
      if (reason.rule === 'dose-growing') must(reader.age() < 18, 'grown up');
      break;
    case 'dose-default':
      must(reason.amount === usual && item.amount === usual, 'not the usual amount');
      must(!reader.maximumFor(drill, sides), 'there is a fresh maximum');
      break;
    case 'dose-one-bout':
      must(drill.category === 'raise' && item.sets === 1, 'not one bout of warming');
      must(reason.min === min && reason.max === max, 'a range that is not the drill’s');
      must(
        reason.amount === item.amount && item.amount >= min && item.amount <= max,
        'not the bout as it stands',
      );
      break;
    case 'dose-as-it-stands':
      must(reason.amount === item.amount && reason.byRule !== item.amount, 'not the amount as it stands');
      break;
    case 'level-first-level':
      must(drill.level === 1, 'not the first level');
      break;
    case 'level-start-rule':
      must(drill.demandIndex <= 5 && drill.loadClass !== 'impact', 'more than the start rule opens');
      break;
    case 'level-criteria':
      for (const { test, drill: before } of drill.entryCriteria.filter((c) => !c.either)) {
        if (test)
          must(
            ['central', ...sides].some((side) => reader.measured(test, side)),
            'a criterion never tested',
          );
        if (before) must(reader.entries(before).length > 0, 'a level before that was never done');
      }
      break;
    case 'level-routine':
      must(
        reader
          .inForce()
          .some((id) => id === drill.id || bundledReference.drills.get(id)?.ladder === drill.ladder),
        'nothing of its ladder is in force',
      );
      break;
    case 'short-side-only':
      must(item.side === reason.side, 'both sides are done');
      break;
    default:
      break;
  }
  return faults;
}

/** What a sentence claims, held against what is stored; a list of what does not hold. */
function faultsOf(reason: Reason, reader: Reader, drill: string | null): string[] {
  const faults: string[] = [];
  const must = (holds: boolean, words: string) => {
    if (!holds) faults.push(words);
  };
  switch (reason.rule) {
    case 'short-of-need':
    case 'short-of-other-side': {
      const test = bundledReference.tests.get(reason.test);
      must(reader.measured(reason.test, reason.side), 'a side that was never measured');
      const sign = test?.better === 'lower' ? -1 : 1;
      must(
        Math.abs(sign * (reason.estimate - reason.need) - reason.reserve) < 1e-9,
        'reserve is not what is left',
      );
      if (reason.rule === 'short-of-other-side') {
        const other = reason.side === 'left' ? 'right' : 'left';
        must(reader.measured(reason.test, other), 'an other side that was never measured');
      }
      break;
    }
    case 'screening-change': {
      const [from, to] = reader.visits(reason.test, reason.side).slice(-2);
      if (bundledReference.tests.get(reason.test)?.derivedFrom) break;
      if (!from || !to) {
        faults.push('a change without two results');
        break;
      }
      const sign = bundledReference.tests.get(reason.test)?.better === 'lower' ? -1 : 1;
      // A grade that follows from marked faults is the rule's own business; the marks alone are stored.
      if (to.value.faults && to.value.grade === undefined) break;
      const difference = sign * ((reader.valueOf(to) ?? NaN) - (reader.valueOf(from) ?? NaN));
      must(
        Math.abs(difference - reason.difference) < 1e-9,
        `difference ${difference}, not ${reason.difference}`,
      );
      const mdc = bundledReference.tests.get(reason.test)?.mdc95.value ?? NaN;
      must(Math.abs(difference) + 1e-9 >= mdc === (reason.real === 'yes'), 'called real against the error');
      break;
    }
    case 'single-visit':
      must(
        reader
          .parts(reason.test)
          .some((part) => ['left', 'right', 'central'].some((side) => reader.visits(part, side).length >= 1)),
        'no visit at all',
      );
      break;
    case 'injury-history':
    case 'region-injured':
      must(reader.injured(reason.region), 'an injury that is not on record');
      break;
    case 'clean-sessions':
      must(reason.done <= reader.entries(drill ?? '').length, 'more clean sessions than sessions');
      break;
    case 'pain-amber':
    case 'pain-above-limit':
      must(
        reader.entries(drill ?? '').some((entry) => entry.pain === reason.pain),
        'a pain that nobody told',
      );
      break;
    case 'part-done':
      must(
        reader.entries(drill ?? '').some((entry) => entry.date === reason.date && entry.done !== 'all'),
        'nothing was left out that day',
      );
      break;
    case 'effort-too-high':
      must(
        reader.entries(drill ?? '').some((entry) => entry.effort === reason.effort),
        'an effort that nobody told',
      );
      break;
    case 'guard-test':
      must(
        reason.probability === null ||
          ['left', 'right', 'central'].some((side) => reader.measured(reason.test, side)),
        'a guard that was never tested',
      );
      break;
    default:
      break;
  }
  return faults;
}

describe('every sentence about the academy’s athletes', () => {
  it('holds against what is stored, read again by other means', () => {
    const wrong: string[] = [];
    let sentences = 0;
    for (const record of eachOf(records)) {
      const reader = new Reader(record);
      const assessment = assessCase(bundledReference, record.case);
      const say = (reason: Reason, drill: string | null = null) => {
        sentences += 1;
        const text = reasonText(bundledReference, reason);
        expect(text, reason.rule).not.toMatch(/undefined|NaN|\[object/);
        for (const fault of faultsOf(reason, reader, drill))
          wrong.push(`${record.athlete.name}: ${text} (${fault})`);
      };
      for (const finding of assessment.report.findings) for (const reason of finding.reasons) say(reason);
      for (const decision of decideProgress(assessment).decisions)
        for (const reason of decision.reasons) say(reason, decision.drill);
      const items = record.routines[0]?.items ?? [];
      const explained = explainItems(prepareBuild(assessment, record.case.request), items);
      explained.forEach((one, i) => {
        for (const reason of one.reasons) {
          say(reason, one.drill);
          if (reason.rule !== 'short-side-only' || reason.other !== 'enough') continue;
          const other = reason.side === 'left' ? 'right' : 'left';
          const served = one.serves.flatMap(
            ({ restriction }) => bundledReference.restrictions.get(restriction)?.tests ?? [],
          );
          if (!served.some((test) => reader.measured(test, other)))
            wrong.push(
              `${record.athlete.name}: ${items[i]?.drill} says the other side is enough; it was never measured`,
            );
        }
      });
    }
    expect(sentences).toBeGreaterThan(400);
    expect(wrong).toEqual([]);
  });

  it('about drills holds for what is in force and for every drill that would be offered', () => {
    const wrong: string[] = [];
    let sentences = 0;
    const rules = new Set<string>();
    for (const record of records) {
      const reader = new Reader(record);
      const assessment = assessCase(bundledReference, record.case);
      const sets = (['prepare', 'build'] as const).map((mode) => {
        const prepared = prepareBuild(assessment, { ...record.case.request, mode });
        const offered = new Map(
          prepared.options.options.map(({ drill, item }) => [`${drill}/${item.side}`, item]),
        );
        return { mode, prepared, items: [...offered.values()] };
      });
      const [routine] = record.routines;
      if (routine) {
        const { mode, items } = routine;
        const prepared = prepareBuild(assessment, { ...record.case.request, mode });
        sets.push({ mode: mode as 'build', prepared, items: [...items] });
      }
      for (const { mode, prepared, items } of sets) {
        explainItems(prepared, items).forEach(({ reasons }, i) => {
          const item = items[i];
          const drill = assessment.reference.drills.get(item?.drill ?? '');
          if (!item || !drill) throw new Error('a drill that is not in the library');
          for (const reason of reasons) {
            sentences += 1;
            rules.add(reason.rule);
            for (const fault of itemFaults(reason, reader, drill, item, mode))
              wrong.push(
                `${record.athlete.name}, ${mode}, ${item.drill}: ${reasonText(bundledReference, reason)} (${fault})`,
              );
          }
        });
      }
    }
    expect(sentences).toBeGreaterThan(5000);
    expect([...rules]).toEqual(
      expect.arrayContaining([
        'serves',
        'dose-from-maximum',
        'dose-lower-half',
        'level-criteria',
        'short-side-only',
      ]),
    );
    expect([...new Set(wrong)]).toEqual([]);
  });

  it('no side is called anything that was never measured, and no day of a rescreen lies before its result', () => {
    const all = records.map((record) => {
      const { report } = assessCase(bundledReference, record.case);
      return { name: record.athlete.name, reader: new Reader(record), report };
    });
    const rows = <Row>(of: (report: FindingsReport) => readonly Row[]) =>
      all.flatMap(({ name, reader, report }) => of(report).map((row) => ({ name, reader, row })));
    for (const { name, reader, row } of eachOf(rows((report) => report.capacities)))
      expect(reader.measured(row.test, row.side), `${name} ${row.test}`).toBe(true);
    for (const { reader, row } of eachOf(rows((report) => report.asymmetries)))
      expect(reader.measured(row.test, 'left') && reader.measured(row.test, 'right')).toBe(true);
    for (const { name, reader, row } of eachOf(rows((report) => report.rescreen))) {
      const last = reader.visits(row.test, row.side).at(-1)?.date ?? '';
      expect(row.due > last && row.due <= addDays(last, 120), `${name} ${row.test}`).toBe(true);
    }
  });
});

describe('the demo academy', () => {
  it('shows what the product is for: short, blocked, precautions, progress, and one not screened', () => {
    const today = records.map(({ athlete, routines, ...record }) => ({
      name: athlete.name,
      version: routines[0]?.number ?? null,
      case: record.case,
    }));
    const report = new Map(today.map((one) => [one.name, assessCase(bundledReference, one.case).report]));
    expect(today).toHaveLength(24);
    const named = (name: string) => today.find((one) => one.name === name)?.case;
    expect(named('Isla Crowmarsh')?.athlete.protocols[0]).toMatchObject({ region: 'knee', by: 'Dr V. Ness' });
    const due = (name: string) => report.get(name)?.rescreen.filter((r) => r.due <= TODAY).length ?? 0;
    expect(due('Bram Tollgate')).toBeGreaterThan(0);
    const changes = (name: string) => report.get(name)?.changes ?? [];
    expect(changes('Corin Ashfell').some((c) => c.real === 'yes' && c.difference > 0)).toBe(true);
    expect(changes('Della Marrick').filter((c) => c.real === 'yes' && c.difference > 0)).toEqual([]);
    expect(ageInYears(named('Edric Swale')?.athlete.birthDate ?? '', TODAY)).toBeLessThan(16);
    const regions = new Set([...report.values()].flatMap((r) => r.capacities.map((c) => c.region)));
    expect(regions.size).toBe(9);
    const first = today.flatMap((one) => one.case.screenings.map((s) => s.date)).sort()[0] ?? '';
    expect(daysBetween(first, TODAY)).toBeGreaterThan(530);
    expect(report.get('Mira Oldtown')?.findings[0]).toMatchObject({ side: 'left', state: 'short' });
    expect(report.get('Ada Brackenridge')?.blocked).toMatchObject([{ region: 'ankle-foot', level: 'R' }]);
    expect(report.get('Wren Hollis')?.capacities).toEqual([]);
    const mira = today.find((one) => one.name === 'Mira Oldtown');
    expect(mira?.version).toBeGreaterThan(1);
    expect(mira?.case.diary.length).toBeGreaterThan(10);
    const pell = named('Pell Sunderby');
    expect(pell?.athlete.precautions.some((p) => p.until !== null && p.until < TODAY)).toBe(true);
  });
});

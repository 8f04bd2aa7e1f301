import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { routineSafetyFaults } from '../safety/index.ts';
import { caseOf, item } from '../testing/cases.ts';
import type { CaseInput } from '../testing/cases.ts';
import { fitLines, prepareBuild } from './index.ts';

const WRITTEN = [
  item('cat-camel', { amount: 9 }),
  item('own-words', { words: 'with the group', measure: 'seconds', sets: 1, amount: 60 }),
  item('light-band-pull-apart', { amount: 15 }),
  item('pogo-hop', { measure: 'contacts', amount: 20 }),
  item('glute-bridge', { amount: 12 }),
];
const fit = (athlete: object, request: object = { kit: ['long-band'] }, written = WRITTEN) => {
  const input = caseOf({
    athlete: {
      birthDate: '1999-01-01',
      trainingYears: 8,
      ...athlete,
    },
    request: { mode: 'prepare', minutes: 20, ...request },
  } as unknown as CaseInput);
  const prepared = prepareBuild(assessCase(bundledReference, input), input.request);
  return { prepared, ...fitLines(prepared, written) };
};
const drills = (items: readonly { drill: string }[]) => items.map(({ drill }) => drill);

describe('a protocol fitted to an athlete', () => {
  it('is the author’s, line by line and dose by dose, where nothing stands against it', () => {
    const { items, changes } = fit({}, undefined, [WRITTEN[0], WRITTEN[1], WRITTEN[2], WRITTEN[4]] as never);
    expect(items).toEqual([WRITTEN[0], WRITTEN[1], WRITTEN[2], WRITTEN[4]]);
    expect(changes.map(({ what }) => what)).toEqual(['kept', 'kept', 'kept']);
  });
  it('what needs kit that is not there is swapped or left out, in its place, with the kit as the reason; nothing is added', () => {
    const { items, changes } = fit({}, { kit: [] });
    const change = changes.find(({ drill }) => drill === 'light-band-pull-apart');
    expect(change).toMatchObject({ why: { rule: 'not-offered', because: 'kit', about: 'long-band' } });
    expect(['swapped', 'level', 'left-out']).toContain(change?.what);
    expect(items.length).toBeLessThanOrEqual(WRITTEN.length);
    expect(drills(items).slice(0, 2)).toEqual(['cat-camel', 'own-words']);
    expect(changes.some(({ what }) => what === 'added')).toBe(false);
  });
  it('what safety keeps out is never in, whatever stands for it', () => {
    const { items, changes, prepared } = fit({
      precautions: [{ id: 'no-impact', reason: 'shin', setBy: 'R. Halloran' }],
    });
    expect(drills(items)).not.toContain('pogo-hop');
    expect(changes.find(({ drill }) => drill === 'pogo-hop')?.why).toMatchObject({
      because: 'precaution-exclude',
      about: 'no-impact',
    });
    const { athlete, today } = prepared.standing;
    const faults = routineSafetyFaults(bundledReference, items, athlete, today);
    expect(faults.filter(({ index, rule }) => index !== null && rule !== 'not-asked')).toEqual([]);
  });
  it('a level that is not open gives way to an easier one that is', () => {
    const { items, changes } = fit({ trainingYears: 0 }, { kit: [] }, [
      item('nordic-hamstring-lower', { amount: 4 }),
    ]);
    const [change] = changes;
    expect(change?.why).toMatchObject({ because: 'level' });
    const own = bundledReference.drills.get('nordic-hamstring-lower');
    const other = bundledReference.drills.get(items[0]?.drill ?? '');
    expect(other?.demandIndex).toBeLessThan(own?.demandIndex ?? 0);
    expect(change?.instead).toBe(other?.id);
  });
  it('what is closed on one side is done on the other, and says so', () => {
    const operated = { region: 'shoulder', side: 'left', date: '2027-01-15', operated: true };
    const perSide = { left: { sets: 1, amount: 15 }, right: { sets: 3, amount: 30 } };
    const { items, changes } = fit({ injuries: [operated] }, { kit: [] }, [
      item('side-plank', { measure: 'hold-seconds', amount: 15, sets: 1, perSide }),
    ]);
    expect(changes).toMatchObject([
      { what: 'one-side', why: { rule: 'not-offered', because: 'protocol', about: 'left' } },
    ]);
    expect(items).toMatchObject([{ drill: 'side-plank', side: 'right', sets: 3, amount: 30 }]);
    expect(items[0]?.perSide).toBeUndefined();
  });
});

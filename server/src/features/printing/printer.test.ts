import { mkdtempSync, readdirSync, rmdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bundledReference } from '@yonder/core/reference/bundled';
import { item } from '@yonder/core/testing/cases';
import { eachOf } from '@yonder/core/testing/eachOf';
import { afterAll, expect, it, vi } from 'vitest';
import { printedDrills } from './input.ts';
import type { HandoutInput } from './input.ts';
import { Printer } from './printer.ts';

const printer = new Printer();
afterAll(() => printer.close());

const drills = ['knee-to-wall-rock', 'cat-camel', 'side-plank', 'dead-bug', 'bird-dog', 'pogo-hop'];
const items = drills.map((drill, i) => ({ ...item(drill), id: String(i) }));
const input: HandoutInput = {
  athlete: 'Ada Fellgate',
  practice: 'Northfell Mountain Sports Academy',
  occasion: 'before-training',
  days: [],
  timesPerDay: 1,
  number: 1,
  issuedOn: '2027-03-01',
  issuedBy: 'R. Halloran',
  mode: 'prepare',
  totalSeconds: 600,
  sections: [],
  items,
  drills: printedDrills(bundledReference, items),
  stopAbove: 5,
  precautions: [],
  handling: new Map(),
  serves: new Map(),
  overrides: [],
};

it('prints while this thread does as much as it likes: thousands of turns, where a sheet made here would allow a few', async () => {
  let turns = 0;
  let printing = true;
  const turn = () => {
    turns += 1;
    if (printing) setImmediate(turn);
  };
  turn();
  const made = await Promise.all([
    printer.handout(input),
    printer.booklet([input, input]),
    printer.card(input),
  ]);
  printing = false;
  for (const pdf of eachOf(made)) expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  expect(turns).toBeGreaterThan(1000);
});

it('a drill is printed with the picture of the drill it was made from, by way of others', () => {
  const [rock] = items;
  const shipped = bundledReference.drills.get('knee-to-wall-rock');
  if (!rock || !shipped) throw new Error('no such drill');
  const first = { ...shipped, id: 'own-a', from: shipped.id };
  const second = { ...shipped, id: 'own-b', from: 'own-a' };
  const all = new Map([...bundledReference.drills, ['own-a', first], ['own-b', second]]);
  const printed = printedDrills({ drills: all }, [{ ...rock, drill: 'own-b' }]);
  expect([...printed.keys()]).toEqual([shipped.id, 'own-b']);
  expect(printed.get('own-b')?.from).toBe(shipped.id);
});

it('one that is closed leaves no font behind', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'yonder-printer-'));
  vi.stubEnv('TMPDIR', folder);
  const other = new Printer();
  vi.unstubAllEnvs();
  await other.card(input);
  expect(readdirSync(folder)).toHaveLength(1);
  await other.close();
  expect(readdirSync(folder)).toEqual([]);
  rmdirSync(folder);
});

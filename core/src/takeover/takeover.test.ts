import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import { prepareBuild } from '../builder/index.ts';
import { itemsFaults } from '../formats/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { routineSafetyFaults } from '../safety/index.ts';
import { caseOf } from '../testing/cases.ts';
import { PAPER_LISTS } from '../testing/paperLists.ts';
import { amountText, lineName } from '../words/index.ts';
import { chosenItem, firstChoice, readLine, routineOfLines, takeOver } from './index.ts';
import { forAll } from '../testing/forAll.ts';

const grown = caseOf({ athlete: { birthDate: '1999-01-01', trainingYears: 6 } } as never);
const prepared = prepareBuild(assessCase(bundledReference, grown), grown.request);
const resting = caseOf({
  athlete: {
    birthDate: '1999-01-01',
    precautions: [{ id: 'no-impact', reason: 'shin', setBy: 'R. Halloran' }],
  },
} as never);
const guarded = prepareBuild(assessCase(bundledReference, resting), resting.request);

const written = (raw: string) => {
  const { raw: _raw, dose, ...rest } = readLine(raw);
  return JSON.parse(
    JSON.stringify({ ...dose, ...rest }, (_k, v: unknown) =>
      v === null || v === false || v === '' || (Array.isArray(v) && v.length === 0) ? undefined : v,
    ),
  );
};
const understood = (line: string) => {
  const [taken] = takeOver(prepared, line);
  const item = taken ? chosenItem(taken, firstChoice(taken)) : null;
  return item ? `${taken?.kind}: ${lineName(bundledReference, item)}, ${amountText(item)}, ${item.side}` : '';
};

describe('a written line', () => {
  it.each<[string, object]>([
    [
      'calf raise 2x15 bent knee each side',
      { words: 'calf raise, bent knee', sets: 2, amount: 15, side: 'both' },
    ],
    [
      'side plank 3 x 20-30s L/R rest 20s',
      { words: 'side plank', sets: 3, amount: 30, amountFrom: 20, unit: 's', side: 'both', restSeconds: 20 },
    ],
    ['1. dead bug 2 sets of 8, 3-1-1', { words: 'dead bug', sets: 2, amount: 8, tempo: '3-1-1' }],
    ['push ups as many as clean up to 15', { words: 'push ups', amount: 15, asMany: true }],
    ['- wrist circles 10 both ways', { words: 'wrist circles', amount: 10, bothWays: true }],
    ['bridge x 12, hold 5s', { words: 'bridge', amount: 12, holdSeconds: 5 }],
    ['rock L only 1:30', { words: 'rock', amount: 90, unit: 's', side: 'left' }],
    ['rest 1 min, water', { words: 'water', pause: 60 }],
    ['Warm up (5 min):', { words: 'Warm up', head: { minutes: 5 } }],
    ['3 rounds, 60 s between rounds:', { head: { circuit: { rounds: 3, restSeconds: 60 } } }],
    ['30/15 x 4', { head: { circuit: { rounds: 4, pace: { by: 'clock', work: 30, rest: 15 } } } }],
    [
      'every minute for 6 min:',
      { head: { circuit: { rounds: 6, pace: { by: 'every', seconds: 60 } }, minutes: 6 } },
    ],
    ['3 rounds, +2 each round:', { head: { circuit: { rounds: 3, step: 2 } } }],
    ['3 rounds, −1 per round:', { head: { circuit: { rounds: 3, step: -1 } } }],
    ['coach: traverse 2:30', { words: 'coach: traverse', amount: 150, unit: 's', ledBy: 'coach' }],
    [
      'pull ups 3 x 6 tempo 3-1-1 rest 90s',
      { words: 'pull ups', sets: 3, amount: 6, tempo: '3-1-1', restSeconds: 90 },
    ],
    ['neck nods 5 breaths hold', { words: 'neck nods', holdBreaths: 5 }],
  ])('%s', (raw, says) => {
    expect(written(raw)).toEqual(says);
  });
  it('a number of reps beside the rounds is no ladder', () => {
    for (const raw of ['3 rounds, 12 reps each round:', '4 rounds of 10 each round:'])
      expect(readLine(raw).head?.circuit?.step, raw).toBeUndefined();
  });
  it('each side by itself', () => {
    const { perSide, words } = readLine('heel raises off step, slow, L 3x8-10 / R 2x8-10');
    expect(words).toBe('heel raises off step, slow');
    expect(perSide).toMatchObject({ left: { sets: 3, amountFrom: 8, amount: 10 }, right: { sets: 2 } });
  });
});

describe('what a line means', () => {
  it.each([
    ['ankle rocks kneeling 2x10 L only', 'sure: Half-kneeling ankle rock, 2 × 10, left'],
    ['1 leg stand eyes shut 3 x 30s each', 'sure: Single-leg balance, eyes closed, 3 × 30 s, both'],
    ['gluet bridge 2x12', 'sure: Bridge, 2 × 12, both'],
    ['prone Y raise 2 x 10', 'sure: Prone Y raise, 2 × 10, both'],
    ['wrist extension hold with weight 5x10s', 'sure: Weighted wrist-back hold, 5 × 10 s, both'],
    ['finger hook 3 x 10 s', 'likely: Finger-hook hold, 3 × 1, hold 10 s, both'],
    ['towel scrunch 2 min', 'likely: Towel scrunch, 1 × 15, both'],
    ['easy jog 2 min', 'sure: Easy jog with arm patterns, 1 × 120 s, both'],
    ['star jumps 2 x 20', 'sure: Jumping jack, 2 × 20 s, both'],
    ['arm circles small fast 20', 'sure: Small fast arm circles, 1 × 20 s, both'],
    ['thread the needle 6/side', 'sure: Quadruped thread and reach, 1 × 6, both'],
    ['open books 6 each', 'sure: Side-lying open book, 1 × 6, both'],
    ['hamstring curl slider 3 x 6-8', 'sure: Slider leg curl, 3 × 6–8, both'],
    ['hip thrust on bench 3x10', 'sure: Hip thrust on a bench, 3 × 10, both'],
    ['lateral step downs 2 x 10 each', 'sure: Lateral step-down, 2 × 10, both'],
    ['box drop landing 3x5', 'sure: Low box drop landing, 3 × 5 contacts, both'],
    ['finger extension band 2x12', 'sure: Band finger spread, 2 × 12, both'],
    ['wrist circles 10 both ways', 'sure: Controlled wrist circles, 1 × 10, both ways round, both'],
    ['push ups as many as clean up to 15', 'sure: Push-up, 1 × up to 15, both'],
    ['dead hang 3 x 10 s rest 60s', 'sure: Dead hang, 3 × 10 s, both'],
    ['clamshels band 2x15 each', 'sure: Side-lying clam, 2 × 15, both'],
    ['figure 4 stretch 30s each', 'sure: Supine figure-four stretch, 1 × 30 s, both'],
    ['A skips 2x20 m', 'sure: High-knee skip, 2 × 20 m, both'],
    ['bridge', 'sure: Bridge, 1 × 9, both'],
    ['legs up the wall 5 min', 'text: legs up the wall, 1 × 300 s, both'],
    ['ice if sore', 'text: ice if sore, 1 × 0 s, both'],
    ['drink', 'rest: Rest: drink, 1 × 60 s, both'],
    ['rice bucket 3 min', 'text: rice bucket, 1 × 180 s, both'],
    ['Coach: traverse on big holds 2:30', 'text: Coach: traverse on big holds 2:30, 1 × 150 s, both'],
  ])('%s', (line, means) => {
    expect(understood(line)).toBe(means);
  });
  it('several as near are offered, and of "or" both halves', () => {
    const [taken] = takeOver(prepared, 'walk or jog 3 min before');
    expect(taken?.kind).toBe('choose');
    const names = taken?.readings.map(({ item }) => bundledReference.drills.get(item.drill)?.name);
    expect(names).toEqual(
      expect.arrayContaining(['Brisk walk, faster each minute', 'Easy jog with arm patterns']),
    );
  });
  it('what is said beside a drill stands beside it', () => {
    const note = (line: string) => takeOver(prepared, line)[0]?.readings[0]?.item.note;
    expect(note('Nordic hamstring lower 2x3 only if no pain')).toBe('only if no pain');
    expect(note('throws: 8 at 80 %, 4 at 90 %')).toBe('at 80 %');
    expect(note('dead bug 2x8')).toBeUndefined();
  });
  it('what safety keeps out is held with the rule and the nearest allowed, and stays as words that are not done', () => {
    const [taken] = takeOver(guarded, 'hop the line 2x20');
    expect(taken?.kind).toBe('held');
    const held = taken?.readings[0]?.held;
    expect(held?.fault).toMatchObject({ rule: 'precaution-exclude', about: 'no-impact' });
    const instead = held?.instead;
    expect(instead && bundledReference.drills.get(instead.drill)?.loadClass).not.toBe('impact');
    expect(taken && chosenItem(taken, 'text')).toMatchObject({
      words: 'Not now: hop the line 2x20',
      amount: 0,
    });
    // Whatever is chosen, what is kept out does not get in.
    expect(taken && chosenItem(taken, 0)?.drill).toBe('own-words');
  });
});

/** Every word of the paper, wherever it went. */
function kept(text: string): string[] {
  const lines = takeOver(prepared, text);
  const raw = text.split('\n').filter((line) => line.trim() !== '');
  expect([...new Map(lines.map(({ row, paper }) => [row, paper])).values()]).toEqual(raw);
  const { items, sections } = routineOfLines(bundledReference, lines, []);
  expect(itemsFaults(bundledReference, items)).toEqual([]);
  const own = lines.filter(({ kind }) => !['joined', 'section', 'circuit'].includes(kind));
  expect(items).toHaveLength(own.length);
  const { athlete, today } = prepared.standing;
  expect(
    routineSafetyFaults(bundledReference, items, athlete, today).filter(
      (f) => f.index !== null && f.rule !== 'not-asked',
    ),
  ).toEqual([]);
  return [...sections.map(({ name }) => name), ...items.map((item) => lineName(bundledReference, item))];
}

describe('a list', () => {
  it.each(PAPER_LISTS.map(({ name, lines }) => [name, lines] as const))(
    '%s: every line is kept',
    (_name, lines) => {
      expect(kept(lines).length).toBeGreaterThan(4);
    },
  );
  it('is read for the most part: seven in ten lines that name a drill are sure or likely', () => {
    const kinds = PAPER_LISTS.flatMap(({ lines }) => takeOver(prepared, lines).map(({ kind }) => kind));
    const read = kinds.filter((kind) => kind === 'sure' || kind === 'likely').length;
    const drills = kinds.filter((kind) => ['sure', 'likely', 'choose', 'text'].includes(kind)).length;
    expect(read / drills).toBeGreaterThan(0.7);
  });
  it('heads make sections and rounds; an empty line or a rest ends the rounds', () => {
    const text = 'Legs (6 min):\n3 rounds:\nstep ups 10 each\ncalf raise 12\n\nbridge 2x10';
    const { items, sections } = routineOfLines(bundledReference, takeOver(prepared, text), []);
    expect(sections).toMatchObject([{ name: 'Legs', minutes: 6 }]);
    expect(items.map(({ circuit, phase }) => [circuit?.rounds ?? 1, phase])).toEqual([
      [3, 'section-1'],
      [3, 'section-1'],
      [1, 'section-1'],
    ]);
  });
  it('a line that says only how the one before is done joins it', () => {
    const [first, second] = takeOver(prepared, 'calf stretch wall\nhold 45 s');
    expect(second).toMatchObject({ kind: 'joined', joins: 0 });
    expect(first?.readings[0]?.item.amount).toBe(45);
  });
  it('nothing that can be typed breaks it, or is lost', () => {
    const word = fc.constantFrom(
      'calf',
      'raise',
      '3x10',
      '2 min',
      'L',
      'each',
      'hold 5 s',
      ':',
      'or',
      '30/15',
      '\u0000',
      '🧗',
      '🧗'.repeat(200),
      'slow over the toes, '.repeat(20),
      '(',
      '999999999',
      '-',
      'rest',
      'every minute',
      'x',
    );
    const text = fc.array(
      fc.array(fc.oneof(word, fc.string({ maxLength: 12 })), { maxLength: 8 }).map((w) => w.join(' ')),
      { maxLength: 6 },
    );
    forAll(
      fc.property(text, (lines) => {
        const taken = takeOver(prepared, lines.join('\n'));
        const { items } = routineOfLines(bundledReference, taken, []);
        expect(itemsFaults(bundledReference, items)).toEqual([]);
        for (const { words } of items) expect(words?.length ?? 0).toBeLessThanOrEqual(300);
        const said = (all: readonly string[]) => all.join('').replaceAll(/[\s\p{Cc}]/gu, '');
        expect(said([...new Map(taken.map(({ row, paper }) => [row, paper])).values()])).toBe(said(lines));
      }),
      60,
    );
  });
});

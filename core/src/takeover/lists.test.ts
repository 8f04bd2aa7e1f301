import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assessCase } from '../assess/index.ts';
import { prepareBuild } from '../builder/index.ts';
import { bundledReference } from '../reference/bundled.ts';
import { isOwnWords } from '../reference/index.ts';
import { caseOf } from '../testing/cases.ts';
import { eachOf } from '../testing/eachOf.ts';
import { forAll } from '../testing/forAll.ts';
import { routineTime } from '../dose/index.ts';
import {
  avoidedItems,
  chosenItem,
  firstChoice,
  readCaution,
  readLine,
  routineOfLines,
  stopAbove,
  takeOver,
  withRow,
} from './index.ts';

const grown = caseOf({ athlete: { birthDate: '1999-01-01', trainingYears: 6 } } as never);
const prepared = prepareBuild(assessCase(bundledReference, grown), grown.request);

/** "sure short-foot-seated 1x10 reps both": each part of a line as it was understood. */
function meant(line: string): string[] {
  return takeOver(prepared, line).map((taken) => {
    const item = chosenItem(taken, taken.kind === 'choose' ? 0 : firstChoice(taken));
    if (!item || taken.kind === 'rest' || taken.kind === 'caution' || taken.kind === 'days')
      return taken.kind;
    const dose = item.perSide
      ? `L ${item.perSide.left.sets}x${item.perSide.left.amount} R ${item.perSide.right.sets}x${item.perSide.right.amount}`
      : `${item.sets}x${item.amount}`;
    return [
      taken.kind,
      item.drill,
      dose,
      item.measure,
      item.side,
      item.holdSeconds ? `hold ${item.holdSeconds}` : '',
    ]
      .filter(Boolean)
      .join(' ');
  });
}

describe('lines as people write them', () => {
  it.each<[string, string[]]>([
    ["locker traben 3'", ['sure easy-jog-with-arm-patterns 1x180 seconds both']],
    ['Ausfallschritt gehend mit Drehung 2x6/S', ['sure walking-lunge-with-turn 2x6 reps both']],
    ['Brücke einbeinig 3x10 bds.', ['sure single-leg-bridge 3x10 reps both']],
    ['Seitstütz auf Knien 2 × 20" re + li', ['sure kneeling-side-plank 2x20 hold-seconds both']],
    ['A1 goblet squat 3x8 @12kg 3-1-1', ['sure goblet-squat 3x8 reps both']],
    ['A2 SL bridge 3x8 ea', ['sure single-leg-bridge 3x8 reps both']],
    ['RDL 3x8 @40kg', ['sure kettlebell-hinge 3x8 reps both']],
    ['RDL 3x8', ['sure hands-to-hip-crease-hinge 3x8 reps both']],
    ['B1) calf raise 15-12-10', ['sure double-leg-heel-raise 3x15 reps both']],
    ['iso heel raise hold 5x45s @70%', ['sure double-leg-heel-raise-hold 5x45 hold-seconds both']],
    ['10x10s short foot', ['sure short-foot-seated 1x10 reps both hold 10']],
    ['copenhagen (short) 2x20s L, 1x20s R', ['sure copenhagen-short-lever L 2x20 R 1x20 hold-seconds both']],
    ['4x10m bear crawl', ['sure bear-crawl 4x10 metres both']],
    ['strides 4 x 60m 60/70/80/90%', ['sure build-up-run 4x60 metres both']],
    ['jump rope 3 x 1 min, 30s off', ['sure rope-skip-easy 3x60 seconds both']],
    ['pogos 2x20 (2 legs)', ['sure pogo-hop 2x20 contacts both']],
    ['hop+stick 3x5/s', ['sure single-leg-hop-stick 3x5 contacts both']],
    ['ER @0 w/ band 2x15 R', ['sure band-external-rotation 2x15 reps right']],
    ['ER @90 band 2x12', ['choose band-external-rotation-overhead 2x12 reps both']],
    [
      'Y-T-W prone x8',
      [
        'sure prone-y-raise 1x8 reps both',
        'sure prone-t-raise 1x8 reps both',
        'text own-words-reps 1x8 reps both',
      ],
    ],
    ['scap push-up 2x10', ['sure push-up-plus 2x10 reps both']],
    ['pull aparts 20', ['sure light-band-pull-apart 1x20 reps both']],
    ['open books 8 ea', ['sure side-lying-open-book 1x8 reps both']],
    ['cat cow x10', ['sure cat-camel 1x10 reps both']],
    ['90/90 switches 10 (5/5)', ['sure seated-90-90-switch 1x5 reps both']],
    [
      'half-kneeling hip flexor stretch 2x30s e.s.',
      ['sure half-kneeling-hip-flexor-stretch 2x30 hold-seconds both'],
    ],
    ["couch stretch (rear foot on wall) 1' each", ['text own-words-sides 1x60 seconds both']],
    ['breathing 90/90 x5', ['sure supine-breathing-reset 1x20 seconds both']],
    ['box breathing 4-4-4-4 x6', ['likely seated-breathing-reset 1x24 seconds both']],
    [
      '30/15: squat, plank, bird dog',
      [
        'circuit',
        'sure bodyweight-squat 1x7 reps both',
        'sure forearm-plank 1x20 hold-seconds both',
        'sure bird-dog 1x9 reps both hold 5',
      ],
    ],
    ['1. swings 12 @16', ['text own-words-reps 1x12 reps both']],
    ['2. plank 40s', ['sure forearm-plank 1x40 hold-seconds both']],
    ['3. rest', ['rest']],
    ['tabata mountain climbers', ['circuit', 'text own-words 1x30 seconds both']],
    [
      'every 2 min x 5: low hurdle bounds 6',
      ['circuit', 'sure low-hurdle-two-foot-bounds 1x6 contacts both'],
    ],
    ['0:00 easy shots 8', ['text own-words-reps 1x8 reps both']],
    ['ladder: one foot each x4', ['sure ladder-one-foot-run 4x5 metres both']],
    ['cones out & back 2 min', ['likely easy-shuttle-run 1x300 metres both']],
    ['then all three x6', ['circuit']],
    [
      'throws: 8 @ 10 m, 8 @ 20 m, 5 @ 30 m',
      Array.from([8, 8, 5], (n) => `sure overhead-throw-by-distance 1x${n} reps both`),
    ],
    ['foam roll calves 1 min ea', ['sure calf-roller-two-leg 1x60 seconds both']],
    ['ankle -> knee -> hip', ['text own-words 1x0 seconds both']],
    ['☐ band walks 2x10m both ways', ['likely mini-band-side-step 2x20 reps both']],
    ['dead bug 10-10-10', ['sure dead-bug 3x10 reps both']],
    ['plank max (stop @ 60s)', ['sure forearm-plank 1x60 hold-seconds both']],
    ['knees over toes? ask physio', ['text own-words 1x0 seconds both']],
    ['wall sit 5×45s, r: 2min', ['sure wall-sit 5x45 hold-seconds both']],
    ['adductor sqz ball 10x5sec', ['sure supine-ball-squeeze 1x10 reps both hold 5']],
  ])('%s', (line, parts) => {
    expect(meant(line)).toEqual(parts);
  });
  it.each<[string, string]>([
    ['Aufwärmen (5 min):', 'section'],
    ['Pause 1 Min', 'rest'],
    ['rest 90 s b/w sets', 'rest'],
    ['Mo/Mi/Fr', 'days'],
    ['2-3x/wk, evenings', 'days'],
    ['3 rounds:', 'circuit'],
    ['EMOM 10:', 'circuit'],
    ['AMRAP 8 min', 'circuit'],
    ['20s on, 10s off x 8', 'circuit'],
    ['3 Runden', 'circuit'],
    ['COOL DOWN', 'section'],
  ])('%s is no drill', (line, kind) => {
    expect(takeOver(prepared, line).map((taken) => taken.kind)).toEqual([kind]);
  });
  it('what is easier as it is written than the drill that is near is never taken by itself', () => {
    for (const line of eachOf([
      'push ups on knees 2x10',
      'wall push ups 2x10',
      'side plank on toes with row 3x20s',
      'single arm hang 10s',
      'plank on swiss ball 30s',
      'goblet squat to press 3x8',
    ])) {
      const [taken] = takeOver(prepared, line);
      expect(taken && isOwnWords(chosenItem(taken, firstChoice(taken))?.drill ?? ''), line).toBe(true);
    }
  });
});

describe('negations and cautions', () => {
  it.each([
    'NO jumping',
    'no overhead work',
    'not: nordics this week',
    'avoid deep squats',
    "don't run",
    'keine Sprünge!',
    'nicht springen',
    'ohne Gewicht',
    'NB no pogos',
    'stop if pain >4/10',
    'bei Schmerz > 3/10 abbrechen',
    'never hop on the left',
    'careful: avoid twisting',
    'pain ≤ 3/10',
  ])('%s is a caution', (line) => {
    const taken = takeOver(prepared, line);
    expect(taken.map(({ kind }) => kind)).toEqual(['caution']);
    const { items } = routineOfLines(bundledReference, taken, []);
    expect(items).toMatchObject([{ drill: 'own-words', amount: 0, caution: true, words: line }]);
  });
  it.each([
    ['pain ≤ 3/10', 3],
    ['stop if pain >4/10', 4],
    ['kein Schmerz über 2/10', 2],
  ])('%s allows %i', (line, limit) => {
    expect(readCaution(line)?.painLimit).toBe(limit);
  });
  it('a drill with a no beside it is the drill, the no its note', () => {
    const [taken] = takeOver(prepared, 'bridge, no band 2x10');
    const item = taken ? chosenItem(taken, firstChoice(taken)) : null;
    expect(item).toMatchObject({ drill: 'glute-bridge', sets: 2, amount: 10, note: 'no band' });
    expect(taken?.kind).toBe('likely');
  });
  it('a list is checked against its own cautions, by kind and by name', () => {
    const { items } = routineOfLines(
      bundledReference,
      takeOver(prepared, 'no jumping\nbridge 2x10\npogos 2x20\nnot: nordics this week\nnordics 2x4'),
      [],
    );
    expect(avoidedItems(bundledReference, items)).toEqual([
      { index: 2, caution: 'no jumping' },
      { index: 4, caution: 'not: nordics this week' },
    ]);
  });
});

describe('what stands together', () => {
  const routine = (text: string) => routineOfLines(bundledReference, takeOver(prepared, text), []).items;
  it('A1 and A2 are done in turn, with the rest that is written between them', () => {
    const items = routine('A1 goblet squat 3x8\nA2 SL bridge 3x8 ea\nrest 90 s b/w sets\nB1 calf raise 2x12');
    expect(items.map(({ sets, circuit }) => [sets, circuit?.rounds, circuit?.restSeconds])).toEqual([
      [1, 3, 90],
      [1, 3, 90],
      [2, undefined, undefined],
    ]);
  });
  it('every minute for ten minutes is as many rounds as there are minutes for its lines', () => {
    const items = routine('EMOM 10:\nplank 40s\nbridge 12');
    expect(items.map(({ circuit }) => circuit?.rounds)).toEqual([5, 5]);
  });
  it('as many rounds as stay clean are as many as its minutes hold, and one where no minutes are said', () => {
    const turn = 'squat 10\nplank 30s';
    const [first] = routine(`AMRAP 10 min\n${turn}`);
    const once = routineTime(bundledReference, routine(turn)).total;
    expect(first?.circuit?.rounds).toBe(Math.floor(600 / once));
    expect(routine(`AMRAP\n${turn}`)[0]?.circuit?.rounds).toBe(1);
    expect(routine(`every minute:\n${turn}`)[0]?.circuit?.rounds).toBe(1);
  });
  it('then all x4 goes round with everything before it', () => {
    expect(routine('cat cow x10\nbridge 12\nthen all x4').map(({ circuit }) => circuit?.rounds)).toEqual([
      4, 4,
    ]);
  });
  it('a row of the paper is changed in its place, whatever empty lines stand before it', () => {
    expect(withRow('a\n\u0000\n\nb\r\nc', 1, 'x\ny')).toBe('a\n \n\nx\ny\nc');
    expect(withRow('a', 7, 'x')).toBe('a');
  });
  it('the pain a list allows holds where it is stricter than the limit', () => {
    const items = routine('stop if pain > 3/10\nmax pain 2\nbridge 12');
    expect([stopAbove(5, items), stopAbove(1, items), stopAbove(5, [])]).toEqual([2, 1, 5]);
  });
  it('then all three goes round with the last three', () => {
    const items = routine('cat cow x10\nbridge 12\nplank 30s\nsquat 10\nthen all three x6');
    expect(items.map(({ circuit }) => circuit?.rounds ?? 1)).toEqual([1, 6, 6, 6]);
  });
  it('marks of a clock are kept: a rest fills what is left until the next', () => {
    const items = routine('0:00 easy shots 8\n1:00 jumping jacks 20s\n2:00 squat 5');
    expect(items.map(({ drill }) => drill)).toEqual([
      'own-words-reps',
      'pause',
      'jumping-jack',
      'pause',
      'bodyweight-squat',
    ]);
    expect(items[1]).toMatchObject({ words: 'until 1:00', amount: 36 });
  });
  it('own words keep sets, amount, side and rest, go in rounds, and take time', () => {
    const [item] = routine('kettlebell swings 3x12 ea @16, rest 45s');
    expect(item).toMatchObject({
      words: 'kettlebell swings',
      note: '16 kg',
      drill: 'own-words-reps-sides',
      sets: 3,
      amount: 12,
      side: 'both',
      restSeconds: 45,
    });
    const rounds = routine('3 rounds:\nmountain climbers\nbridge 10');
    expect(rounds.map(({ circuit, amount }) => [circuit?.rounds, amount])).toEqual([
      [3, 30],
      [3, 10],
    ]);
  });
});

interface Dose {
  readonly sets: number;
  readonly amount: number;
  readonly unit: 'reps' | 's' | 'm';
  readonly side: 'left' | 'right' | 'both' | null;
}

const UNIT: Readonly<Record<Dose['unit'], readonly string[]>> = {
  reps: ['', ' reps', ' Wdh.', ' x'],
  s: ['s', ' s', ' sec', ' Sek.', '"', 'secs', ' seconds', ' Sekunden'],
  m: ['m', ' m', ' metres', ' Meter'],
};
const SIDES: Readonly<Record<'left' | 'right' | 'both', readonly string[]>> = {
  left: ['L', 'left', 'li', 'links', 'L only', 'nur links'],
  right: ['R', 'right', 're', 'rechts', 'R only', 'nur rechts'],
  both: ['ea', 'each', 'each side', 'per side', 'e.s.', 'bds.', 'je Seite', 're + li', 'L/R', 'both sides'],
};

const dose: fc.Arbitrary<Dose> = fc.record({
  sets: fc.integer({ min: 2, max: 6 }),
  amount: fc.integer({ min: 4, max: 59 }),
  unit: fc.constantFrom('reps', 's', 'm'),
  side: fc.constantFrom('left', 'right', 'both', null),
});
const name = fc.constantFrom(
  'bridge',
  'squat',
  'plank',
  'heel raise',
  'Brücke',
  'bear crawl',
  'open book',
  'Kniebeuge',
);

/** One of the ways in which a dose is written. */
function waysOf({ sets, amount, unit }: Dose): string[] {
  const units = UNIT[unit].filter((mark) => mark !== ' x');
  const by = ['x', ' x ', '×', ' × ', ' sets of ', ' Sätze à ', '*'];
  const whole = units.flatMap((mark) => by.map((times) => `${sets}${times}${amount}${mark}`));
  // The amount first, where its unit says which of the two it is.
  const turned = units
    .filter((mark) => mark !== '')
    .flatMap((mark) => [`${amount}${mark} x ${sets}`, `${amount}${mark} x${sets}`]);
  return [...whole, ...turned];
}

describe('the grammar of doses', () => {
  it('value, every way of writing it, value', () => {
    forAll(
      fc.property(dose, name, fc.nat(), fc.nat(), fc.boolean(), (value, drill, way, mark, first) => {
        const ways = waysOf(value);
        const written = ways[way % ways.length] ?? '';
        const sides = value.side === null ? [''] : SIDES[value.side];
        const side = sides[mark % sides.length] ?? '';
        const line = first ? `${written} ${drill} ${side}` : `${drill} ${written} ${side}`;
        const read = readLine(line.trim());
        expect([read.dose.sets, read.dose.amount, read.dose.unit ?? 'reps', read.side], line).toEqual([
          value.sets,
          value.amount,
          value.unit,
          value.side,
        ]);
        expect(read.words, line).toBe(drill);
      }),
      400,
    );
  });
  it('a range, a hold, a rest, a tempo and a load beside a dose are each read as what they are', () => {
    const number = fc.integer({ min: 2, max: 50 });
    const extra = fc.record({
      hold: fc.integer({ min: 2, max: 30 }),
      rest: fc.integer({ min: 15, max: 180 }),
      kg: number,
      to: number,
    });
    forAll(
      fc.property(dose, extra, fc.nat(), ({ sets, amount }, { hold, rest, kg, to }, way) => {
        const most = amount + to;
        const holds = [`hold ${hold}s`, `${hold}s hold`, `${hold} sec holds`, `halten ${hold} Sek`];
        const rests = [
          `rest ${rest}s`,
          `r: ${rest}s`,
          `${rest}s rest`,
          `${rest} s Pause`,
          `${rest}s b/w sets`,
        ];
        const loads = [`@${kg}kg`, `${kg} kg`, `with ${kg}kg`, `mit ${kg} kg`];
        const pick = (all: readonly string[]) => all[way % all.length];
        const line = `bridge ${sets}x${amount}-${most}, ${pick(holds)}, ${pick(loads)}, tempo 3-1-1, ${pick(rests)}`;
        const read = readLine(line);
        expect(
          [
            read.dose.sets,
            read.dose.amountFrom,
            read.dose.amount,
            read.holdSeconds,
            read.restSeconds,
            read.load?.kg,
            read.tempo,
          ],
          line,
        ).toEqual([sets, amount, most, hold, rest, kg, '3-1-1']);
        expect(read.words, line).toBe('bridge');
      }),
      200,
    );
  });
  it('minutes, minutes and seconds, and a clock are one and the same time', () => {
    const time = fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 59 }));
    forAll(
      fc.property(time, ([min, sec]) => {
        const padded = String(sec).padStart(2, '0');
        for (const written of eachOf([
          `${min} min ${sec} s`,
          `${min}'${padded}"`,
          `${min}:${padded}`,
          `${min} Min. und ${sec} Sek.`,
        ]))
          expect(readLine(`plank ${written}`).dose, written).toMatchObject({
            amount: min * 60 + sec,
            unit: 's',
          });
      }),
      60,
    );
  });
});

describe('damaged lines', () => {
  const LINES = [
    'calf raise 2x15 bent knee each side',
    'side plank 3 x 20-30s L/R rest 20s',
    'Seitstütz auf Knien 2 × 20" re + li',
    'nordic 2x4',
    'goblet squat 3x8 @12kg 3-1-1',
    'single leg bridge 3x10 ea',
    'band external rotation 2x15 R',
    'copenhagen short 2x20s L',
  ];
  it('a letter lost, doubled or changed makes words of it, or leaves its meaning: never another drill, sure', () => {
    const damage = fc.record({
      line: fc.constantFrom(...LINES),
      at: fc.nat(),
      how: fc.constantFrom('lost', 'twice', 'other'),
      by: fc.constantFrom('q', 'e', 'z', '7', '/'),
    });
    const drillOf = (line: string) => {
      const [taken] = takeOver(prepared, line);
      return taken?.kind === 'sure' ? chosenItem(taken, 0)?.drill : undefined;
    };
    const ladderOf = (drill: string) => bundledReference.drills.get(drill)?.ladder;
    const whole = new Map(LINES.map((line) => [line, drillOf(line)]));
    forAll(
      fc.property(damage, ({ line, at, how, by }) => {
        const i = at % line.length;
        const put = { lost: '', twice: `${line[i]}${line[i]}`, other: by }[how];
        const found = drillOf(`${line.slice(0, i)}${put}${line.slice(i + 1)}`);
        if (found)
          expect(ladderOf(found), `${line.slice(0, i)}${put}${line.slice(i + 1)}`).toBe(
            ladderOf(whole.get(line) ?? ''),
          );
      }),
      120,
    );
  });
  it('what is repeated without end is read as soon as anything: no pattern tries it over and over', () => {
    const pieces = [
      'mo   ',
      'evenings , ',
      '1-',
      '1/',
      'a ',
      'a: ',
      '( ',
      ', ',
      '12 ',
      'L 3x8 ',
      'and ',
      '- ',
      '10 vor ',
      'pain <',
    ];
    for (const piece of eachOf(pieces)) {
      const line = piece.repeat(Math.floor(270 / piece.length));
      expect(
        takeOver(prepared, `${line}x`)
          .map(({ paper }) => paper)
          .join(''),
      ).toContain('x');
    }
  });
});

import { dayText } from '@yonder/core/domain';
import type { RoutineItem } from '@yonder/core/domain';
import { isLine } from '@yonder/core/reference';
import {
  circuitText,
  doseSentence,
  duration,
  lineAmount,
  lineName,
  OCCASION_LABEL,
  setupText,
} from '@yonder/core/words';
import { numbersOf, timesText } from './input.ts';
import type { HandoutInput } from './input.ts';
import { logPage } from './logPage.ts';
import { INK, MUTED, pdfOf, TEAL } from './pdf.ts';
import { blank, picturesOf } from './pictures.ts';
import type { Pictures } from './pictures.ts';

/** How a sheet is set: in how many columns, how large, with which pictures. */
interface Setting {
  readonly columns: 1 | 2;
  /** Type and gaps grow and shrink together. */
  readonly scale: number;
}
interface Press extends Setting {
  readonly pictures: Pictures;
  readonly at: (points: number) => number;
}

/** What is said in small below a drill, each after a bold word. */
const small = ({ at }: Press, said: readonly (readonly [word: string, text: string])[]) => ({
  text: said.flatMap(([word, text]) => [{ text: `${word} `, bold: true }, `${text}. `]),
  fontSize: at(9.2),
  color: MUTED,
});

/** A name after its number. */
const named = ({ at }: Press, name: string, number: number | null) => ({
  text: [...(number === null ? [] : [{ text: `${number}  `, color: TEAL }]), name],
  font: 'heading',
  fontSize: at(number === null ? 10.5 : 12.5),
});

/** A rest, or a part in own words. */
function lineText(press: Press, input: HandoutInput, item: RoutineItem, number: number | null): object[] {
  const { at } = press;
  const drill = input.drills.get(item.drill);
  const dose = drill ? doseSentence(drill, item).replace(/\.$/, '') : lineAmount(item);
  const said = [dose, item.ledBy ? `led by ${item.ledBy}` : '', item.note ?? ''].filter(Boolean).join(', ');
  return [
    named(press, lineName(input, item), number),
    ...(said ? [{ text: `${said}.`, bold: number !== null, fontSize: at(10.5) }] : []),
  ];
}

/** A drill in words: dose first, then how, what for, and what to watch. */
function drillText(press: Press, input: HandoutInput, item: RoutineItem, number: number | null): object[] {
  const drill = input.drills.get(item.drill);
  if (!drill) return [];
  const { at } = press;
  const setup = setupText(drill, item);
  const serves = input.serves.get(item.id ?? '');
  const care = input.handling.get(drill.id) ?? [];
  return [
    named(press, drill.name, number),
    { text: doseSentence(drill, item), bold: true, fontSize: at(10.8) },
    { text: drill.athleteText, fontSize: at(10.4) },
    ...(item.note ? [{ text: item.note, fontSize: at(10.4) }] : []),
    small(press, [
      ...(setup ? [['Set-up', setup] as const] : []),
      ...(serves ? [['For', serves] as const] : []),
      ['Watch', drill.cues.join('; ')],
      ['Feel it', drill.feelsLike],
    ]),
    ...care.map((text) => ({ text: `Take care: ${text}`, fontSize: at(9.8), color: '#8a3d10' })),
  ];
}

/** One line of the routine: its picture, its words beside. */
function block(press: Press, input: HandoutInput, item: RoutineItem, number: number | null): object {
  const { at, columns } = press;
  const side = at(columns === 1 ? 96 : 72);
  if (isLine(item.drill)) return { margin: [0, 0, 0, at(6)], stack: lineText(press, input, item, number) };
  return {
    margin: [0, 0, 0, at(8)],
    columnGap: at(6),
    columns: [
      { width: side, ...press.pictures(item, side) },
      { width: '*', stack: drillText(press, input, item, number) },
    ],
  };
}

/** Lines side by side in pairs, to be read across; a line by itself takes its half. */
function inColumns(press: Press, blocks: readonly object[]): object[] {
  if (press.columns === 1) return blocks.map((one) => ({ unbreakable: true, stack: [one] }));
  const rows: object[] = [];
  for (let i = 0; i < blocks.length; i += 2)
    rows.push({
      unbreakable: true,
      columnGap: press.at(12),
      columns: [
        { width: '*', stack: [blocks[i]] },
        { width: '*', stack: [blocks[i + 1] ?? { text: '' }] },
      ],
    });
  return rows;
}

/** The lines in their order under the sections and rounds they stand in. */
function body(press: Press, input: HandoutInput): object[] {
  const { at } = press;
  const numbers = numbersOf(input.items);
  const all: object[] = [];
  let waiting: object[] = [];
  const flush = (...heading: object[]) => {
    all.push(...inColumns(press, waiting), ...heading);
    waiting = [];
  };
  input.items.forEach((item, i) => {
    const before = input.items[i - 1];
    const section =
      before?.phase === item.phase ? undefined : input.sections.find(({ id }) => id === item.phase);
    const { circuit } = item;
    if (section)
      flush({
        text: section.name,
        font: 'heading',
        fontSize: at(13),
        color: TEAL,
        margin: [0, at(2), 0, at(4)],
      });
    if (circuit && before?.circuit?.id !== circuit.id)
      flush({
        text: `In rounds, one after the other: ${circuitText(circuit)}.`,
        bold: true,
        fontSize: at(10.5),
        margin: [0, 0, 0, at(4)],
      });
    else if (!circuit && before?.circuit) flush();
    waiting.push(block(press, input, item, numbers[i] ?? null));
  });
  flush();
  return all;
}

function cautions({ at }: Press, input: HandoutInput): object {
  const limit =
    input.stopAbove > 0
      ? `Stop a drill if it hurts more than ${input.stopAbove} out of 10, and tell your practitioner.`
      : 'Stop a drill if it hurts at all, and tell your practitioner.';
  const next = `If it hurts more next morning than the morning before, or more than ${input.stopAbove} out of 10, say so before you do it again. Swelling, giving way, numbness or night pain: stop and get it looked at.`;
  const stack = [
    {
      text: [
        { text: 'When to stop  ', font: 'heading', fontSize: at(12) },
        { text: limit, bold: true, fontSize: at(10.6) },
      ],
    },
    { text: next, fontSize: at(10) },
    ...input.overrides.map((text) => ({ text, fontSize: at(9.4), margin: [0, 2, 0, 0] })),
    ...input.precautions.map((text) => ({ text, fontSize: at(10), bold: true, margin: [0, 2, 0, 0] })),
  ];
  return {
    unbreakable: true,
    margin: [0, 0, 0, at(9)],
    table: { widths: ['*'], body: [[{ margin: [7, 3, 7, 4], stack }]] },
    layout: { hLineColor: () => '#c46b2d', vLineColor: () => '#c46b2d' },
  };
}

function footer(input: HandoutInput, page: number, pages: number): object {
  const text = `Questions: ${input.issuedBy}, ${input.practice}. This sheet supports the advice of a qualified practitioner; it does not diagnose or clear you to play. Local rules come first.`;
  return {
    margin: [38, 6, 38, 0],
    fontSize: 8.5,
    color: MUTED,
    columns: [
      { width: '*', text },
      { width: 50, alignment: 'right', text: `${page} / ${pages}` },
    ],
  };
}

/** What stands above the lines: whose it is, what for, how long and how often. */
function head({ at }: Press, input: HandoutInput): object[] {
  const when = `${OCCASION_LABEL[input.occasion]} · ${duration(input.totalSeconds)} in all · ${timesText(input)}`;
  return [
    { text: `${input.athlete}: your routine`, font: 'heading', fontSize: at(20) },
    {
      text: `${when} · version ${input.number}, ${dayText(input.issuedOn)}`,
      fontSize: at(10.5),
      color: MUTED,
      margin: [0, 2, 0, at(7)],
    },
  ];
}

async function render(
  inputs: readonly [HandoutInput, ...HandoutInput[]],
  setting: Setting,
  drawn: boolean,
): Promise<{ buffer: Buffer; pages: number }> {
  const at = (points: number) => Math.round(points * setting.scale * 10) / 10;
  const [first] = inputs;
  let pages = 0;
  const buffer = await pdfOf({
    pageSize: 'A4',
    pageMargins: [38, 30, 38, 46],
    info: { title: `Routine ${first.number}`, creator: 'Yonder Ridge' },
    defaultStyle: { font: 'body', color: INK, lineHeight: 1.08 },
    content: inputs.flatMap((input, i) => {
      const press = { ...setting, at, pictures: drawn ? picturesOf(input.drills, input.items) : blank };
      return [
        ...(i > 0 ? [{ text: ' ', fontSize: 1, pageBreak: 'before', pageOrientation: 'portrait' }] : []),
        ...head(press, input),
        cautions(press, input),
        ...body(press, input),
        ...logPage(input),
      ];
    }),
    footer: (page: number, all: number) => {
      pages = all;
      return footer(first, page, all);
    },
  });
  return { buffer, pages };
}

/** Settings tried in their order: as large as fits, legible on a wall where there are few lines, on paper in the hand where there are many. */
const SETTINGS: readonly Setting[] = [
  { columns: 1, scale: 1.3 },
  { columns: 1, scale: 1.15 },
  { columns: 2, scale: 1.1 },
  { columns: 2, scale: 1 },
  { columns: 2, scale: 0.93 },
  { columns: 2, scale: 0.87 },
];
/** Where one page would be too small to read. */
const PAGES: Setting = { columns: 2, scale: 1 };
/** The page with the lines, and the one to log. */
const ONE_AND_LOG = 2;

/**
 * The printed handout, A4, in plain words with a picture for each drill: dose, what it is for, cues, what to feel, pain limit, when
 * to stop, who to ask, on one page where it fits legibly; then a page with a grid to log sessions by pen.
 */
export async function createHandout(input: HandoutInput): Promise<Buffer> {
  const fits = async (setting: Setting) => (await render([input], setting, false)).pages <= ONE_AND_LOG;
  // The largest that fits, by halves: what fits in one setting fits in all smaller ones.
  let [from, to] = [0, SETTINGS.length];
  while (from < to) {
    const middle = Math.floor((from + to) / 2);
    if (await fits(SETTINGS[middle] as Setting)) to = middle;
    else from = middle + 1;
  }
  return (await render([input], SETTINGS[from] ?? PAGES, true)).buffer;
}

/** The handouts of all occasions as one booklet. */
export async function createBooklet(inputs: readonly [HandoutInput, ...HandoutInput[]]): Promise<Buffer> {
  return (await render(inputs, { columns: 2, scale: 0.87 }, true)).buffer;
}

import { createRequire } from 'node:module';
import { dayText } from '@yonder/core/domain';
import type { Occasion, RoutineItem, Section, Weekday } from '@yonder/core/domain';
import { isLine, PAUSE } from '@yonder/core/reference';
import type { Reference } from '@yonder/core/reference';
import {
  amountText,
  circuitText,
  doseSentence,
  duration,
  lineName,
  OCCASION_LABEL,
  setupText,
  sideText,
  WEEKDAY_LABEL,
} from '@yonder/core/words';

const require = createRequire(import.meta.url);

interface PdfMaker {
  setUrlAccessPolicy(allow: () => boolean): void;
  setLocalAccessPolicy(allow: (path: string) => boolean): void;
  addFonts(fonts: Record<string, Record<string, string>>): void;
  createPdf(document: object): { getBuffer(): Promise<Buffer> };
}

const file = (family: string, weight: number) =>
  require.resolve(`@fontsource/${family}/files/${family}-latin-${weight}-normal.woff`);
const BODY = 'atkinson-hyperlegible-next';
const HEADING = 'bricolage-grotesque';
const FONTS = {
  body: { normal: file(BODY, 400), bold: file(BODY, 700) },
  heading: { normal: file(HEADING, 700), bold: file(HEADING, 700) },
};

/** pdfmake keeps its fonts on one shared object; it is set up once, without any network and with our font files only. */
function createMaker(): PdfMaker {
  const maker = require('pdfmake') as PdfMaker;
  maker.setUrlAccessPolicy(() => false);
  const allowed = new Set(Object.values(FONTS).flatMap((font) => Object.values(font)));
  maker.setLocalAccessPolicy((path) => allowed.has(path));
  maker.addFonts(FONTS);
  return maker;
}
const maker = createMaker();

/** Everything printed on a handout. */
export interface HandoutInput {
  readonly athlete: string;
  readonly practice: string;
  readonly occasion: Occasion;
  /** Days of the week and times a day it is meant for; no days = as the drills say. */
  readonly days: readonly Weekday[];
  readonly timesPerDay: number;
  readonly number: number;
  readonly issuedOn: string;
  readonly issuedBy: string;
  readonly mode: 'prepare' | 'build' | 'restore';
  readonly totalSeconds: number;
  readonly sections: readonly Section[];
  readonly items: readonly RoutineItem[];
  /** The school's limit: stop above it. */
  readonly stopAbove: number;
  /** Athlete wording of each precaution in force. */
  readonly precautions: readonly string[];
  readonly handling: ReadonlyMap<string, readonly string[]>;
  /** What each item is for, in words, by its id. */
  readonly serves: ReadonlyMap<string, string>;
  /** Rules it was issued against, each with who said why, as sentences. */
  readonly overrides: readonly string[];
}

const INK = '#22303a';
const MUTED = '#55626b';
const TEAL = '#17646b';
/** How often it is meant: on its days, else as often as the drill that is meant most seldom allows, before training each time. */
function timesText(reference: Reference, input: HandoutInput): string {
  if (input.days.length > 0) {
    const days =
      input.days.length === 7 ? 'every day' : input.days.map((day) => WEEKDAY_LABEL[day]).join(', ');
    return input.timesPerDay > 1 ? `${days}, ${input.timesPerDay} times a day` : days;
  }
  if (input.mode === 'prepare') return 'each time';
  const times = input.items.flatMap(({ drill }) =>
    isLine(drill) ? [] : (reference.drills.get(drill)?.dose.timesPerWeek ?? []),
  );
  const least = Math.max(1, ...times.map((one) => one.min));
  const most = Math.max(least, Math.min(7, ...times.map((one) => one.max)));
  return least === most ? `${least} days a week` : `${least} to ${most} days a week`;
}

/** Places of the lines: drills and parts in own words are counted, rests are not. */
function numbersOf(items: readonly RoutineItem[]): (number | null)[] {
  let number = 0;
  return items.map(({ drill }) => (drill === PAUSE ? null : (number += 1)));
}

/** How large the handout is set: type and gaps grow and shrink together. */
type Scale = (points: number) => number;

/** A rest, or a part in own words. */
function lineBlock(reference: Reference, item: RoutineItem, number: number | null, at: Scale): object {
  const time = item.amount > 0 ? duration(item.amount) : '';
  const said = [time, item.ledBy ? `led by ${item.ledBy}` : '', item.note ?? ''].filter(Boolean).join(', ');
  return {
    unbreakable: true,
    margin: [0, 0, 0, at(8)],
    columns: [
      {
        width: at(28),
        text: number === null ? '' : String(number),
        font: 'heading',
        fontSize: at(20),
        color: TEAL,
      },
      {
        width: '*',
        stack: [
          {
            text: lineName(reference, item),
            font: 'heading',
            fontSize: at(number === null ? 11.5 : 15),
            color: INK,
          },
          ...(said ? [{ text: `${said}.`, bold: number !== null, fontSize: at(11.5) }] : []),
        ],
      },
    ],
  };
}

function drillBlock(
  reference: Reference,
  input: HandoutInput,
  item: RoutineItem,
  number: number | null,
  at: Scale,
): object {
  const drill = reference.drills.get(item.drill);
  if (!drill) return {};
  if (isLine(item.drill)) return lineBlock(reference, item, number, at);
  const setup = setupText(drill, item);
  const care = input.handling.get(drill.id) ?? [];
  const small = { fontSize: at(10.5), color: MUTED };
  return {
    unbreakable: true,
    margin: [0, 0, 0, at(10)],
    columns: [
      { width: at(28), text: String(number ?? ''), font: 'heading', fontSize: at(20), color: TEAL },
      {
        width: '*',
        stack: [
          { text: drill.name, font: 'heading', fontSize: at(15), color: INK },
          { text: doseSentence(drill, item), bold: true, fontSize: at(12.5), margin: [0, 1, 0, 1] },
          { text: drill.athleteText, fontSize: at(11.5) },
          ...(input.serves.get(item.id ?? '')
            ? [{ text: `For: ${input.serves.get(item.id ?? '')}.`, ...small }]
            : []),
          ...(setup ? [{ text: `Set-up: ${setup}.`, ...small }] : []),
          ...(item.note ? [{ text: item.note, fontSize: at(11) }] : []),
          { text: `Watch: ${drill.cues.join('; ')}.`, ...small },
          { text: `Feel it here: ${drill.feelsLike}.`, ...small },
          ...care.map((text) => ({ text: `Take care: ${text}`, fontSize: at(10.5), color: '#8a3d10' })),
        ],
      },
    ],
  };
}

/** The lines in their order under the sections and rounds they stand in. */
function body(reference: Reference, input: HandoutInput, at: Scale): object[] {
  const numbers = numbersOf(input.items);
  return input.items.flatMap((item, i) => {
    const before = input.items[i - 1];
    const section =
      before?.phase === item.phase ? undefined : input.sections.find(({ id }) => id === item.phase);
    const { circuit } = item;
    const begins = circuit !== undefined && before?.circuit?.id !== circuit.id;
    return [
      ...(section
        ? [
            {
              text: section.name,
              font: 'heading',
              fontSize: at(14),
              color: TEAL,
              margin: [0, at(4), 0, at(4)],
            },
          ]
        : []),
      ...(begins
        ? [
            {
              text: `In rounds, one after the other: ${circuitText(circuit)}.`,
              bold: true,
              fontSize: at(11.5),
              margin: [0, 0, 0, at(5)],
            },
          ]
        : []),
      drillBlock(reference, input, item, numbers[i] ?? null, at),
    ];
  });
}

function cautions(input: HandoutInput, at: Scale): object {
  const limit =
    input.stopAbove > 0
      ? `Stop a drill if it hurts more than ${input.stopAbove} out of 10, and tell your practitioner.`
      : 'Stop a drill if it hurts at all, and tell your practitioner.';
  const next =
    'If it is worse next morning than the morning before, say so before you do it again. Swelling, giving way, numbness or night pain: stop and get it looked at.';
  const stack = [
    { text: 'When to stop', font: 'heading', fontSize: at(13) },
    { text: limit, bold: true, fontSize: at(11.5), margin: [0, 2, 0, 2] },
    { text: next, fontSize: at(10.5) },
    ...input.overrides.map((text) => ({ text, fontSize: at(10), margin: [0, 2, 0, 0] })),
    ...input.precautions.map((text) => ({ text, fontSize: at(10.5), bold: true, margin: [0, 2, 0, 0] })),
  ];
  return {
    unbreakable: true,
    margin: [0, 0, 0, at(12)],
    table: { widths: ['*'], body: [[{ margin: [8, 5, 8, 5], stack }]] },
    layout: { hLineColor: () => '#c46b2d', vLineColor: () => '#c46b2d' },
  };
}

/** Sessions that fit across the log page. */
const LOG_COLUMNS = 10;
const LOG_HINT =
  'Tick what you did, or write how many. Pain and effort from 0 to 10; the morning after: better, same or worse.';

/** A page with a grid for the pen: a row a drill, a column a session, pain, effort and the morning after below. */
function logPage(reference: Reference, input: HandoutInput): object[] {
  const blank = Array.from({ length: LOG_COLUMNS }, () => ({ text: ' ' }));
  const row = (label: string, note: string) => [
    {
      stack: [
        { text: label, bold: true, fontSize: 9.5 },
        { text: note, fontSize: 8, color: MUTED },
      ],
    },
    ...blank,
  ];
  const numbers = numbersOf(input.items);
  const drills = input.items.flatMap((item, i) =>
    item.drill === PAUSE || item.amount === 0
      ? []
      : [
          row(
            `${numbers[i]}. ${lineName(reference, item)}`,
            isLine(item.drill) ? duration(item.amount) : amountText(item),
          ),
        ],
  );
  const body = [
    row('Date', ''),
    ...drills,
    row('Pain, most', '0 to 10'),
    row('Effort', '0 to 10'),
    row('The morning after', 'better, same, worse'),
  ];
  const line = () => '#9aa4a8';
  const thin = () => 0.6;
  return [
    {
      text: `Log: ${input.athlete}, ${OCCASION_LABEL[input.occasion].toLowerCase()}, version ${input.number}`,
      font: 'heading',
      fontSize: 17,
      pageBreak: 'before',
      pageOrientation: 'landscape',
      margin: [0, 0, 0, 4],
    },
    { text: LOG_HINT, fontSize: 10.5, color: MUTED, margin: [0, 0, 0, 8] },
    {
      table: {
        widths: [190, ...Array.from({ length: LOG_COLUMNS }, () => '*')],
        heights: Math.max(20, Math.min(34, Math.floor(330 / body.length))),
        body,
      },
      layout: { hLineColor: line, vLineColor: line, hLineWidth: thin, vLineWidth: thin },
    },
  ];
}

function footer(input: HandoutInput, page: number, pages: number): object {
  const text = `Questions: ${input.issuedBy}, ${input.practice}. This sheet supports the advice of a qualified practitioner; it does not diagnose or clear you to play. Local rules come first.`;
  return {
    margin: [46, 8, 46, 0],
    fontSize: 8.5,
    color: MUTED,
    columns: [
      { width: '*', text },
      { width: 50, alignment: 'right', text: `${page} / ${pages}` },
    ],
  };
}

/** What stands above the lines: whose it is, what for, how long and how often. */
function head(reference: Reference, input: HandoutInput, at: Scale): object[] {
  const when = `${OCCASION_LABEL[input.occasion]} · ${duration(input.totalSeconds)} in all · ${timesText(reference, input)}`;
  return [
    { text: `${input.athlete}: your routine`, font: 'heading', fontSize: at(24) },
    {
      text: `${when} · version ${input.number}, ${dayText(input.issuedOn)}`,
      fontSize: at(11),
      color: MUTED,
      margin: [0, 2, 0, at(10)],
    },
  ];
}

async function render(
  reference: Reference,
  inputs: readonly [HandoutInput, ...HandoutInput[]],
  scale: number,
): Promise<{ buffer: Buffer; pages: number }> {
  const at: Scale = (points) => Math.round(points * scale * 10) / 10;
  const [first] = inputs;
  let pages = 0;
  const document = {
    pageSize: 'A4',
    pageMargins: [46, 40, 46, 56],
    info: { title: `Routine ${first.number}`, creator: 'Yonder Ridge' },
    defaultStyle: { font: 'body', color: INK, lineHeight: 1.12 },
    content: inputs.flatMap((input, i) => [
      ...(i > 0 ? [{ text: ' ', fontSize: 1, pageBreak: 'before', pageOrientation: 'portrait' }] : []),
      ...head(reference, input, at),
      cautions(input, at),
      ...body(reference, input, at),
      ...logPage(reference, input),
    ]),
    footer: (page: number, all: number) => {
      pages = all;
      return footer(first, page, all);
    },
  };
  const buffer = await maker.createPdf(document).getBuffer();
  return { buffer, pages };
}

/** Sizes tried from the largest: the sheet should be legible on a wall and still fit. */
const SCALES = [1.25, 1.12, 1, 0.9, 0.8, 0.72] as const;
/** Down to this size one page is better than two. */
const ONE_PAGE_FROM = 0.9;
const BODY_PAGES = 2;

/**
 * The printed handout, A4, in plain words: dose, what it is for, cues, what to feel, pain limit, when to stop, who to ask, on one
 * page where it fits legibly, else as large as fits two; then a page with a grid to log sessions by pen.
 */
export async function createHandout(reference: Reference, input: HandoutInput): Promise<Buffer> {
  let last: Buffer | null = null;
  let two: Buffer | null = null;
  for (const scale of SCALES) {
    const { buffer, pages } = await render(reference, [input], scale);
    if (pages <= 2) return buffer;
    if (pages <= BODY_PAGES + 1) two ??= buffer;
    if (two && scale <= ONE_PAGE_FROM) return two;
    last = buffer;
  }
  if (!last) throw new RangeError('no scale to set the handout in');
  return last;
}

/** The handouts of all occasions as one booklet. */
export async function createBooklet(
  reference: Reference,
  inputs: readonly [HandoutInput, ...HandoutInput[]],
): Promise<Buffer> {
  const { buffer } = await render(reference, inputs, 0.9);
  return buffer;
}

/** A card for the pocket, A6: the lines with their doses, and when to stop. */
export async function createCard(reference: Reference, input: HandoutInput): Promise<Buffer> {
  const numbers = numbersOf(input.items);
  const lines = input.items.map((item, i) => {
    const drill = reference.drills.get(item.drill);
    const begins = item.circuit && input.items[i - 1]?.circuit?.id !== item.circuit.id;
    const dose = isLine(item.drill)
      ? item.amount > 0
        ? duration(item.amount)
        : ''
      : [amountText(item), drill ? sideText(drill, item) : ''].filter(Boolean).join(' ');
    return {
      unbreakable: true,
      margin: [0, 0, 0, 3],
      stack: [
        ...(begins && item.circuit
          ? [{ text: circuitText(item.circuit), fontSize: 7.5, color: TEAL, bold: true }]
          : []),
        {
          columns: [
            { width: 16, text: String(numbers[i] ?? ''), bold: true, color: TEAL },
            { width: '*', text: lineName(reference, item) },
            { width: 'auto', text: dose, bold: true, alignment: 'right', margin: [6, 0, 0, 0] },
          ],
        },
      ],
    };
  });
  const limit =
    input.stopAbove > 0 ? `if it hurts more than ${input.stopAbove} out of 10` : 'if it hurts at all';
  const document = {
    pageSize: 'A6',
    pageMargins: [20, 18, 20, 34],
    info: { title: `Card ${input.number}`, creator: 'Yonder Ridge' },
    defaultStyle: { font: 'body', color: INK, fontSize: 9, lineHeight: 1.1 },
    content: [
      {
        text: `${OCCASION_LABEL[input.occasion]}, ${duration(input.totalSeconds)}`,
        font: 'heading',
        fontSize: 13,
      },
      {
        text: `${input.athlete} · ${timesText(reference, input)} · version ${input.number}`,
        fontSize: 7.5,
        color: MUTED,
        margin: [0, 1, 0, 6],
      },
      ...lines,
      ...input.precautions.map((text) => ({ text, fontSize: 7.5, bold: true, margin: [0, 3, 0, 0] })),
    ],
    footer: () => ({
      margin: [20, 2, 20, 0],
      fontSize: 7,
      color: MUTED,
      text: `Stop a drill ${limit}, and say so. Questions: ${input.issuedBy}, ${input.practice}.`,
    }),
  };
  return maker.createPdf(document).getBuffer();
}

import { createRequire } from 'node:module';
import { dayText } from '@yonder/core/domain';
import type { RoutineItem } from '@yonder/core/domain';
import type { Reference } from '@yonder/core/reference';
import { amountText, doseSentence, duration, setupText } from '@yonder/core/words';

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
  readonly number: number;
  readonly issuedOn: string;
  readonly issuedBy: string;
  readonly mode: 'prepare' | 'build' | 'restore';
  readonly totalSeconds: number;
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
const WHEN = {
  prepare: 'Before training or competition',
  build: 'On its own, not right before sport',
  restore: 'After training or competition',
} as const;

/** How often it is meant: as often as the drill that is meant most seldom allows, before training each time. */
function timesText(reference: Reference, input: HandoutInput): string {
  if (input.mode === 'prepare') return 'each time';
  const times = input.items.flatMap((item) => reference.drills.get(item.drill)?.dose.timesPerWeek ?? []);
  const least = Math.max(1, ...times.map((one) => one.min));
  const most = Math.max(least, Math.min(7, ...times.map((one) => one.max)));
  return least === most ? `${least} days a week` : `${least} to ${most} days a week`;
}

/** How large the handout is set: type and gaps grow and shrink together. */
type Scale = (points: number) => number;

function drillBlock(
  reference: Reference,
  input: HandoutInput,
  item: RoutineItem,
  index: number,
  at: Scale,
): object {
  const drill = reference.drills.get(item.drill);
  if (!drill) return {};
  const setup = setupText(drill, item);
  const care = input.handling.get(drill.id) ?? [];
  const small = { fontSize: at(10.5), color: MUTED };
  return {
    unbreakable: true,
    margin: [0, 0, 0, at(10)],
    columns: [
      { width: at(28), text: String(index + 1), font: 'heading', fontSize: at(20), color: TEAL },
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
          { text: `Watch: ${drill.cues.join('; ')}.`, ...small },
          { text: `Feel it here: ${drill.feelsLike}.`, ...small },
          ...care.map((text) => ({ text: `Take care: ${text}`, fontSize: at(10.5), color: '#8a3d10' })),
        ],
      },
    ],
  };
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
  const drills = input.items.map((item, i) =>
    row(`${i + 1}. ${reference.drills.get(item.drill)?.name ?? item.drill}`, amountText(item)),
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
      text: `Log: ${input.athlete}, version ${input.number}`,
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

async function render(
  reference: Reference,
  input: HandoutInput,
  scale: number,
): Promise<{ buffer: Buffer; pages: number }> {
  const at: Scale = (points) => Math.round(points * scale * 10) / 10;
  let pages = 0;
  const document = {
    pageSize: 'A4',
    pageMargins: [46, 40, 46, 56],
    info: { title: `Routine ${input.number}`, creator: 'Yonder Ridge' },
    defaultStyle: { font: 'body', color: INK, lineHeight: 1.12 },
    content: [
      { text: `${input.athlete}: your routine`, font: 'heading', fontSize: at(24) },
      {
        text: `${WHEN[input.mode]} · ${duration(input.totalSeconds)} in all · ${timesText(reference, input)} · version ${input.number}, ${dayText(input.issuedOn)}`,
        fontSize: at(11),
        color: MUTED,
        margin: [0, 2, 0, at(10)],
      },
      cautions(input, at),
      ...input.items.map((item, index) => drillBlock(reference, input, item, index, at)),
      ...logPage(reference, input),
    ],
    footer: (page: number, all: number) => {
      pages = all;
      return footer(input, page, all);
    },
  };
  const buffer = await maker.createPdf(document).getBuffer();
  return { buffer, pages };
}

/** Sizes tried from the largest: the sheet should be legible on a wall and still fit two pages. */
const SCALES = [1.25, 1.12, 1, 0.9, 0.8, 0.72] as const;
const BODY_PAGES = 2;

/**
 * The printed handout, A4, in plain words: dose, cues, what to feel, pain limit, when to stop, who to ask, as large as
 * fits two pages; then a page with a grid to log sessions by pen.
 */
export async function createHandout(reference: Reference, input: HandoutInput): Promise<Buffer> {
  for (const scale of SCALES) {
    const { buffer, pages } = await render(reference, input, scale);
    if (pages <= BODY_PAGES + 1 || scale === SCALES.at(-1)) return buffer;
  }
  throw new RangeError('no scale to set the handout in');
}

import { createRequire } from 'node:module';
import type { RoutineItem } from '@yonder/core/domain';
import type { Reference } from '@yonder/core/reference';
import { doseSentence, duration, setupText } from '@yonder/core/words';

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
}

const INK = '#22303a';
const MUTED = '#55626b';
const TEAL = '#17646b';
const WHEN = {
  prepare: 'Before training or competition',
  build: 'On its own, not right before sport',
  restore: 'After training or competition',
} as const;

function drillBlock(reference: Reference, input: HandoutInput, item: RoutineItem, index: number): object {
  const drill = reference.drills.get(item.drill);
  if (!drill) return {};
  const setup = setupText(drill, item);
  const care = input.handling.get(drill.id) ?? [];
  return {
    unbreakable: true,
    margin: [0, 0, 0, 11],
    columns: [
      { width: 26, text: String(index + 1), font: 'heading', fontSize: 17, color: TEAL },
      {
        width: '*',
        stack: [
          { text: drill.name, font: 'heading', fontSize: 13.5, color: INK },
          { text: doseSentence(drill, item), bold: true, fontSize: 11.5, margin: [0, 1, 0, 1] },
          { text: drill.athleteText, fontSize: 11 },
          ...(setup ? [{ text: `Set-up: ${setup}.`, fontSize: 10.5, color: MUTED }] : []),
          { text: `Watch: ${drill.cues.join('; ')}.`, fontSize: 10.5, color: MUTED },
          { text: `Feel it: ${drill.feelsLike}.`, fontSize: 10.5, color: MUTED },
          ...care.map((text) => ({ text: `Take care: ${text}`, fontSize: 10.5, color: '#8a3d10' })),
        ],
      },
    ],
  };
}

function cautions(input: HandoutInput): object {
  const limit =
    input.stopAbove > 0
      ? `Stop a drill if it hurts more than ${input.stopAbove} out of 10, and tell your practitioner.`
      : 'Stop a drill if it hurts at all, and tell your practitioner.';
  return {
    unbreakable: true,
    margin: [0, 0, 0, 14],
    table: {
      widths: ['*'],
      body: [
        [
          {
            margin: [8, 6, 8, 6],
            stack: [
              { text: 'When to stop', font: 'heading', fontSize: 12 },
              { text: limit, fontSize: 11, margin: [0, 2, 0, 2] },
              {
                text: 'If it is worse next morning than the morning before, say so before you do it again. Swelling, giving way, numbness or night pain: stop and get it looked at.',
                fontSize: 10.5,
              },
              ...input.precautions.map((text) => ({
                text,
                fontSize: 10.5,
                bold: true,
                margin: [0, 2, 0, 0],
              })),
            ],
          },
        ],
      ],
    },
    layout: { hLineColor: () => '#c46b2d', vLineColor: () => '#c46b2d' },
  };
}

/** The printed handout, A4, in plain words: dose, cues, what to feel, pain limit, when to stop, who to ask. */
export function createHandout(reference: Reference, input: HandoutInput): Promise<Buffer> {
  const document = {
    pageSize: 'A4',
    pageMargins: [46, 44, 46, 60],
    info: { title: `Routine ${input.number}`, creator: 'Yonder Ridge' },
    defaultStyle: { font: 'body', color: INK, lineHeight: 1.12 },
    content: [
      { text: `${input.athlete}: your routine`, font: 'heading', fontSize: 22 },
      {
        text: `${WHEN[input.mode]} · ${duration(input.totalSeconds)} in all · version ${input.number}, ${input.issuedOn}`,
        fontSize: 11,
        color: MUTED,
        margin: [0, 2, 0, 14],
      },
      cautions(input),
      ...input.items.map((item, index) => drillBlock(reference, input, item, index)),
    ],
    footer: (page: number, pages: number) => ({
      margin: [46, 8, 46, 0],
      fontSize: 8.5,
      color: MUTED,
      columns: [
        {
          width: '*',
          text: `Questions: ${input.issuedBy}, ${input.practice}. This sheet supports the advice of a qualified practitioner; it does not diagnose or clear you to play. Local rules come first.`,
        },
        { width: 50, alignment: 'right', text: `${page} / ${pages}` },
      ],
    }),
  };
  return maker.createPdf(document).getBuffer();
}

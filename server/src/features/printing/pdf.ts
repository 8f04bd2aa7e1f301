import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { workerData } from 'piscina';
import { sfntOf } from './sfnt.ts';

const require = createRequire(import.meta.url);

interface PdfMaker {
  setUrlAccessPolicy(allow: () => boolean): void;
  setLocalAccessPolicy(allow: (path: string) => boolean): void;
  addFonts(fonts: Record<string, Record<string, string>>): void;
  createPdf(document: object): { getBuffer(): Promise<Buffer> };
}

/** Where the unpacked fonts lie while the printer lives; words in pictures are set from files alone. */
const { folder } = workerData as { folder: string };

/** Unpacks a font that ships; the path of the file. */
function unpacked(family: string, weight: number): string {
  const packed = require.resolve(`@fontsource/${family}/files/${family}-latin-${weight}-normal.woff`);
  const path = join(folder, `${family}-${weight}.ttf`);
  writeFileSync(path, sfntOf(readFileSync(packed)));
  return path;
}

const heading = unpacked('bricolage-grotesque', 700);
const FONTS = {
  body: {
    normal: unpacked('atkinson-hyperlegible-next', 400),
    bold: unpacked('atkinson-hyperlegible-next', 700),
  },
  heading: { normal: heading, bold: heading },
};

/** pdfmake keeps its fonts on one shared object; it is set up once, without any network and with our fonts only. */
function createMaker(): PdfMaker {
  const maker = require('pdfmake') as PdfMaker;
  maker.setUrlAccessPolicy(() => false);
  const allowed = new Set(Object.values(FONTS).flatMap((font) => Object.values(font)));
  maker.setLocalAccessPolicy((path) => allowed.has(path));
  maker.addFonts(FONTS);
  return maker;
}
const maker = createMaker();

/** Colours of what is printed. */
export const INK = '#22303a';
/** Quiet ink on paper. */
export const MUTED = '#55626b';
/** The left side’s colour on paper. */
export const TEAL = '#17646b';

/** The bytes of a document. */
export const pdfOf = (document: object): Promise<Buffer> => maker.createPdf(document).getBuffer();

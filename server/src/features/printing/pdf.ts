import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { sfntOf } from './sfnt.ts';

const require = createRequire(import.meta.url);

interface PdfMaker {
  setUrlAccessPolicy(allow: () => boolean): void;
  setLocalAccessPolicy(allow: (path: string) => boolean): void;
  addFonts(fonts: Record<string, Record<string, string>>): void;
  readonly virtualfs: { writeFileSync(name: string, content: Buffer): void };
  createPdf(document: object): { getBuffer(): Promise<Buffer> };
}

const nameOf = (family: string, weight: number) => `${family}-${weight}`;
const BODY = 'atkinson-hyperlegible-next';
const HEADING = 'bricolage-grotesque';
const USED = [
  [BODY, 400],
  [BODY, 700],
  [HEADING, 700],
] as const;
const FONTS = {
  body: { normal: nameOf(BODY, 400), bold: nameOf(BODY, 700) },
  heading: { normal: nameOf(HEADING, 700), bold: nameOf(HEADING, 700) },
};

/** pdfmake keeps its fonts on one shared object; it is set up once, without any network or file and with our fonts only. */
function createMaker(): PdfMaker {
  const maker = require('pdfmake') as PdfMaker;
  maker.setUrlAccessPolicy(() => false);
  maker.setLocalAccessPolicy(() => false);
  for (const [family, weight] of USED)
    maker.virtualfs.writeFileSync(
      nameOf(family, weight),
      sfntOf(
        readFileSync(require.resolve(`@fontsource/${family}/files/${family}-latin-${weight}-normal.woff`)),
      ),
    );
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

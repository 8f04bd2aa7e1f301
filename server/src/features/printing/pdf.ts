import { createRequire } from 'node:module';

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

/** Colours of what is printed. */
export const INK = '#22303a';
/** Quiet ink on paper. */
export const MUTED = '#55626b';
/** The left side’s colour on paper. */
export const TEAL = '#17646b';

/** The bytes of a document. */
export const pdfOf = (document: object): Promise<Buffer> => maker.createPdf(document).getBuffer();

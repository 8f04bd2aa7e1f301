import { bundledFigures, figureOf } from '../figure/bundled.ts';
import { fieldFaults } from '../figure/fields.ts';
import { faultsOf, finished, NUMBERS, wholeFigure } from '../figure/index.ts';
import type { FigureSource, SolvedFigure, WrittenFigure } from '../figure/index.ts';
import { bundledReference } from '../reference/bundled.ts';

/** A mistake somebody could make: in a solved pose, or in what is written, which is then solved again. Null where it cannot be made. */
export type Mistake = (source: FigureSource, figure: SolvedFigure) => FigureSource | SolvedFigure | null;

const moved = (figure: SolvedFigure, name: string, by: number): SolvedFigure => {
  const place = NUMBERS.indexOf(name);
  const poses = figure.poses.map((pose) => pose.map((value, i) => (i === place ? value + by : value)));
  return { ...figure, poses };
};
const otherSide = (text: string) =>
  text.replace(/([a-zA-Z])([LR])(?=[".])/g, (_, stem: string, side: string) =>
    /^(?:side)$/.test(stem) ? `${stem}${side}` : `${stem}${side === 'L' ? 'R' : 'L'}`,
  );

/** Mistakes in solved poses. */
export const SOLVED: Readonly<Record<string, Mistake>> = {
  floating: (_, figure) => (figure.rig === 'body' ? moved(figure, 'root.y', 6) : null),
  sunk: (_, figure) => (figure.rig === 'body' ? moved(figure, 'root.y', -6) : null),
  'a hip 35° off': (_, figure) => {
    const leg = figure.accent.find((part) => part.startsWith('leg'));
    return leg && figure.rig === 'body' ? moved(figure, `hip${leg.slice(-1)}.flex`, 35) : null;
  },
  'wrong side marked': (_, figure) => {
    const sides = new Set(figure.accent.flatMap((part) => /[LR]$/.exec(part) ?? []));
    if (sides.size !== 1 || figure.rig !== 'body') return null;
    return {
      ...figure,
      accent: figure.accent.map(
        (part) => part.replace(/[LR]$/, (side) => (side === 'L' ? 'R' : 'L')) as typeof part,
      ),
    };
  },
  'wrong camera': (_, figure) =>
    figure.rig === 'body' ? { ...figure, view: { ...figure.view, az: figure.view.az + 90 } } : null,
};

/** Mistakes in what is written. */
export const WRITTEN: Readonly<Record<string, Mistake>> = {
  'sign of an angle flipped': (source) => {
    if (source.rig !== 'body') return null;
    const key = source.keys.findLast(({ set }) => set && Object.keys(set).length > 0);
    const set = key?.set ?? source.set ?? {};
    const angles = Object.entries(set).filter(([name]) => !/^root\.[xyz]$/.test(name));
    const [name, value] = angles.sort((a, b) => Math.abs(b[1]) - Math.abs(a[1]))[0] ?? [];
    if (!name || !value || Math.abs(value) < 15) return null;
    const flipped = { ...set, [name]: -value };
    return key
      ? { ...source, keys: source.keys.map((one) => (one === key ? { ...one, set: flipped } : one)) }
      : { ...source, set: flipped };
  },
  'limbs of the other side': (source) => {
    if (source.rig !== 'body') return null;
    const { set, keys, on, at, touch } = source;
    const text = JSON.stringify({ set, keys, on, at, touch });
    const swapped = otherSide(text);
    return swapped === text ? null : { ...source, ...(JSON.parse(swapped) as object) };
  },
  'a contact forgotten': (source) => {
    const [surface] = Object.keys(source.on ?? {});
    if (!surface || source.rig !== 'body') return null;
    const { [surface]: _, ...rest } = source.on ?? {};
    return { ...source, on: rest };
  },
  'kit moved': (source) => {
    const at = (source.kit ?? []).findIndex((one) => Array.isArray(one.at) && one.type !== 'mat');
    if (at < 0 || source.rig !== 'body') return null;
    const kit = (source.kit ?? []).map((one, i) =>
      i === at && typeof one.at === 'object' ? { ...one, at: [one.at[0] + 30, one.at[1], one.at[2]] } : one,
    );
    return { ...source, kit: kit as NonNullable<FigureSource['kit']> };
  },
};

const drillsOf = new Map<string, string[]>();
for (const [drill, figure] of Object.entries(bundledFigures.drills))
  drillsOf.set(figure, [...(drillsOf.get(figure) ?? []), drill]);

/** Everything the checks say about a figure: against what is written, and against the drills that it shows. */
function said(id: string, figure: SolvedFigure, source: FigureSource): Set<string> {
  const drills = (drillsOf.get(id) ?? []).flatMap((drill) => bundledReference.drills.get(drill) ?? []);
  return new Set([
    ...faultsOf(figure, source).map(({ kind }) => kind as string),
    ...drills.flatMap((drill) => fieldFaults(figure, drill).map(({ field }) => field as string)),
  ]);
}

/** In how many of the figures a mistake could be made, and in how many the checks then say something they did not say before. */
export function share(
  mistake: Mistake,
  sources: Readonly<Record<string, WrittenFigure>>,
  every = 1,
): { of: number; caught: number; missed: string[] } {
  const missed: string[] = [];
  let of = 0;
  for (const id of Object.keys(sources).filter((_, i) => i % every === 0)) {
    const source = wholeFigure(id, sources);
    const figure = figureOf(id);
    const wrong = figure && mistake(source, figure);
    if (!figure || !wrong) continue;
    of += 1;
    const [next, against] = 'poses' in wrong ? [wrong, source] : [finished(wrong), source];
    // What is written wrong is solved as it is written; its intent, and what it should touch, stay.
    const before = said(id, figure, source);
    const now =
      'poses' in wrong ? said(id, next, against) : said(id, next, { ...wrong, assert: source.assert });
    if ([...now].every((kind) => before.has(kind))) missed.push(id);
  }
  return { of, caught: of - missed.length, missed };
}

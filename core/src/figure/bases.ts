import bases from './data/bases.json' with { type: 'json' };
import { figureSchema } from './schema.ts';
import type { FigureSource } from './schema.ts';
import { sitesOf } from './skeleton.ts';

/** A figure as a library keeps it: from a base, or from another figure; objects are merged, lists take the place of the other's. */
export type WrittenFigure = Omit<Partial<FigureSource>, 'keys'> & {
  /** The figure that it is made from. */
  readonly from?: string;
  readonly keys?: readonly object[];
  /** Kit beside that of the figure that it is made from: a sensor, a tape. */
  readonly more?: readonly object[];
  /** Changes of single keys of the figure that it is made from, by their number. */
  readonly keyPatch?: Readonly<Record<string, object>>;
};

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Objects are merged, whatever else is replaced. */
function merged(before: unknown, after: unknown): unknown {
  if (after === undefined) return before;
  if (!isRecord(before) || !isRecord(after)) return after;
  return Object.fromEntries(
    [...new Set([...Object.keys(before), ...Object.keys(after)])].map((key) => [
      key,
      merged(before[key], after[key]),
    ]),
  );
}

const listed = (names: unknown): string[] =>
  typeof names === 'string' ? [names] : ((names ?? []) as string[]);

/** What a figure is made from, without the contacts of places that touch nothing any more. */
function lifted(under: Record<string, unknown>, off: unknown): Record<string, unknown> {
  const gone = new Set(listed(off).flatMap(sitesOf));
  if (gone.size === 0) return under;
  const left = (names: unknown) =>
    listed(names)
      .flatMap(sitesOf)
      .filter((site) => !gone.has(site));
  const on = Object.entries((under['on'] ?? {}) as Record<string, unknown>).map(([surface, names]) => [
    surface,
    left(names),
  ]);
  const at = Object.entries((under['at'] ?? {}) as Record<string, unknown>).flatMap(([name, point]) =>
    left(name).map((site) => [site, point]),
  );
  const touch = ((under['touch'] ?? []) as string[][]).filter(
    ([a = '', b = '']) => !gone.has(a) && !gone.has(b),
  );
  return { ...under, on: Object.fromEntries(on), at: Object.fromEntries(at), touch };
}

/** A figure with everything of what it is made from. Throws where that is not there, or makes a circle. */
export function wholeFigure(
  id: string,
  all: Readonly<Record<string, WrittenFigure>>,
  seen: readonly string[] = [],
): FigureSource {
  const own = all[id];
  if (!own) throw new Error(`${seen.at(-1) ?? 'a figure'} is made from "${id}", which is not there`);
  if (seen.includes(id)) throw new Error(`${[...seen, id].join(' → ')} goes round in a circle`);
  const { from, keyPatch, more, ...rest } = own;
  const under = from
    ? (wholeFigure(from, all, [...seen, id]) as object)
    : ((bases as Record<string, object>)[own.base ?? ''] ?? {});
  const whole = merged(lifted(under as Record<string, unknown>, rest.off), {
    ...rest,
    off: undefined,
  }) as Record<string, unknown>;
  delete whole['off'];
  if (more) whole['kit'] = [...((whole['kit'] as object[] | undefined) ?? []), ...more];
  if (keyPatch) {
    const keys = [...((whole['keys'] as unknown[] | undefined) ?? [{}])];
    for (const [at, change] of Object.entries(keyPatch))
      keys[Number(at)] = merged(keys[Number(at)] ?? {}, change);
    whole['keys'] = keys;
  }
  return figureSchema.parse(whole);
}

import { readdirSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import type { WrittenFigure } from '../src/figure/index.ts';

const SOURCES = resolve(import.meta.dirname, '../src/figure/data/source');

/** Every figure as it is written, by its id. */
export function figureSources(): Record<string, WrittenFigure> {
  return Object.assign(
    {},
    ...readdirSync(SOURCES).map((file) => JSON.parse(readFileSync(resolve(SOURCES, file), 'utf8')) as object),
  ) as Record<string, WrittenFigure>;
}

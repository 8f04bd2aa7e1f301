import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { faultsOf, finished, wholeFigure } from '../src/figure/index.ts';
import type { FigureStore } from '../src/figure/index.ts';
import { bundledReference } from '../src/reference/bundled.ts';
import { figureSources } from './figureSources.ts';

const DATA = resolve(import.meta.dirname, '../src/figure/data');
const STORE = resolve(DATA, 'solved.json');
/** What decides about a pose: when one of these changes, everything is solved anew. */
const ENGINE = ['closeUp', 'finish', 'skeleton', 'solve', 'surfaces', 'vector'];

const textOf = (path: string) => readFileSync(path, 'utf8');
const hashOf = (...parts: string[]) => createHash('sha1').update(parts.join('\n')).digest('hex').slice(0, 12);
const sources = figureSources();
const engine = hashOf(...ENGINE.map((name) => textOf(resolve(DATA, `../${name}.ts`))));
const before = JSON.parse(readOr(STORE, '{"engine":"","drills":{},"figures":{}}')) as FigureStore;

function readOr(path: string, otherwise: string): string {
  try {
    return textOf(path);
  } catch {
    return otherwise;
  }
}

/** The figure of each drill: its own, else that of the nearest rung below it, else above it. */
function figureOfEach(): Record<string, string> {
  const found: Record<string, string> = {};
  for (const { drills } of bundledReference.data.ladders)
    drills.forEach((id, rung) => {
      const near = [id, ...drills.slice(0, rung).reverse(), ...drills.slice(rung + 1)].find(
        (one) => one in sources,
      );
      if (near) found[id] = near;
    });
  return found;
}

const check = process.argv.includes('--check');
const figures: FigureStore['figures'] = {};
const stale: string[] = [];
for (const id of Object.keys(sources).sort()) {
  try {
    solve(id);
  } catch (error) {
    process.stderr.write(`${id}: ${error instanceof Error ? error.message : String(error)}\n`);
    process.exitCode = 1;
  }
}

function solve(id: string): void {
  const source = wholeFigure(id, sources);
  const { assert: _meant, ...posed } = source;
  const of = hashOf(engine, JSON.stringify(posed));
  const kept = before.figures[id];
  if (kept?.of === of) figures[id] = kept;
  else {
    stale.push(id);
    if (check) return;
    figures[id] = { of, ...finished(source) };
    process.stdout.write(`${id}\n`);
  }
}
const drills = figureOfEach();
for (const { id } of bundledReference.data.drills)
  if (!drills[id]) process.stderr.write(`no figure: ${id}\n`);
if (check) {
  if (stale.length > 0) {
    process.stderr.write(
      `core/src/figure/data/solved.json is out of date: run "npm run figures" (${stale.join(', ')})\n`,
    );
    process.exitCode = 1;
  }
} else {
  const lines = Object.entries(figures).map(
    ([id, figure]) => `${JSON.stringify(id)}:${JSON.stringify(figure)}`,
  );
  writeFileSync(
    STORE,
    `{"engine":"${engine}","drills":${JSON.stringify(drills)},\n"figures":{\n${lines.join(',\n')}\n}}\n`,
  );
  for (const [id, figure] of Object.entries(figures)) {
    const faults = faultsOf(figure, wholeFigure(id, sources));
    if (faults.length > 0)
      process.stdout.write(`${id}: ${faults.map(({ kind, says }) => `${kind} ${says}`).join('; ')}\n`);
  }
}

import { performance } from 'node:perf_hooks';
import loadHighs from 'highs';
import {
  BUILDER,
  createHighsSolver,
  createPlanModel,
  relaxationOf,
  solvePlan,
  whyNotBound,
  whyNotExact,
  whyNotRange,
} from '../src/builder/index.ts';
import type { MipSolver, Prepared } from '../src/builder/index.ts';
import { bundledReference } from '../src/reference/bundled.ts';
import { randomLibrary } from '../src/testing/randomLibrary.ts';
import { benchCase, libraryCase } from './cases.ts';
import { judgeCase, prepareCase } from '../src/testing/prepared.ts';

const MINUTES = [5, 12, 25] as const;
const SEEDS = 30;

function quantile(values: readonly number[], q: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))] ?? 0;
}

function timed<T>(work: () => T): { ms: number; result: T } {
  const start = performance.now();
  const result = work();
  return { ms: performance.now() - start, result };
}

interface Sample {
  readonly first: number;
  readonly firstGap: number;
  readonly staged: number;
  readonly bare: number;
  readonly gap: number;
}

/** One instance: our staged solve and bare (tuned) HiGHS on the very same model, to the same gap. */
function sample(prepared: Prepared, solver: MipSolver): Sample | null {
  const answers: { at: number; gap: number }[] = [];
  const start = performance.now();
  const plan = solvePlan(prepared.problem, solver, {
    onAnswer: ({ gap }) => answers.push({ at: performance.now() - start, gap }),
  });
  const staged = performance.now() - start;
  const bare = timed(() => {
    const { model, chosenOf } = createPlanModel(prepared.problem);
    return chosenOf(
      solver.solve(model, { relativeGap: BUILDER.relativeGap, nodeLimit: BUILDER.nodeLimit }).values,
    );
  });
  // What is shown first is the first answer whose distance from the best possible is known.
  const first = answers.find(({ gap }) => Number.isFinite(gap));
  if (!plan || !first) return null;
  return {
    first: first.at,
    firstGap: first.gap,
    staged,
    bare: bare.ms,
    gap: plan.gap,
  };
}

const median = (values: number[]) => quantile(values, 0.5);
const cell = (values: number[]) => `${median(values).toFixed(0)}/${quantile(values, 0.95).toFixed(0)} ms`;

/** Milliseconds within which an instance should be proven. */
const PROVEN_WITHIN_MS = 500;

function solveRows(
  title: string,
  prepareOne: (seed: number, minutes: number) => Prepared,
  solver: MipSolver,
): void {
  console.log(title);
  console.log(
    'minutes  options  first answer with gap med/p95  its gap med/p95  staged med/p95  bare med/p95  staged÷bare  proven  within 500 ms',
  );
  const all: Sample[] = [];
  for (const minutes of MINUTES) {
    const prepared = Array.from({ length: SEEDS }, (_, seed) => prepareOne(1000 * minutes + seed, minutes));
    const samples = prepared.map((p) => sample(p, solver)).filter((s) => s !== null);
    all.push(...samples);
    row(String(minutes), median(prepared.map((p) => p.problem.options.length)), samples);
  }
  row('all', 0, all);
}

function row(minutes: string, options: number, samples: readonly Sample[]): void {
  const pick = (key: keyof Sample) => samples.map((s) => s[key]);
  const percent = (value: number) => `${(100 * value).toFixed(2)} %`;
  const proven = samples.filter((s) => s.gap <= BUILDER.relativeGap);
  console.log(
    [
      minutes.padEnd(7),
      String(options || '').padEnd(7),
      cell(pick('first')).padEnd(29),
      `${percent(median(pick('firstGap')))}/${percent(quantile(pick('firstGap'), 0.95))}`.padEnd(15),
      cell(pick('staged')).padEnd(14),
      cell(pick('bare')).padEnd(12),
      (median(pick('staged')) / median(pick('bare'))).toFixed(2).padEnd(11),
      `${proven.length}/${samples.length}`.padEnd(6),
      `${proven.filter((s) => s.staged <= PROVEN_WITHIN_MS).length}/${samples.length}`,
    ].join('  '),
  );
}

function solveBench(solver: MipSolver): void {
  solveRows(
    'Routine solve on the real library, 30 seeded athletes each, warm; bare = tuned HiGHS, same model and gap',
    (seed, minutes) => prepareCase(bundledReference, benchCase(bundledReference, seed, minutes, 10)),
    solver,
  );
  solveRows(
    'Routine solve on 90 seeded made-up libraries of 300 drills, 1 to 10 restrictions, warm',
    (seed, minutes) => {
      const library = randomLibrary(bundledReference, seed, 300);
      return prepareCase(library, libraryCase(library, seed, minutes));
    },
    solver,
  );
}

/** Ten "why not" of one routine: all bounds from one relaxation, all ranges by a short search, one exact answer. */
function whyNotBench(solver: MipSolver): void {
  const times = { bound: [] as number[], range: [] as number[], exact: [] as number[] };
  for (let seed = 1; seed <= SEEDS; seed += 1) {
    const library = randomLibrary(bundledReference, seed, 300);
    const prepared = prepareCase(library, libraryCase(library, seed, 12));
    const plan = solvePlan(prepared.problem, solver);
    if (!plan) continue;
    const inPlan = new Set(plan.chosen.map((option) => option.drill));
    const ten = [...new Set(prepared.problem.options.map((option) => option.drill))]
      .filter((drill) => !inPlan.has(drill))
      .slice(0, 10);
    const start = performance.now();
    const relaxation = relaxationOf(prepared.problem, solver);
    if (!relaxation) continue;
    for (const drill of ten) whyNotBound(prepared, plan, relaxation, drill);
    times.bound.push(performance.now() - start);
    for (const drill of ten) whyNotRange(prepared, plan, relaxation, drill);
    times.range.push(performance.now() - start);
    if (ten[0]) times.exact.push(timed(() => whyNotExact(prepared, plan, solver, ten[0] ?? '')).ms);
  }
  console.log(
    `Ten "why not" on 300 drills, 12 minutes, ${SEEDS} instances: bounds ${cell(times.bound)}, ranges ${cell(times.range)} (median/p95, all ten); one exact answer ${cell(times.exact)}`,
  );
}

/** A seeded athlete screened in 30 tests every month of a year. */
function yearOf(seed: number) {
  const input = benchCase(bundledReference, seed, 10, 30);
  return {
    ...input,
    screenings: Array.from({ length: 12 }, (_, i) => ({
      date: `2026-${String(i + 1).padStart(2, '0')}-15`,
      results: input.screenings[0]?.results ?? [],
    })),
  };
}

const PRACTICE = 500;

function practiceBench(): void {
  const cases = Array.from({ length: PRACTICE }, (_, seed) => yearOf(seed + 1));
  const texts = cases.map((input) => JSON.stringify(input));
  const judged = timed(() => cases.forEach((input) => judgeCase(bundledReference, input))).ms;
  const read = timed(() => texts.forEach((text) => JSON.parse(text) as unknown)).ms;
  console.log(
    `Findings for ${PRACTICE} athletes (30 tests, 12 screenings each): ${(judged / 1000).toFixed(2)} s, ${(judged / read).toFixed(0)} × reading the same input as JSON`,
  );
}

function findingsBench(): void {
  const year = yearOf(7);
  const text = JSON.stringify(year);
  for (let i = 0; i < 50; i += 1) judgeCase(bundledReference, year);
  const judged = Array.from({ length: 100 }, () => timed(() => judgeCase(bundledReference, year)).ms);
  const read = Array.from({ length: 100 }, () => timed(() => JSON.parse(text) as unknown).ms);
  const ratio = quantile(judged, 0.5) / quantile(read, 0.5);
  console.log(
    `Findings for one athlete (30 tests, 12 screenings): ${quantile(judged, 0.5).toFixed(1)} ms median, ${ratio.toFixed(0)} × reading the same input as JSON`,
  );
}

const solver = createHighsSolver(await loadHighs());
solvePlan(prepareCase(bundledReference, benchCase(bundledReference, 1, 12, 8)).problem, solver); // warm up
const megabytes = () => Math.round(process.resourceUsage().maxRSS / 1024);
const loaded = megabytes();
solveBench(solver);
console.log(
  `Memory of a thread that builds: ${loaded} MB once reference and solver are loaded, at most ${megabytes()} MB after ${2 * SEEDS * MINUTES.length} builds`,
);
whyNotBench(solver);
findingsBench();
practiceBench();

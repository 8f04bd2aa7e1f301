import loadHighs from 'highs';
import { createHighsSolver } from '../builder/index.ts';
import type { MipSolver } from '../builder/index.ts';

let solver: Promise<MipSolver> | null = null;

/** One HiGHS runtime for all tests of a process. */
export function testSolver(): Promise<MipSolver> {
  solver ??= loadHighs().then(createHighsSolver);
  return solver;
}

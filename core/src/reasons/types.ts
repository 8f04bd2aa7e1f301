import type { z } from 'zod';
import type { BARRIERS, REASON_FIGURES } from './figures.ts';

type Figures = typeof REASON_FIGURES;

/** The rules that can be given as a reason. */
export type Rule = keyof Figures;

type Shape<F> = { [Figure in keyof F]: F[Figure] extends z.ZodType ? z.infer<F[Figure]> : never };

/** A rule with exactly its figures; a missing or misspelt one does not compile. */
export type ReasonOf<R extends Rule> = {
  [Each in R]: Readonly<{ rule: Each } & Shape<Figures[Each]>>;
}[R];

/** A reason as data: the rule that fired and its figures. words/reasonText.ts turns it into a sentence. */
export type Reason = ReasonOf<Rule>;

/** A rule that can keep a drill out. */
export type Barrier = (typeof BARRIERS)[number];

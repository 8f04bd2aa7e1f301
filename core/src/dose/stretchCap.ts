import type { Mode } from '../domain/index.ts';

/** Most seconds of static stretch a side that a school allows before activity, in all (rulings, "Builder", editable). */
export const STATIC_SECONDS: Readonly<Record<string, number>> = { 'short-then-dynamic': 30, 'last-step': 20 };

/** The cap in seconds a side for an option of `static-stretch-before`; null where none holds. */
export function stretchCapSeconds(mode: Mode, option: string): number | null {
  return mode === 'prepare' ? (STATIC_SECONDS[option] ?? null) : null;
}

import type { TemplateFields } from '../contracts/index.ts';
import type { BuildRequest, Occasion, RoutineItem } from '../domain/index.ts';
import { isLine, isOwnWords } from '../reference/index.ts';

/**
 * What is asked for when a protocol is used for an athlete: its own mode, shape and number of drills, and what varies as it
 * is for the athlete. `own` is what is asked for that athlete and occasion anyway; for another occasion than the protocol's
 * its mode wins, and the shape is chosen anew.
 */
export function protocolRequest(
  { request, variables, items, structure, occasion: meant }: TemplateFields,
  own: BuildRequest,
  occasion: Occasion,
): BuildRequest {
  const mode = meant === null || meant === occasion ? request.mode : own.mode;
  const place = variables.place === 'as-written' ? request : own;
  const time = variables.minutes === 'as-written' ? request : own;
  return {
    ...own,
    mode,
    structure: mode === request.mode ? structure : null,
    maxDrills: request.maxDrills,
    minutes: time.minutes,
    kit: place.kit,
    space: place.space,
    pins: [],
    prefer: items.filter(({ drill }) => !isLine(drill)).map(({ drill }) => drill),
  };
}

/** Drills that were fitted anew with what the written lines say in own words, which stays below them. */
export function withWords(fitted: readonly RoutineItem[], written: readonly RoutineItem[]): RoutineItem[] {
  const words = written.filter(({ drill }) => isOwnWords(drill));
  // They stood in parts that the fitted drills do not have.
  return [...fitted, ...words.map(({ id: _id, from: _from, ...item }) => ({ ...item, phase: null }))];
}

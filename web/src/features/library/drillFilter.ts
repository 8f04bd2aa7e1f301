import { coversRestriction, kitWordsOf } from '@yonder/core/reference';
import type { Drill, Reference } from '@yonder/core/reference';
import { findDrills } from '@yonder/core/takeover';

/** What the library is narrowed down to; null = anything. Kept in the address. */
export interface DrillFilter {
  readonly text: string;
  readonly region: string | null;
  readonly restriction: string | null;
  readonly category: string | null;
  /** A kit word, or "none" for drills without any. */
  readonly kit: string | null;
  readonly position: string | null;
  readonly level: string | null;
  readonly pattern: string | null;
  /** "own", "archived" or null for everything that is offered. */
  readonly whose: string | null;
}

export const FILTER_KEYS = [
  'region',
  'restriction',
  'category',
  'kit',
  'position',
  'level',
  'pattern',
  'whose',
] as const;

export function readFilter(search: URLSearchParams): DrillFilter {
  const own = Object.fromEntries(FILTER_KEYS.map((key) => [key, search.get(key)]));
  return { text: search.get('q') ?? '', ...(own as Omit<DrillFilter, 'text'>) };
}

/** Highest level that has a filter of its own; everything above falls under it. */
export const TOP_LEVEL = 5;

function matchesLevel(drill: Drill, level: string): boolean {
  return Number(level) >= TOP_LEVEL ? drill.level >= TOP_LEVEL : drill.level === Number(level);
}

function matchOf(drill: Drill, restriction: string | null): number {
  return drill.serves.find((s) => s.restriction === restriction)?.match ?? 0;
}

/** Drills that pass a filter: best first for something typed, by match for a restriction, else by name. */
export function filterDrills(reference: Reference, filter: DrillFilter): Drill[] {
  const found = findDrills(reference, filter.text);
  const pattern = reference.patterns.get(filter.pattern ?? '');
  return reference.data.drills
    .filter((drill) => {
      return (
        (found === null || found.has(drill.id)) &&
        (filter.whose === 'archived' ? drill.archived === true : !drill.archived) &&
        (filter.whose !== 'own' || drill.own === true) &&
        (!filter.region || drill.regions.primary.some((r) => r === filter.region)) &&
        (!filter.restriction || coversRestriction(drill, filter.restriction)) &&
        (!filter.category || drill.category === filter.category) &&
        (!filter.kit ||
          (filter.kit === 'none'
            ? kitWordsOf(drill).length === 0
            : kitWordsOf(drill).includes(filter.kit))) &&
        (!filter.position || drill.position === filter.position) &&
        (!filter.level || matchesLevel(drill, filter.level)) &&
        (!pattern || (drill.patterns?.[pattern.id] ?? pattern.ladders[drill.ladder] ?? 0) >= 0.4)
      );
    })
    .sort(
      (a, b) =>
        (found?.get(b.id) ?? 0) - (found?.get(a.id) ?? 0) ||
        matchOf(b, filter.restriction) - matchOf(a, filter.restriction) ||
        (a.name < b.name ? -1 : 1),
    );
}

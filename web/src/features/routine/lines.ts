import type { Draft } from '@yonder/core/contracts';
import type { RoutineItem, Section } from '@yonder/core/domain';

type Item = Draft['items'][number];

/**
 * Items with new ones at a place, in the part of what stands before it; a circuit stays whole: what would come in among its
 * items stands below it.
 */
export function putAt(items: readonly Item[], place: number, put: readonly RoutineItem[]): RoutineItem[] {
  let at = place;
  const circuit = items[at - 1]?.circuit?.id;
  while (circuit !== undefined && items[at]?.circuit?.id === circuit) at += 1;
  const phase = (items[at - 1] ?? items[at])?.phase ?? null;
  const lines = put.map((item) => ({ ...item, phase: item.phase ?? phase }));
  return [...items.slice(0, at), ...lines, ...items.slice(at)];
}

/** Items with one of them once more, right below it and in its circuit. */
export function doubled(items: readonly Item[], id: string): RoutineItem[] {
  return items.flatMap((item): RoutineItem[] => {
    if (item.id !== id) return [item];
    const { id: _id, from: _from, ...copy } = item;
    return [item, copy];
  });
}

/** A section at a place: what stands from there on until the next section is in it. */
export function sectionAt(
  items: readonly Item[],
  sections: readonly Section[],
  from: number,
): { sections: Section[]; items: Item[] } {
  const taken = new Set(sections.map(({ id }) => id));
  const free = Array.from({ length: sections.length + 1 }, (_, i) => `section-${i + 1}`);
  const id = free.find((one) => !taken.has(one)) ?? `section-${sections.length + 1}`;
  const part = items[from]?.phase ?? null;
  let until = from;
  while (until < items.length && (items[until]?.phase ?? null) === part) until += 1;
  return {
    sections: [...sections, { id, name: 'Section', minutes: null }],
    items: items.map((item, i) => (i >= from && i < until ? { ...item, phase: id } : item)),
  };
}

/** Items without a section: what stood in it stands in no part. */
export function withoutSection(items: readonly Item[], id: string): Item[] {
  return items.map((item) => (item.phase === id ? { ...item, phase: null } : item));
}

/** Lines and sections under ids that a draft does not have yet, so that they can stand in it beside its own. */
export function clearedOf(
  draft: Pick<Draft, 'items' | 'sections'>,
  added: { readonly items: readonly RoutineItem[]; readonly sections: readonly Section[] },
): { items: RoutineItem[]; sections: Section[] } {
  const names = new Set([
    ...draft.sections.map(({ id }) => id),
    ...draft.items.flatMap(({ circuit }) => circuit?.id ?? []),
  ]);
  const free = (id: string) => {
    let next = id;
    for (let n = 2; names.has(next); n += 1) next = `${id}-${n}`;
    return next;
  };
  const ofSection = new Map(added.sections.map(({ id }) => [id, free(id)]));
  return {
    sections: added.sections.map((section) => ({ ...section, id: ofSection.get(section.id) ?? section.id })),
    items: added.items.map((item) => ({
      ...item,
      phase: item.phase === null ? null : (ofSection.get(item.phase) ?? item.phase),
      ...(item.circuit ? { circuit: { ...item.circuit, id: free(item.circuit.id) } } : {}),
    })),
  };
}

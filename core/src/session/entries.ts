import type { DiaryEntry, RoutineItem } from '../domain/index.ts';
import type { Segment } from '../dose/index.ts';
import { isLine, PAUSE } from '../reference/index.ts';
import type { IdentifiedItem } from '../routine/index.ts';
import type { Position } from './position.ts';

/** A diary entry that names the item it stands for. */
export type ItemEntry = DiaryEntry & { readonly item: string };

/** How much of one item's work was played: in full, in part, not at all; amounts of the sets in which every side was done. */
function workDone(
  segments: readonly Segment[],
  position: Position,
  index: number,
  item: RoutineItem,
): Pick<DiaryEntry, 'done' | 'amounts'> {
  const undone = new Set(position.skipped);
  const work = segments
    .map((segment, at) => ({ segment, done: at < position.segment && !undone.has(at) }))
    .filter(({ segment }) => segment.item === index && segment.kind === 'work');
  const done = work.filter((w) => w.done).length;
  const full = [...new Set(work.map((w) => w.segment.set))]
    .map((set) => work.filter((w) => w.segment.set === set))
    .filter((parts) => parts.every((w) => w.done));
  return {
    done: done === 0 ? 'none' : done === work.length ? 'all' : 'part',
    // Where the clock alone says how long, or it is as many as stay clean, nobody counted.
    amounts: full.flatMap((parts) =>
      !item.asMany && parts.every((w) => w.segment.amount !== null)
        ? [Math.min(...parts.map((w) => w.segment.amount ?? item.amount))]
        : [],
    ),
  };
}

/** Is there anything to keep of an item? A rest is none, nor are words that take no time. */
function isDone({ drill, amount }: RoutineItem): boolean {
  return drill !== PAUSE && (!isLine(drill) || amount > 0);
}

/** The diary entries a run amounts to, one an item of the routine, before anything was said about them. */
export function entriesOf(
  routine: readonly IdentifiedItem[],
  played: readonly RoutineItem[],
  segments: readonly Segment[],
  position: Position,
): ItemEntry[] {
  return routine.flatMap((original, index): ItemEntry[] => {
    const item = played[index] ?? original;
    if (!isDone(original)) return [];
    const entry = {
      item: original.id,
      drill: item.drill,
      side: item.side,
      ...workDone(segments, position, index, item),
      painBefore: 0,
      pain: 0,
      nextDayPain: null,
      effort: null,
      quality: null,
      ...(item.bothWays ? { bothWays: true } : {}),
      ...(original.drill === item.drill ? {} : { swappedFor: original.drill }),
    };
    return [entry];
  });
}

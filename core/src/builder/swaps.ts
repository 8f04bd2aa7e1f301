import type { RoutineItem, Side } from '../domain/index.ts';
import { kitWordsOf } from '../reference/index.ts';
import type { Drill } from '../reference/index.ts';
import { allowedSets, dosedItem, itemSeconds } from '../dose/index.ts';
import type { Prepared } from './prepared.ts';
import { hardRule, openSides, softRule } from './rules.ts';
import { BUILDER } from './settings.ts';

const LOAD_RANK = { unloaded: 0, partial: 1, full: 2, impact: 3 } as const;

/** Why another drill is wanted in the place of one. */
export const SWAP_REASONS = ['no-kit', 'hurts', 'position', 'dislikes'] as const;
/** Why a drill is to be swapped: its kit is missing, it hurts, its position cannot be taken, it is not liked. */
export type SwapReason = (typeof SWAP_REASONS)[number];

/** A drill that can take another's place, with what it keeps of the job. */
export interface Swap {
  readonly item: RoutineItem;
  readonly drill: string;
  readonly seconds: number;
  /** Share of the old drill's work for the weighted restrictions that the new one does, 0 to 1 and above. */
  readonly keeps: number;
  /** Weighted restrictions the new drill serves less than the old one, with the share of the match that is gone. */
  readonly lost: readonly { restriction: string; side: Side; share: number }[];
  /** Demand points against the old drill, below 0 when easier. */
  readonly demandChange: number;
  /** Named as an equivalent in the reference. */
  readonly listed: boolean;
}

function jobs(prepared: Prepared, drillId: string): Map<string, number> {
  const drill = prepared.reference.drills.get(drillId);
  return new Map(
    (drill?.serves ?? []).filter((s) => s.match >= BUILDER.coverMatch).map((s) => [s.restriction, s.match]),
  );
}

/** Does a candidate meet what the swap is for? */
function answersReason(old: Drill, candidate: Drill, reason: SwapReason | null): boolean {
  switch (reason) {
    case 'no-kit':
      return !kitWordsOf(candidate).some((kit) => kitWordsOf(old).includes(kit));
    case 'hurts':
      // Gentler on the tissue: less load, or the same load with less demand, and never a fast drill instead.
      return (
        LOAD_RANK[candidate.loadClass] <= LOAD_RANK[old.loadClass] &&
        candidate.demandIndex < old.demandIndex + (candidate.loadClass === old.loadClass ? 0 : 1) &&
        candidate.contraction !== 'ballistic'
      );
    case 'position':
      return candidate.position !== old.position;
    case 'dislikes':
      return candidate.ladder !== old.ladder;
    case null:
      return true;
  }
}

/**
 * Drills that do the same job as an item, best first: listed equivalents and drills that share a served restriction.
 * Kit, precautions, position and level are checked anew; drills already in the routine's ladders are left out. With a
 * reason only drills that answer it.
 */
export function swapsFor(
  prepared: Prepared,
  items: readonly RoutineItem[],
  index: number,
  reason: SwapReason | null = null,
): Swap[] {
  const item = items[index];
  const drill = item ? prepared.reference.drills.get(item.drill) : undefined;
  if (!item || !drill) return [];
  const own = jobs(prepared, drill.id);
  const weighted = prepared.weights.filter((w) => own.has(w.restriction));
  const total = [...own.values()].reduce((sum, match) => sum + match, 0);
  const takenLadders = new Set(
    items.filter((_, i) => i !== index).map((other) => prepared.reference.drills.get(other.drill)?.ladder),
  );
  return prepared.reference.data.drills
    .flatMap((candidate): Swap[] => {
      if (candidate.id === drill.id || takenLadders.has(candidate.ladder)) return [];
      if (!answersReason(drill, candidate, reason)) return [];
      const listed = drill.equivalents.includes(candidate.id);
      const theirs = jobs(prepared, candidate.id);
      const shared = [...own.entries()].reduce(
        (sum, [id, match]) => sum + Math.min(match, theirs.get(id) ?? 0),
        0,
      );
      if ((!listed && shared === 0) || candidate.demandIndex > drill.demandIndex + 1) return [];
      if (hardRule(prepared.rules, candidate) ?? softRule(prepared.rules, candidate)) return [];
      const side = candidate.unilateral ? (item.side === 'central' ? 'both' : item.side) : 'both';
      if (!openSides(prepared.rules, candidate, false).open.some((o) => o.side === side)) return [];
      const sets = allowedSets(prepared.reference, candidate, prepared.request.mode);
      const count = sets.includes(item.sets) ? item.sets : (sets.at(-1) ?? 1);
      const { item: dosed } = dosedItem(prepared.dose, candidate, side, count, item.phase);
      return [
        {
          item: dosed,
          drill: candidate.id,
          seconds: itemSeconds(candidate, dosed),
          keeps: total > 0 ? shared / total : 0,
          lost: weighted
            .map((w) => ({
              restriction: w.restriction,
              side: w.side,
              share: 1 - Math.min(1, (theirs.get(w.restriction) ?? 0) / (own.get(w.restriction) ?? 1)),
            }))
            .filter((w) => w.share > 0.01),
          demandChange: candidate.demandIndex - drill.demandIndex,
          listed,
        },
      ];
    })
    .sort((a, b) => b.keeps - a.keeps || Number(b.listed) - Number(a.listed) || (a.drill < b.drill ? -1 : 1));
}

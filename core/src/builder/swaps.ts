import type { RoutineItem, Side } from '../domain/index.ts';
import { allowedSets, dosedItem, itemSeconds } from '../dose/index.ts';
import type { Prepared } from './build.ts';
import { hardRule, openSides, softRule } from './rules.ts';
import { BUILDER } from './settings.ts';

/** A drill that can take another's place, with what it keeps of the job. */
export interface Swap {
  readonly item: RoutineItem;
  readonly drill: string;
  readonly seconds: number;
  /** Share of the old drill's work for the weighted restrictions that the new one does, 0 to 1 and above. */
  readonly keeps: number;
  readonly lost: readonly { restriction: string; side: Side }[];
  /** Named as an equivalent in the reference. */
  readonly listed: boolean;
}

function jobs(prepared: Prepared, drillId: string): Map<string, number> {
  const drill = prepared.reference.drills.get(drillId);
  return new Map(
    (drill?.serves ?? []).filter((s) => s.match >= BUILDER.coverMatch).map((s) => [s.restriction, s.match]),
  );
}

/**
 * Drills that do the same job as an item, best first: listed equivalents and drills that share a served restriction.
 * Kit, precautions, position and level are checked anew; drills already in the routine's ladders are left out.
 */
export function swapsFor(prepared: Prepared, items: readonly RoutineItem[], index: number): Swap[] {
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
      const sets = allowedSets(prepared.reference, candidate, prepared.input.request.mode);
      const count = sets.includes(item.sets) ? item.sets : (sets.at(-1) ?? 1);
      const { item: dosed } = dosedItem(prepared.dose, candidate, side, count, item.phase);
      return [
        {
          item: dosed,
          drill: candidate.id,
          seconds: itemSeconds(candidate, dosed),
          keeps: total > 0 ? shared / total : 0,
          lost: weighted
            .filter((w) => !theirs.has(w.restriction))
            .map((w) => ({ restriction: w.restriction, side: w.side })),
          listed,
        },
      ];
    })
    .sort((a, b) => b.keeps - a.keeps || Number(b.listed) - Number(a.listed) || (a.drill < b.drill ? -1 : 1));
}

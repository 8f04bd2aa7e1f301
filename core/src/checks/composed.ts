import { BUILDER, explainItems } from '../builder/index.ts';
import type { RoutineItem } from '../domain/index.ts';
import { inTurn, routineSeconds } from '../dose/index.ts';
import { isLine, isOwnWords, rehearsalTag } from '../reference/index.ts';
import { avoidedItems } from '../takeover/index.ts';
import type { Check, Checked, Repair } from './types.ts';

/** Starting levels that nobody has seen; "seen, fine" and "too hard" are said where the note stands. */
export function checkConfirm({ prepared, items, placed }: Checked): Check[] {
  const explained = explainItems(prepared, items);
  return placed.flatMap(({ drill, index }): Check[] => {
    const open = explained[index]?.reasons.some((reason) => 'confirm' in reason && reason.confirm);
    return open
      ? [{ level: 'note', reason: { rule: 'confirm-level', drill: drill.id }, at: [index], repair: null }]
      : [];
  });
}

/** Before activity, with an action that follows, and nothing that rehearses it. */
export function checkAction(checked: Checked): Check[] {
  const { prepared, placed, items } = checked;
  const { reference, request, rules, options } = prepared;
  if (request.mode !== 'prepare' || placed.length === 0) return [];
  const rehearses = (drill: string, action: string) => {
    const own = reference.drills.get(drill);
    return own !== undefined && rehearsalTag(reference, own, action) >= BUILDER.rehearses;
  };
  const missing = rules.actions.filter((action) => !placed.some(({ drill }) => rehearses(drill.id, action)));
  // One of several actions is enough: the drills of a preparation are few.
  const [action] = missing;
  if (action === undefined || missing.length < rules.actions.length) return [];
  const [best] = options.options
    .filter(({ drill, ladder }) => rehearses(drill, action) && !placed.some((p) => p.drill.ladder === ladder))
    .sort((a, b) => a.seconds - b.seconds || (a.drill < b.drill ? -1 : 1));
  const repair: Repair | null = best
    ? { does: { rule: 'repair-add', drill: best.drill }, items: [...items, best.item] }
    : null;
  return [{ level: 'note', reason: { rule: 'action-missing', pattern: action }, at: [], repair }];
}

/** Lines in somebody's own words: no rule of the day can be asked of them. */
export function checkWords({ items }: Checked): Check[] {
  const at = items.flatMap(({ drill, amount }, i) => (isOwnWords(drill) && amount > 0 ? [i] : []));
  return at.length === 0
    ? []
    : [{ level: 'note', reason: { rule: 'words-unchecked', lines: at.length }, at, repair: null }];
}

/** Drills that a caution of the list itself says to leave out. */
export function checkCautions({ prepared, items }: Checked): Check[] {
  return avoidedItems(prepared.reference, items).map(({ index, caution }): Check => ({
    level: 'warn',
    reason: { rule: 'caution-says-no', drill: items[index]?.drill ?? '', says: caution },
    at: [index],
    repair: {
      does: { rule: 'repair-remove', drill: items[index]?.drill ?? '' },
      items: items.filter((_item, i) => i !== index),
    },
  }));
}

/** Turns of a group that starts by the clock which take longer than there is. */
export function checkTurns({ items, placed }: Checked): Check[] {
  return placed.flatMap(({ drill, item, index }): Check[] => {
    const { circuit } = item;
    if (circuit?.pace?.by !== 'every') return [];
    const seconds = Math.max(
      ...Array.from({ length: circuit.rounds }, (_, round) => Math.ceil(inTurn(drill, item, round))),
    );
    if (seconds <= circuit.pace.seconds) return [];
    const most = Math.min(300, Math.ceil(seconds / 15) * 15);
    const slower = { ...circuit, pace: { by: 'every' as const, seconds: most } };
    return [
      {
        level: 'warn',
        reason: { rule: 'turn-too-long', drill: drill.id, seconds, most: circuit.pace.seconds },
        at: [index],
        repair: {
          does: { rule: 'repair-pace', seconds: most },
          items: items.map((own) => (own.circuit?.id === circuit.id ? { ...own, circuit: slower } : own)),
        },
      },
    ];
  });
}

/** Seconds that rounds must save before they are proposed. */
const WORTH_ROUNDS = 20;

/** Neighbours of one part that are each done in the same number of sets with rests between: candidates for rounds. */
function runsOfSets(items: readonly RoutineItem[]): [number, number][] {
  const fits = ({ drill, circuit, sets, perSide, restSeconds }: RoutineItem) =>
    !isLine(drill) && !circuit && !perSide && sets > 1 && restSeconds > 0;
  const runs: [number, number][] = [];
  items.forEach((item, i) => {
    if (!fits(item)) return;
    const last = runs.at(-1);
    const before = items[i - 1];
    if (last?.[1] === i - 1 && before?.sets === item.sets && before.phase === item.phase) last[1] = i;
    else runs.push([i, i]);
  });
  return runs.filter(([from, to]) => to > from && to - from < 6);
}

/** Where the time is short, sets with rests between them that could be done in rounds instead, one drill resting the other. */
export function checkRounds({ prepared, items, time }: Checked): Check[] {
  const { reference, chosen } = prepared;
  if (time.total <= chosen.minutes * 60) return [];
  const [best] = runsOfSets(items)
    .map(([from, to]) => {
      const rounds = items[from]?.sets ?? 1;
      const circuit = { id: `rounds-${from + 1}`, rounds };
      const next = items.map((item, i) => (i >= from && i <= to ? { ...item, sets: 1, circuit } : item));
      return { from, to, rounds, next, saved: time.total - routineSeconds(reference, next) };
    })
    .filter(({ saved }) => saved >= WORTH_ROUNDS)
    .sort((a, b) => b.saved - a.saved);
  if (!best) return [];
  const { from, to, rounds, next, saved } = best;
  return [
    {
      level: 'note',
      reason: { rule: 'rounds-would-fit', drills: to - from + 1, rounds, seconds: saved },
      at: Array.from({ length: to - from + 1 }, (_, i) => from + i),
      repair: { does: { rule: 'repair-rounds', rounds, seconds: saved }, items: next },
    },
  ];
}

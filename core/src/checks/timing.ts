import { schoolOption } from '../findings/index.ts';
import { routineTimeline, sideDoses, STATIC_SECONDS } from '../dose/index.ts';
import { swapOrRemove } from './allowed.ts';
import type { Reason } from '../reasons/index.ts';
import type { Check, Checked, Placed } from './types.ts';

/** Minutes after the last warming drill from which much of it is gone by the start (FORMULAS 12, editable). */
const COLD_AFTER_MINUTES = 10;
/** A drill that raises temperature at least this much warms. */
const WARMS = 2;

function staticSeconds({ item, drill }: Placed): number {
  return Math.max(...sideDoses(drill, item).map(({ sets, amount }) => sets * amount));
}

/** More static seconds a side, over all stretches, than the school allows; the repair shares them out evenly. */
function staticTooLong(checked: Checked, stretches: readonly Placed[], most: number): Check[] {
  const seconds = stretches.reduce((sum, placed) => sum + staticSeconds(placed), 0);
  if (seconds <= most) return [];
  const each = Math.floor(most / stretches.length);
  const items = checked.items.map((own, i) => {
    if (!stretches.some(({ index }) => index === i)) return own;
    const { perSide: _uneven, ...item } = own;
    return { ...item, sets: 1, amount: Math.min(item.amount, each) };
  });
  return [
    {
      level: 'warn',
      reason: { rule: 'static-too-long', drill: stretches[0]?.drill.id ?? '', seconds, most },
      at: stretches.map(({ index }) => index),
      repair: { does: { rule: 'repair-shorten', seconds: each }, items },
    },
  ];
}

/** After a short static hold movement has to follow, unless the school puts it last. */
function stretchWithoutMovement(checked: Checked, stretch: Placed): Check | null {
  const moving = checked.placed.find(
    ({ index, drill }) =>
      index > stretch.index && drill.contraction !== 'passive' && drill.category !== 'stretch',
  );
  if (moving) return null;
  const lastMoving = checked.placed.findLastIndex(({ drill }) => drill.contraction !== 'passive');
  const rest = checked.items.filter((_, i) => i !== stretch.index);
  const own = checked.items[stretch.index];
  return {
    level: 'warn',
    reason: { rule: 'no-movement-after-hold', drill: stretch.drill.id },
    at: [stretch.index],
    repair:
      lastMoving >= 0 && own
        ? {
            does: {
              rule: 'repair-move-before',
              drill: stretch.drill.id,
              before: checked.items[lastMoving]?.drill ?? '',
            },
            items: rest.toSpliced(lastMoving, 0, own),
          }
        : swapOrRemove(checked, stretch.index),
  };
}

/** Static stretching before activity against the school. */
export function checkStatic(checked: Checked): Check[] {
  const { request, reference, standing } = checked.prepared;
  if (request.mode !== 'prepare') return [];
  const option = schoolOption(reference, standing.schools, 'static-stretch-before');
  const stretches = checked.placed.filter(({ drill }) => drill.category === 'stretch');
  if (option === 'avoid') {
    return stretches.map(({ drill, index }) => ({
      level: 'warn',
      reason: { rule: 'static-before-activity', drill: drill.id, school: option },
      at: [index],
      repair: swapOrRemove(checked, index),
    }));
  }
  const alone =
    option === 'short-then-dynamic'
      ? stretches.map((stretch) => stretchWithoutMovement(checked, stretch))
      : [];
  return [
    ...staticTooLong(checked, stretches, STATIC_SECONDS[option] ?? Infinity),
    ...alone.filter((check) => check !== null),
  ];
}

/** Drills that another mode or the school keeps out of this one (static stretching is checked by itself). */
export function checkMode(checked: Checked): Check[] {
  return checked.placed.flatMap(({ drill, index }): Check[] => {
    const rule = checked.prepared.options.ineligible.get(drill.id);
    if (!rule || !['timing', 'mode', 'school'].includes(rule.rule)) return [];
    if (drill.category === 'stretch' && checked.prepared.request.mode === 'prepare') return [];
    const reason: Reason = { rule: 'not-at-hand', drill: drill.id, because: rule.rule, about: rule.about };
    return [{ level: 'warn', reason, at: [index], repair: swapOrRemove(checked, index) }];
  });
}

/** Seconds from the end of an item's last work to the end of the routine. */
function secondsAfter({ prepared, items, time }: Checked, index: number): number {
  const last = routineTimeline(prepared.reference, items).findLast((segment) => segment.item === index);
  return time.total - (last ? last.start + last.seconds : 0);
}

/** Before activity: warm at all, and not cooled down again by the end. */
export function checkWarmth(checked: Checked): Check[] {
  const { request, options, reference } = checked.prepared;
  if (request.mode !== 'prepare' || checked.items.length === 0) return [];
  const lastWarm = checked.placed.findLast(({ drill }) => drill.raisesTemperature >= WARMS);
  const idle = lastWarm ? secondsAfter(checked, lastWarm.index) : 0;
  if (lastWarm && idle <= COLD_AFTER_MINUTES * 60) return [];
  const taken = new Set(checked.placed.map(({ drill }) => drill.ladder));
  const warming = options.options
    .filter((option) => {
      const drill = reference.drills.get(option.drill);
      return (drill?.raisesTemperature ?? 0) >= WARMS && !taken.has(option.ladder);
    })
    .sort((a, b) => a.seconds - b.seconds || (a.drill < b.drill ? -1 : 1))[0];
  const at = lastWarm ? Math.max(1, checked.items.length - 1) : 0;
  return [
    {
      level: 'warn',
      reason: lastWarm
        ? { rule: 'cooled-down', drill: lastWarm.drill.id, minutes: idle / 60, most: COLD_AFTER_MINUTES }
        : { rule: 'never-warmed' },
      at: [],
      repair: warming
        ? {
            does: { rule: 'repair-add', drill: warming.drill },
            items: checked.items.toSpliced(at, 0, warming.item),
          }
        : null,
    },
  ];
}

import type { RoutineItem } from '../domain/index.ts';
import type { Drill } from '../reference/index.ts';

const UNIT: Readonly<Record<Drill['dose']['measure'], string>> = {
  reps: '',
  'hold-seconds': ' s',
  seconds: ' s',
  metres: ' m',
  contacts: ' contacts',
};

/** "2 × 10", "3 × 30 s", "2 × 8, hold 5 s": sets, amount, hold. */
export function amountText(item: Pick<RoutineItem, 'sets' | 'amount' | 'measure' | 'holdSeconds'>): string {
  const hold = item.holdSeconds && item.measure === 'reps' ? `, hold ${item.holdSeconds} s` : '';
  return `${item.sets} × ${item.amount}${UNIT[item.measure]}${hold}`;
}

/** "left only", "each side"; empty for drills without sides. */
export function sideText(drill: Drill, item: Pick<RoutineItem, 'side'>): string {
  if (item.side === 'left' || item.side === 'right') return `${item.side} only`;
  return drill.unilateral ? 'each side' : drill.alternating ? 'in all, alternating' : '';
}

/** The set-up in words: "foot distance from wall 8 cm"; empty without variables. */
export function setupText(drill: Drill, item: Pick<RoutineItem, 'setup'>): string {
  return drill.setupVariables
    .map((variable) => {
      const value = item.setup[variable.id] ?? variable.default;
      return `${variable.name.toLowerCase()} ${value}${variable.unit ? ` ${variable.unit}` : ''}`;
    })
    .join(', ');
}

/** The dose in one plain sentence for an athlete. */
export function doseSentence(drill: Drill, item: RoutineItem): string {
  const sets = `${item.sets} ${item.sets === 1 ? 'set' : 'sets'} of ${item.amount}`;
  const what =
    item.measure === 'reps'
      ? ' repetitions'
      : item.measure === 'hold-seconds'
        ? ' seconds held'
        : item.measure === 'seconds'
          ? ' seconds'
          : item.measure === 'metres'
            ? ' metres'
            : ' contacts';
  const hold = item.holdSeconds && item.measure === 'reps' ? `, holding each for ${item.holdSeconds} s` : '';
  const side = drill.alternating ? 'left and right in turn, counted together' : sideText(drill, item);
  const rest = item.sets > 1 && item.restSeconds > 0 ? `; rest ${item.restSeconds} s between sets` : '';
  return `${sets}${what}${hold}${side ? `, ${side}` : ''}${rest}.`;
}

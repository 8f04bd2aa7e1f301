import type { RoutineItem } from '../domain/index.ts';
import type { Drill } from '../reference/index.ts';

const UNIT: Readonly<Record<Drill['dose']['measure'], string>> = {
  reps: '',
  'hold-seconds': ' s',
  seconds: ' s',
  metres: ' m',
  contacts: ' contacts',
};

const WHAT: Readonly<Record<Drill['dose']['measure'], string>> = {
  reps: 'repetitions',
  'hold-seconds': 'seconds held',
  seconds: 'seconds',
  metres: 'metres',
  contacts: 'contacts',
};

type Dosed = Pick<RoutineItem, 'sets' | 'amount' | 'measure' | 'holdSeconds'> &
  Partial<Pick<RoutineItem, 'holdBreaths' | 'perSide' | 'bothWays'>>;

/** "hold 5 s", "hold 3 breaths"; empty without a hold. */
function holdText(item: Dosed): string {
  if (item.measure !== 'reps') return '';
  if (item.holdBreaths) return `hold ${item.holdBreaths} ${item.holdBreaths === 1 ? 'breath' : 'breaths'}`;
  return item.holdSeconds ? `hold ${item.holdSeconds} s` : '';
}

/** Sets and amount of one side: "3 × 10", "1 × 30 s". */
export function setsText(measure: Dosed['measure'], dose: { sets: number; amount: number }): string {
  return `${dose.sets} × ${dose.amount}${UNIT[measure]}`;
}

/** "2 × 10", "3 × 30 s", "2 × 8, hold 5 s", "left 3 × 10, right 2 × 10": sets, amount, hold. */
export function amountText(item: Dosed): string {
  const { perSide, measure } = item;
  const sets = perSide
    ? `left ${setsText(measure, perSide.left)}, right ${setsText(measure, perSide.right)}`
    : setsText(measure, item);
  return [sets, holdText(item), item.bothWays ? 'both ways round' : ''].filter(Boolean).join(', ');
}

/** "left only", "each side"; empty for drills without sides. */
export function sideText(drill: Drill, item: Pick<RoutineItem, 'side' | 'perSide'>): string {
  if (item.perSide) return '';
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

function setsSentence({ sets, amount }: { sets: number; amount: number }, what: string): string {
  return `${sets} ${sets === 1 ? 'set' : 'sets'} of ${amount} ${what}`;
}

function holdSentence(item: RoutineItem): string {
  if (item.measure !== 'reps') return '';
  if (item.holdBreaths)
    return `, holding each for ${item.holdBreaths} slow ${item.holdBreaths === 1 ? 'breath' : 'breaths'}`;
  return item.holdSeconds ? `, holding each for ${item.holdSeconds} s` : '';
}

/** The dose in one plain sentence for an athlete. */
export function doseSentence(drill: Drill, item: RoutineItem): string {
  const what = WHAT[item.measure];
  const { perSide } = item;
  const sets = perSide
    ? `Left ${setsSentence(perSide.left, what)}; right ${setsSentence(perSide.right, what)}`
    : setsSentence(item, what);
  const side = drill.alternating ? 'left and right in turn, counted together' : sideText(drill, item);
  const ways = item.bothWays ? ', then the same again the other way round' : '';
  const most = perSide ? Math.max(perSide.left.sets, perSide.right.sets) : item.sets;
  const rest = most > 1 && item.restSeconds > 0 ? `; rest ${item.restSeconds} s between sets` : '';
  const tempo =
    item.tempo && item.tempo !== drill.dose.tempo ? `; tempo ${item.tempo} (seconds down, pause, up)` : '';
  const rounds = item.circuit ? `; one round of ${item.circuit.rounds}` : '';
  return `${sets}${holdSentence(item)}${side ? `, ${side}` : ''}${ways}${rest}${tempo}${rounds}.`;
}

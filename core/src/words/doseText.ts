import type { Circuit, RoutineItem } from '../domain/index.ts';
import { isOwnWords, OWN_WORDS, PAUSE } from '../reference/index.ts';
import type { Drill, Reference } from '../reference/index.ts';
import { duration } from './figures.ts';

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
  Partial<Pick<RoutineItem, 'holdBreaths' | 'perSide' | 'bothWays' | 'amountFrom' | 'asMany'>>;

type SetsAndAmount = { sets: number; amount: number; amountFrom?: number | undefined };

/** "10", "8–12": an amount with the least of its range. */
function rangeText({ amount, amountFrom }: SetsAndAmount): string {
  return amountFrom === undefined ? String(amount) : `${amountFrom}–${amount}`;
}

/** What a line of a routine is called: its drill, or what is said in own words. */
export function lineName(
  reference: Pick<Reference, 'drills'>,
  item: Pick<RoutineItem, 'drill' | 'words' | 'caution'>,
): string {
  if (item.caution) return `Caution: ${item.words ?? ''}`;
  if (isOwnWords(item.drill)) return item.words ?? 'Own words';
  const name = reference.drills.get(item.drill)?.name ?? item.drill;
  return item.drill === PAUSE && item.words ? `${name}: ${item.words}` : name;
}

/** How a circuit goes: "3 rounds", "2 rounds, 30 s on, 15 s off", "5 rounds, a start every 60 s, +2 each round". */
export function circuitText({ rounds, pace, step, restSeconds }: Circuit): string {
  return [
    `${rounds} ${rounds === 1 ? 'round' : 'rounds'}`,
    pace?.by === 'clock' ? `${pace.work} s on, ${pace.rest} s off` : '',
    pace?.by === 'every' ? `a start every ${pace.seconds} s` : '',
    step ? `${step > 0 ? '+' : '−'}${Math.abs(step)} each round` : '',
    restSeconds ? `${restSeconds} s between rounds` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** "hold 5 s", "hold 3 breaths"; empty without a hold. */
function holdText(item: Dosed): string {
  if (item.measure !== 'reps') return '';
  if (item.holdBreaths) return `hold ${item.holdBreaths} ${item.holdBreaths === 1 ? 'breath' : 'breaths'}`;
  return item.holdSeconds ? `hold ${item.holdSeconds} s` : '';
}

/** Sets and amount of one side: "3 × 10", "1 × 30 s". */
export function setsText(measure: Dosed['measure'], dose: SetsAndAmount): string {
  return `${dose.sets} × ${rangeText(dose)}${UNIT[measure]}`;
}

/** "2 × 10", "3 × 8–12", "3 × 30 s", "2 × 8, hold 5 s", "left 3 × 10, right 2 × 10": sets, amount, hold. */
export function amountText(item: Dosed): string {
  const { perSide, measure } = item;
  const sets = perSide
    ? `left ${setsText(measure, perSide.left)}, right ${setsText(measure, perSide.right)}`
    : setsText(measure, item);
  const most = item.asMany ? sets.replace('× ', '× up to ') : sets;
  return [most, holdText(item), item.bothWays ? 'both ways round' : ''].filter(Boolean).join(', ');
}

/** Is a line a rest or own words that are timed once, for both sides, so that its time is all there is to say? */
function isTimedOnce({ drill, measure, sets, side, perSide, circuit }: RoutineItem): boolean {
  if (drill === PAUSE) return true;
  return (
    drill === OWN_WORDS && measure === 'seconds' && sets === 1 && side === 'both' && !perSide && !circuit
  );
}

/** How much of a line is done, short: a dose, a time; empty for what is only read. */
export function lineAmount(item: RoutineItem): string {
  if (item.amount === 0) return '';
  return isTimedOnce(item) ? duration(item.amount) : amountText(item);
}

/** "left only", "each side"; empty for drills without sides. */
export function sideText(drill: Drill, item: Pick<RoutineItem, 'side' | 'perSide'>): string {
  if (item.perSide) return '';
  if (item.side === 'left' || item.side === 'right') return `${item.side} only`;
  return drill.unilateral ? 'each side' : drill.alternating ? 'in all, alternating' : '';
}

/** The set-up in words: "foot distance from wall 8 cm, hook grip, 20 a minute"; empty without any. */
export function setupText(drill: Drill, item: Pick<RoutineItem, 'setup' | 'grip' | 'cadence'>): string {
  const variables = drill.setupVariables.map((variable) => {
    const value = item.setup[variable.id] ?? variable.default;
    return `${variable.name.toLowerCase()} ${value}${variable.unit ? ` ${variable.unit}` : ''}`;
  });
  return [...variables, item.grip ? `${item.grip} grip` : '', item.cadence ? `${item.cadence} a minute` : '']
    .filter(Boolean)
    .join(', ');
}

function setsSentence(dose: SetsAndAmount, what: string, asMany: boolean): string {
  const many = asMany
    ? `as many clean ${what} as you can, up to ${dose.amount}`
    : `${rangeText(dose)} ${what}`;
  return `${dose.sets} ${dose.sets === 1 ? 'set' : 'sets'} of ${many}`;
}

function holdSentence(item: RoutineItem): string {
  if (item.measure !== 'reps') return '';
  if (item.holdBreaths)
    return `, holding each for ${item.holdBreaths} slow ${item.holdBreaths === 1 ? 'breath' : 'breaths'}`;
  return item.holdSeconds ? `, holding each for ${item.holdSeconds} s` : '';
}

/** The dose in one plain sentence for an athlete. */
export function doseSentence(drill: Drill, item: RoutineItem): string {
  if (isTimedOnce(item)) return item.amount > 0 ? `${item.amount} s.` : '';
  const what = WHAT[item.measure];
  const { perSide } = item;
  const asMany = item.asMany ?? false;
  const { circuit } = item;
  if (circuit?.pace?.by === 'clock') return `${circuitText(circuit)}: as many clean ones as the time allows.`;
  const sets = perSide
    ? `Left ${setsSentence(perSide.left, what, asMany)}; right ${setsSentence(perSide.right, what, asMany)}`
    : setsSentence(item, what, asMany);
  const side = drill.alternating ? 'left and right in turn, counted together' : sideText(drill, item);
  const ways = item.bothWays ? ', then the same again the other way round' : '';
  const most = perSide ? Math.max(perSide.left.sets, perSide.right.sets) : item.sets;
  const rest = most > 1 && item.restSeconds > 0 ? `; rest ${item.restSeconds} s between sets` : '';
  const tempo =
    item.tempo && item.tempo !== drill.dose.tempo ? `; tempo ${item.tempo} (seconds down, pause, up)` : '';
  const rounds = circuit ? `; in a circuit of ${circuitText(circuit)}` : '';
  return `${sets}${holdSentence(item)}${side ? `, ${side}` : ''}${ways}${rest}${tempo}${rounds}.`;
}
